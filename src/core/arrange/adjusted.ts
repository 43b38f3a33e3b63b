import type { Matrix } from 'ml-matrix';
import { ownedName, type Diagnosis } from '../adjust';
import {
  atHeight,
  baselineOf,
  centreOf,
  inSheetFrame,
  LIFT_BLOCK,
  listFoundParts,
  listWarnings,
  pointBlock,
  pointFrame,
  pointsOf,
  type Adjustment,
  type MapPart,
  type Observation,
} from '../calibrate';
import { LEVEL_BY_DATUM } from './by-datum';
import { takesPart, type JudgedScene } from './judge';
import type { Open } from './measure';
import { listTies, modelOf } from './problem';
import { partBlock, type Scene, type SceneView } from './scene';

/** Share of an open direction beyond which a number goes with it. */
const GOES = 1e-6;

/**
 * What several views together come to, for each view by itself. All hold the same numbers (those of all maps, one view after the other, then how high what is traced stands) and the same covariance, of which each reads its own:
 * so views that were fitted together are wrong together, and figures across them count what they share once. What stays open of a view's map is said instead. Undefined for a view that took no part.
 */
export function adjustmentsIn(scene: Scene, judged: JudgedScene): (id: string) => Adjustment | Open | undefined {
  const { layout, values } = judged.solution;
  const taking = scene.views.filter((view) => takesPart(view, values));
  const maps = [...new Set(taking.flatMap((view) => modelOf(view).parts.map(({ id }) => partBlock(view, id))))];
  const lifts = [...new Set(taking.map((view) => partBlock(view, LIFT_BLOCK)))];
  const columns = maps.flatMap((block) => values.get(block)!.map((_, i) => layout.unknown.get(block)! + i));
  const joint = { scene, judged, maps, lifts, columns, covariance: covarianceWith(judged, columns, lifts) };
  return (id) => {
    const view = taking.find((other) => other.id === id);
    if (!view) return undefined;
    const open = listOpen(view, judged);
    return open.length > 0 ? { open } : adjustmentOf(view, joint);
  };
}

/** Joint covariance of numbers of maps and, after them, of what was observed; wider where the pieces disagree. */
function covarianceWith(
  { covariance, diagnosis, solution }: JudgedScene,
  columns: readonly number[],
  observed: readonly string[],
): Matrix {
  const whole = covariance.withObserved(observed);
  const rest = Array.from({ length: whole.rows - solution.layout.unknowns }, (_, i) => solution.layout.unknowns + i);
  const kept = [...columns, ...rest];
  return whole.selection(kept, kept).mul(diagnosis.isConsistent === false ? diagnosis.varianceFactor! : 1);
}

/** Blocks of a view's map of which something stays open. */
function listOpen(view: SceneView, { covariance: { open }, solution: { layout, values } }: JudgedScene): string[] {
  const goes = (row: number) =>
    Array.from({ length: open.columns }, (_, k) => k).some((k) => Math.abs(open.get(row, k)) > GOES);
  return modelOf(view)
    .parts.map(({ id }) => partBlock(view, id))
    .filter((block) => values.get(block)!.some((_, i) => goes(layout.unknown.get(block)! + i)));
}

interface Joint {
  readonly scene: Scene;
  readonly judged: JudgedScene;
  readonly maps: readonly string[];
  readonly lifts: readonly string[];
  readonly columns: readonly number[];
  readonly covariance: Matrix;
}

function adjustmentOf(view: SceneView, joint: Joint): Adjustment {
  const { scene, judged, maps, lifts, covariance } = joint;
  const { solution, diagnosis, belief } = judged;
  const model = modelOf(view);
  const layout = layoutOf(view, maps, lifts, solution.values);
  const at = layout.parts.flat();
  const numbersOf = (values: readonly number[]) => at.map((i) => values[i]!);
  const values = [...maps, ...lifts].flatMap((block) => [...solution.values.get(block)!]);
  const used = usedIn(view, scene, belief);
  return {
    ...judgedOf(view, judged),
    ...aroundOf(view, scene, used, belief),
    scaled: true,
    picture: view.picture,
    points: view.points,
    taken: new Map(used.map((piece) => [piece.id, piece])),
    values,
    covariance,
    mixed: alone(covariance),
    layout,
    mapAt: (other, pose = atHeight(other[layout.lift]!)) => model.mapAt(numbersOf(other), pose),
    // Its zero is its own; what is level is told where its own evidence tells it.
    tells: { turn: used.some(({ kind }) => kind === 'level'), shift: false },
    adjustedPoints: new Set(used.flatMap(pointsOf)),
    withPoints: (names) => withPoints(view, names, joint),
    model,
    parts: listFoundParts(
      { model, values: numbersOf(values) },
      covariance.selection(at, at),
      freedOf(view, model.parts, belief.freed),
    ),
    warnings: listWarnings(
      view,
      { model, evidence: used },
      model.mapAt(numbersOf(values), atHeight(values[layout.lift]!)),
      diagnosis.isConsistent === false ? 'evidence-disagrees' : undefined,
    ),
    verdict: undefined,
  };
}

/** Views that were fitted together were taken in one way each. */
const alone = (within: Matrix): Adjustment['mixed'] => ({ within, ways: [] });

/** Where places of a view came to lie, and how they hang together with all numbers. */
function withPoints(
  view: SceneView,
  names: readonly string[],
  { judged, lifts, columns, covariance }: Joint,
): ReturnType<Adjustment['withPoints']> {
  const { values } = judged.solution;
  const frames = names.map((name) => pointFrame(view.points[name]!));
  const blocks = names.map((name) => blockOfPoint(view, name, values));
  return {
    places: frames.map((frame, i) => frame.toSheet(values.get(blocks[i]!)!)),
    mixed: alone(
      names.length === 0
        ? covariance
        : inSheetFrame(covarianceWith(judged, columns, [...lifts, ...blocks]), columns.length + lifts.length, frames),
    ),
  };
}

/** How a view's own pieces were judged among all. */
const judgedOf = (
  view: SceneView,
  { diagnosis, suspects, suspectsKept }: JudgedScene,
): Pick<Adjustment, 'diagnosis' | 'suspects' | 'suspectsKept'> => ({
  diagnosis: diagnosisOf(view, diagnosis),
  suspects: ownOf(view, suspects).filter((id) => id !== LEVEL_BY_DATUM),
  suspectsKept,
});

/** Middle and extent of what is known of a view: of its pieces, and of what it shows. */
function aroundOf(
  view: SceneView,
  { features }: Scene,
  used: readonly Observation[],
  { aside }: JudgedScene['belief'],
): Pick<Adjustment, 'centre' | 'baseline'> {
  const shown = listTies(view, features).filter(({ group }) => !aside.has(group));
  const names = [...new Set([...used.flatMap(pointsOf), ...shown.map(({ point }) => point)])];
  const places = names.map((name) => view.points[name]!.at);
  return { centre: centreOf(places), baseline: baselineOf(places) };
}

/** Where among all numbers a view's own are. */
function layoutOf(
  view: SceneView,
  maps: readonly string[],
  lifts: readonly string[],
  values: ReadonlyMap<string, readonly number[]>,
): Adjustment['layout'] {
  let count = 0;
  const places = new Map(maps.map((block) => [block, values.get(block)!.map(() => count++)] as const));
  return {
    parts: modelOf(view).parts.map(({ id }) => places.get(partBlock(view, id))!),
    lift: count + lifts.indexOf(partBlock(view, LIFT_BLOCK)),
  };
}

/** Pieces that took part, of a view and of the one whose map it shares. */
const usedIn = (view: SceneView, { views }: Scene, { aside }: JudgedScene['belief']): readonly Observation[] =>
  [view, ...views.filter(({ id }) => id === view.shares)].flatMap(({ id, evidence }) =>
    evidence.filter((piece) => piece.id !== LEVEL_BY_DATUM && !piece.check && !aside.has(ownedName(id, piece.id))),
  );

const freedOf = (
  view: SceneView,
  parts: readonly { readonly id: MapPart }[],
  freed: ReadonlySet<string>,
): ReadonlySet<MapPart> => new Set(parts.map(({ id }) => id).filter((id) => freed.has(partBlock(view, id))));

/** Names of what is a view's own, or that of the view whose map it shares, as the view calls it itself. */
const ownOf = ({ id, shares = id }: SceneView, names: readonly string[]) =>
  names.flatMap((name) =>
    [...new Set([id, shares])]
      .map((owner) => ownedName(owner, ''))
      .filter((prefix) => name.startsWith(prefix))
      .map((prefix) => name.slice(prefix.length)),
  );

const diagnosisOf = (view: SceneView, diagnosis: Diagnosis): Diagnosis => ({
  ...diagnosis,
  groups: diagnosis.groups.flatMap((group) => ownOf(view, [group.group]).map((name) => ({ ...group, group: name }))),
});

/** The block of a place of a view, which may be that of the view whose map it shares. */
function blockOfPoint({ id, shares = id }: SceneView, name: string, values: ReadonlyMap<string, unknown>): string {
  const own = ownedName(id, pointBlock(name));
  return values.has(own) ? own : ownedName(shares, pointBlock(name));
}
