import { ownedBy, ownedName, type Block, type Condition, type Problem } from '../adjust';
import {
  assumptionOf,
  chooseModel,
  LIFT_BLOCK,
  onPlane,
  problemOf,
  type EvidenceContext,
  type MapModel,
  type MapPart,
} from '../calibrate';
import { conditionOn, readCoordinates, readDistance, readTogether } from './coordinates';
import {
  directionsOf,
  isFeature,
  isLying,
  knownOf,
  partBlock,
  type SceneFeature,
  type Scene,
  type SceneEvidence,
  type SceneView,
} from './scene';
import { axesShown, readShown, type ShownAxis } from './shown';

/** What is believed of a scene: pieces and ties that are left aside, and what of a view is not taken for granted. Named with their owner. */
export interface Belief {
  readonly aside: ReadonlySet<string>;
  readonly freed: ReadonlySet<string>;
}

export const NO_DOUBT: Belief = { aside: new Set(), freed: new Set() };

/** Numbers to begin at: of each view's map, and of coordinates by block. */
export interface SceneStart {
  readonly maps: ReadonlyMap<string, readonly number[]>;
  readonly coordinates: ReadonlyMap<string, number>;
}

/** What a view's picture may suffer from, and how it is shifted and turned in its plane. */
export const modelOf = ({ picture, model = 'auto', lens = model === 'auto' ? 'auto' : 'none' }: SceneView): MapModel =>
  chooseModel(picture, model, lens, { turns: true, shifts: true });

/** That a view shows a feature stands and falls by itself. */
export const tieOf = (feature: string, view: string) => `tie:${feature}@${view}`;
const knownGroup = (feature: string) => `known:${feature}`;
const isShared = (id: string) => isFeature(id) || id.startsWith('tie:');

/**
 * Everything in one adjustment: each view's own evidence, that it shows what it shows, and what is said of features. Coordinates that nothing speaks of take no part, nor do views that show
 * nothing: these stand by themselves.
 */
export function problemOfScene(scene: Scene, belief: Belief, start: SceneStart): Problem {
  const features = new Map(scene.features.map((feature) => [feature.id, feature]));
  const parts = [
    ...scene.views
      .filter((view) => shownTogether(view, scene).some(({ group }) => !belief.aside.has(group)))
      .map((view) => problemOfView(view, scene, belief, start)),
    { blocks: [], conditions: [...scene.features.flatMap(listKnown), ...conditionsOfScene(scene, features)] },
  ].map(({ blocks, conditions }) => ({
    blocks,
    conditions: conditions.filter(({ group }) => !belief.aside.has(group)),
  }));
  const conditions = anchored(parts.flatMap((part) => part.conditions));
  const coordinates = [...new Set(conditions.flatMap(({ blocks }) => blocks.filter(isFeature)))];
  return {
    blocks: [
      ...parts.flatMap(({ blocks }) => blocks),
      ...coordinates.map((id): Block => ({ id, start: [start.coordinates.get(id) ?? 0] })),
    ],
    conditions,
  };
}

/** What a view shows, and those that stand on its map. */
const shownTogether = (view: SceneView, { views, features }: Scene): Tie[] =>
  [view, ...views.filter(({ shares }) => shares === view.id)].flatMap((each) => listTies(each, features));

/** Without equations between coordinates of which nothing else speaks: they bind nothing. */
function anchored(conditions: readonly Condition[]): Condition[] {
  const isBetween = ({ exact, blocks }: Condition) => exact && blocks.every(isFeature);
  const spoken = new Set(conditions.filter((condition) => !isBetween(condition)).flatMap(({ blocks }) => blocks));
  const kept = new Set(conditions.filter((condition) => !isBetween(condition)));
  for (let grown = true; grown;) {
    grown = false;
    for (const condition of conditions) {
      if (kept.has(condition) || !(condition.blocks.length === 1 || condition.blocks.some((id) => spoken.has(id))))
        continue;
      kept.add(condition);
      condition.blocks.forEach((id) => spoken.add(id));
      grown = true;
    }
  }
  return conditions.filter((condition) => kept.has(condition));
}

function problemOfView(view: SceneView, { features }: Scene, { aside, freed }: Belief, start: SceneStart): Problem {
  const model = modelOf(view);
  const ties = listTies(view, features).filter(({ group }) => !aside.has(group));
  const own = view.evidence.filter(({ id, check }) => !check && !aside.has(ownedName(view.id, id)));
  const parts = new Set(
    model.parts.map(({ id }) => id).filter((part) => freed.has(partBlock(view, part))),
  ) as ReadonlySet<MapPart>;
  const problem = problemOf(model, own, view, parts, start.maps.get(view.id)!, {
    points: ties.map(({ point }) => point),
    conditionsIn: (context) => ties.map((tie) => tieCondition(tie, context)),
  });
  return amongOthers(view, model, problem);
}

/** The problem of a view among others: what it shares of its map is the other's, and said there. */
function amongOthers({ id, shares = id }: SceneView, model: MapModel, { blocks, conditions }: Problem): Problem {
  const shared = model.parts.map((part) => part.id).filter((part) => !isLying(part));
  const assumed = new Set(shared.map(assumptionOf));
  const isOfMap = (name: string) => shared.some((part) => part === name) || assumed.has(name) || name === LIFT_BLOCK;
  const isOwn = shares === id;
  return ownedBy(
    {
      blocks: blocks.filter((block) => isOwn || !isOfMap(block.id)),
      conditions: conditions.filter(({ group }) => isOwn || !assumed.has(group)),
    },
    (name) => (isShared(name) ? undefined : isOfMap(name) ? shares : id),
  );
}

/** One point of a view that shows a feature, and what it tells of it. */
export interface Tie {
  readonly group: string;
  readonly point: string;
  readonly feature: SceneFeature;
  readonly shows: readonly ShownAxis[];
}

export function listTies({ id, side }: Pick<SceneView, 'id' | 'side'>, features: readonly SceneFeature[]): Tie[] {
  return features.flatMap((feature) => {
    const shows = axesShown(side, feature, features);
    return feature.seen
      .filter(({ view }) => view === id)
      .flatMap(({ points }) => points.map((point) => ({ group: tieOf(feature.id, id), point, feature, shows })));
  });
}

/** The place that was pointed at lies exactly where the feature does: what it misses that by is the pointing's. */
function tieCondition({ group, point, feature, shows }: Tie, context: EvidenceContext): Condition {
  const { blocks, numbers } = readTogether(shows.map((shown) => readShown(feature, shown)));
  return onPlane(context, {
    group,
    exact: true,
    points: [point],
    blocks,
    residuals: ([place], own) => {
      const coordinates = numbers(own);
      return shows.map(({ axis }, i) => place![axis] - coordinates[i]!);
    },
  });
}

/** Coordinates that are known with a plus-minus; exact ones are no unknowns. */
function listKnown(feature: SceneFeature): Condition[] {
  const { sigma } = feature;
  if (sigma === undefined) return [];
  return directionsOf(feature).flatMap((direction) => {
    const known = knownOf(feature, direction);
    if (known === undefined) return [];
    const read = readCoordinates([[feature, direction]]);
    return [conditionOn(knownGroup(feature.id), false, read, ([value]) => [(value! - known) / sigma])];
  });
}

function conditionsOfScene({ evidence }: Scene, features: ReadonlyMap<string, SceneFeature>): Condition[] {
  return evidence.filter(({ check }) => !check).flatMap((piece) => conditionsOf(piece, features));
}

function conditionsOf(piece: SceneEvidence, features: ReadonlyMap<string, SceneFeature>): Condition[] {
  if (piece.kind === 'distance') {
    const { id, from, to, along, mm, sigma } = piece;
    const read = readDistance(features.get(from)!, features.get(to)!, along);
    return read.blocks.length > 0 ? [conditionOn(id, false, read, ([far]) => [(far! - mm) / sigma])] : [];
  }
  const [first, ...others] = piece.of.map((id) => features.get(id)!);
  return others.flatMap((other) =>
    piece.along
      .map((direction) => readCoordinates([[first!, direction] as const, [other, direction] as const]))
      .filter(({ blocks }) => blocks.length > 0)
      .map((read) => conditionOn(piece.id, true, read, ([a, b]) => [b! - a!])),
  );
}
