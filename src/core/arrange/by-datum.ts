import type { Observation } from '../calibrate';
import type { Vec } from '../geometry';
import { DIRECTIONS, type Direction } from '../space';
import { isUpright, tellsAlong } from './facing';
import { directionsBetween, directionsOf, knownOf, type SceneFeature, type Scene, type SceneView } from './scene';

/** What is assumed of a view by its datum, as a piece of its evidence. */
export const LEVEL_BY_DATUM = 'datum:level';
const ZERO = 'datum:zero';
const [FROM, TO] = ['datum:from', 'datum:to'];
/** A view was laid level by eye or by an edge. Radians, one sigma; assumed. */
export const LEVEL_SIGMA = 0.035;
/** Zero is where it is said to be: far better than any hand points, and not so well that how the view is turned about it drowns beside. px. */
const EXACTLY = 0.05;

/** A view that lies about as its datum says: told by any two places of a line that several views show far better. */
export function lyingByDatum(view: SceneView): SceneView {
  if (!view.datum) return view;
  const isLevelTold = view.evidence.some(({ kind, check }) => kind === 'level' && !check);
  const { origin, direction } = view.datum;
  const far = Math.hypot(view.picture.width, view.picture.height) / 4;
  const at = (along: number): Vec => [origin[0] + along * Math.cos(direction), origin[1] + along * Math.sin(direction)];
  const sigma = (2 * far * LEVEL_SIGMA) / Math.SQRT2;
  const level: Observation = { kind: 'level', id: LEVEL_BY_DATUM, line: [FROM!, TO!], degrees: 0, isDirected: true };
  return {
    ...view,
    points: {
      ...view.points,
      [ZERO]: { at: origin, sigma: EXACTLY },
      [FROM!]: { at: at(-far), sigma },
      [TO!]: { at: at(far), sigma },
    },
    evidence: isLevelTold ? view.evidence : [...view.evidence, level],
  };
}

/** Which views lie along a direction by their own zero alone, because nothing says how they lie to the others. */
export type ByZero = ReadonlyMap<string, readonly Direction[]>;

/**
 * A scene in which everything stands somewhere: where nothing says where zero is along a direction, it is that of the first view that shows it, and so again for whatever hangs together with that in no way. What else goes by its zero is
 * said.
 */
export function standingByZero(scene: Scene): { readonly scene: Scene; readonly byZero: ByZero } {
  const groups = DIRECTIONS.flatMap((direction) =>
    looseAlong(direction, scene).map((views) => ({ direction, first: views[0]!.id, views: views.map(({ id }) => id) })),
  );
  const assumed = groups.filter(({ direction, views }) => !views.includes(firstAlong(direction, scene, groups)));
  return {
    scene: { ...scene, features: [...scene.features, ...groups.map(zeroOf)] },
    byZero: new Map(
      scene.views.map(({ id }) => [
        id,
        assumed.flatMap(({ direction, views }) => (views.includes(id) ? [direction] : [])),
      ]),
    ),
  };
}

interface Loose {
  readonly direction: Direction;
  readonly first: string;
  readonly views: readonly string[];
}

const zeroOf = ({ direction, first }: Loose): SceneFeature => ({
  id: `${ZERO}:${first}:${direction}`,
  only: direction,
  mm: DIRECTIONS.map((other) => (other === direction ? 0 : null)),
  seen: [{ view: first, points: [ZERO] }],
});

/** The view that all others along a direction are measured from: one of which somebody said where it is, else the first. */
function firstAlong(direction: Direction, { views }: Scene, groups: readonly Loose[]): string {
  const loose = new Set(groups.filter((group) => group.direction === direction).flatMap((group) => group.views));
  const showing = views.filter((view) => tellsAlong(view.side, direction));
  return (showing.find(({ id }) => !loose.has(id)) ?? showing[0]!).id;
}

/** Views that hang together along a direction, group by group, where nobody said where any of it is. */
function looseAlong(direction: Direction, scene: Scene): readonly (readonly SceneView[])[] {
  const views = scene.views.filter((view) => tellsAlong(view.side, direction));
  const features = scene.features.filter((feature) => directionsOf(feature).includes(direction));
  const groupOf = hangingTogether(direction, scene, views, features);
  const told = new Set(
    features.filter((feature) => knownOf(feature, direction) !== undefined).map(({ id }) => groupOf(`feature ${id}`)),
  );
  const groups = new Map<string, SceneView[]>();
  for (const view of views) {
    const group = groupOf(`view ${view.id}`);
    if (!told.has(group)) groups.set(group, [...(groups.get(group) ?? []), view]);
  }
  return [...groups.values()];
}

function hangingTogether(
  direction: Direction,
  { evidence, views: all }: Scene,
  views: readonly SceneView[],
  features: readonly SceneFeature[],
): (name: string) => string {
  const onEdges = direction === 'up' ? [] : all.map((view) => placesOnEdge(view, features));
  const above = new Map<string, string>();
  const groupOf = (name: string): string => {
    const next = above.get(name);
    return next === undefined ? name : groupOf(next);
  };
  const tie = (a: string, b: string) => {
    const [one, other] = [groupOf(a), groupOf(b)];
    if (one !== other) above.set(other, one);
  };
  const byId = new Map(features.map((feature) => [feature.id, feature]));
  for (const { id, seen } of features)
    for (const { view } of seen) if (views.some((other) => other.id === view)) tie(`feature ${id}`, `view ${view}`);
  for (const places of onEdges) for (const place of places) tie(`feature ${places[0]!}`, `feature ${place}`);
  for (const piece of evidence) {
    if (piece.check) continue;
    const [from, ...others] = (piece.kind === 'same' ? piece.of : [piece.from, piece.to]).map((id) => byId.get(id));
    const isAlong = (other: SceneFeature) =>
      piece.kind === 'same'
        ? piece.along.includes(direction)
        : String(directionsBetween(from!, other, piece.along)) === direction;
    for (const other of others) if (from && other && isAlong(other)) tie(`feature ${from.id}`, `feature ${other.id}`);
  }
  return groupOf;
}

/** What a view on an edge shows lies, across and deep, as its edge does. */
function placesOnEdge({ id, side }: SceneView, features: readonly SceneFeature[]): readonly string[] {
  if (!isUpright(side)) return [];
  const shown = features.filter(({ only, seen }) => only === undefined && seen.some(({ view }) => view === id));
  return [side.from, side.to, ...shown.map((feature) => feature.id)];
}
