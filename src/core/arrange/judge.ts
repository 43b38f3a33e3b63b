import {
  diagnose,
  openCovarianceOf,
  ownedName,
  solve,
  type AtRest,
  type Diagnosis,
  type GroupDiagnosis,
  type OpenCovariance,
} from '../adjust';
import { allowanceOf, assumptionOf, CRITICAL, spend, type Allowance } from '../calibrate';
import { listTies, modelOf, NO_DOUBT, problemOfScene, type Belief, type SceneStart } from './problem';
import { isFeature, partBlock, type Scene, type SceneView } from './scene';

/** A scene adjusted under a belief. */
export interface AdjustedScene {
  readonly belief: Belief;
  /** Where it began. */
  readonly start: SceneStart;
  readonly solution: AtRest;
  readonly covariance: OpenCovariance;
  readonly diagnosis: Diagnosis;
}

interface Told extends AdjustedScene {
  /** Chi-square that is left, and what was given up for it: lower is the better story. */
  readonly cost: number;
}

export interface JudgedScene extends AdjustedScene {
  /** Groups that do not belong with the others; in the fit where nothing tells which of them is wrong. */
  readonly suspects: readonly string[];
  readonly suspectsKept: boolean;
  /** Of what was left out, how it stood while all took part; nothing is known of that where all together came to no end. */
  readonly leftOut: readonly GroupDiagnosis[];
}

/** Stories closer than the first leave it open which is true; closer than the second, both are named. */
const MARGIN = 6;
const TIE = 0.5;
/** Groups that are tried in one round: the worst, and only those whose test (squared) is at least this share of the worst. */
const TRIED = 8;
const NEAR_WORST = 0.1;
const MOST_ROUNDS = 12;
/** Damping of the first step: it begins near its end. */
const NEAR = 1e-8;

/** What is judged, and what that may cost. */
interface Judging {
  readonly scene: Scene;
  readonly allowance: Allowance;
}

/**
 * Adjusts a scene and finds what does not belong, by what each explanation leaves unexplained: a piece, a tie, or what was taken for granted of a picture, one after the other, each adjusted anew; or all that one view shows, which may be said to be seen from another side than it is. Undefined where no
 * adjustment comes to an end or exact equations contradict each other, whichever view is left away. Where the allowance runs out it is as all pieces leave it, or undefined where it does not suffice for that.
 */
export function judgeScene(
  scene: Scene,
  startOf: (scene: Scene) => SceneStart,
  freed: ReadonlySet<string>,
  allowance: Allowance = allowanceOf(Infinity),
): JudgedScene | undefined {
  const judging = { scene, allowance };
  const first = tellAll(judging, freed, startOf(scene));
  const withoutViews = () => listWithoutOne(judging, freed, startOf);
  if (!first) {
    const whole = leavingOut(onlyOne(withoutViews(), Infinity));
    return allowance.isSpent ? undefined : whole;
  }
  let best = first;
  for (let round = 0; round < MOST_ROUNDS && worstOf(best) >= CRITICAL; round++) {
    const next = cheapest(listNext(judging, best));
    if (!next || next.cost >= best.cost) break;
    best = next;
  }
  // Much that does not belong may be one view that does not.
  const whole = best.belief.aside.size > 1 ? onlyOne(withoutViews(), best.cost) : undefined;
  const named = leavingOut(whole, first) ?? namedOf(judging, best, first);
  return allowance.isSpent ? { ...first, suspects: [], suspectsKept: false, leftOut: [] } : named;
}

/** Everything together, with what the views' own evidence shows to be unusual of their pictures, or, where that comes to no end, without. */
const tellAll = (judging: Judging, freed: ReadonlySet<string>, start: SceneStart): Told | undefined =>
  tell(judging, { ...NO_DOUBT, freed }, start) ?? (freed.size > 0 ? tell(judging, NO_DOUBT, start) : undefined);

/** Whether everything agrees: then nothing is left for a judgement to find. One adjustment. */
export function isAgreed(scene: Scene, start: SceneStart, freed: ReadonlySet<string>): boolean {
  const told = tellAll({ scene, allowance: allowanceOf(Infinity) }, freed, start);
  return told !== undefined && isWhole(told);
}

/** All but one view, for each that shows anything and without which the rest agrees. */
function listWithoutOne(
  judging: Judging,
  freed: ReadonlySet<string>,
  startOf: (scene: Scene) => SceneStart,
): readonly Told[] {
  const { scene } = judging;
  return scene.views.flatMap((view) => {
    const aside = new Set(listTies(view, scene.features).map(({ group }) => group));
    const features = scene.features.map(({ seen, ...rest }) => ({
      ...rest,
      seen: seen.filter((its) => its.view !== view.id),
    }));
    const found = aside.size > 0 && tell(judging, { aside, freed }, startOf({ ...scene, features }));
    return found && isWhole(found) ? [found] : [];
  });
}

/** The one such story, where there is but one and it is as good as another that costs so much: of two views that disagree with each other nothing tells which is wrong. */
const onlyOne = ([told, ...others]: readonly Told[], cost: number): Told | undefined =>
  told && others.length === 0 && told.cost < cost + TIE ? told : undefined;

/** What a view shows is named, and stays out. */
const leavingOut = (told: Told | undefined, first?: Told): JudgedScene | undefined =>
  told && {
    ...told,
    suspects: [...told.belief.aside],
    suspectsKept: false,
    leftOut: first?.diagnosis.groups.filter(({ group }) => told.belief.aside.has(group)) ?? [],
  };

const sizeOf = ({ normalized }: Diagnosis['groups'][number]) => Math.abs(normalized ?? 0);
const worstOf = ({ diagnosis }: Told) => Math.max(0, ...diagnosis.groups.map(sizeOf));
const isWhole = (told: Told) => worstOf(told) < CRITICAL && told.diagnosis.isConsistent !== false;
const cheapest = (stories: readonly Told[]): Told | undefined => [...stories].sort((a, b) => a.cost - b.cost)[0];

/** Every story that gives up one thing more, of the groups whose tests come near the worst. */
function listNext(judging: Judging, told: Told): Told[] {
  const { scene } = judging;
  const groups = [...told.diagnosis.groups].sort((a, b) => sizeOf(b) - sizeOf(a));
  return groups
    .filter((group) => sizeOf(group) ** 2 > NEAR_WORST * sizeOf(groups[0]!) ** 2)
    .slice(0, TRIED)
    .flatMap(({ group }) => tell(judging, without(scene, told.belief, group), startFrom(scene, told)) ?? []);
}

/** A belief that gives up a group: a piece or a tie goes, what was assumed of a picture may be unusual. */
function without(scene: Scene, { aside, freed }: Belief, group: string): Belief {
  const part = assumedIn(scene, group);
  return part ? { aside, freed: new Set([...freed, part]) } : { aside: new Set([...aside, group]), freed };
}

/** The part of a view whose assumption a group is, named with its view. */
function assumedIn({ views }: Scene, group: string): string | undefined {
  return views
    .flatMap((view) => modelOf(view).parts.map(({ id }) => ({ view, id })))
    .filter(({ view, id }) => ownedName(view.id, assumptionOf(id)) === group)
    .map(({ view, id }) => partBlock(view, id))[0];
}

/** Where nothing tells which of several is wrong, all stay in, and what they disagree by widens the plus-minus. */
function namedOf(judging: Judging, best: Told, first: Told): JudgedScene {
  const { aside, freed } = best.belief;
  if (aside.size === 0) return { ...best, suspects: [], suspectsKept: false, leftOut: [] };
  const rivals = [...aside].flatMap((id) => listRivals(judging, best, id));
  if (rivals.length === 0)
    return {
      ...best,
      suspects: [...aside],
      suspectsKept: false,
      leftOut: first.diagnosis.groups.filter(({ group }) => aside.has(group)),
    };
  const tied = rivals.filter(({ behind }) => behind < TIE).map(({ id }) => id);
  const together = tell(judging, { aside: new Set(), freed }, startFrom(judging.scene, best)) ?? first;
  return { ...together, suspects: [...new Set([...aside, ...tied])], suspectsKept: true, leftOut: [] };
}

/** Groups that could be the wrong one in the place of `id`, and how far behind that story is. */
function listRivals(judging: Judging, best: Told, id: string): { readonly id: string; readonly behind: number }[] {
  const others: Belief = { ...best.belief, aside: new Set([...best.belief.aside].filter((other) => other !== id)) };
  const from = tell(judging, others, startFrom(judging.scene, best)) ?? best;
  return listNext(judging, { ...from, belief: others }).flatMap(({ belief, cost }) => {
    const instead = [...belief.aside].find((other) => !others.aside.has(other));
    return instead !== undefined && instead !== id && cost < best.cost + MARGIN
      ? [{ id: instead, behind: cost - best.cost }]
      : [];
  });
}

/** How many pieces and ties an adjustment has to do with. */
const sizeOfScene = ({ views, features, evidence }: Scene): number =>
  [...views.map((view) => view.evidence), ...features.map(({ seen }) => seen), evidence].reduce(
    (sum, { length }) => sum + length,
    0,
  );

/** Undefined where it does not come to an end, or may not be tried. */
function tell({ scene, allowance }: Judging, belief: Belief, start: SceneStart): Told | undefined {
  if (!spend(allowance, sizeOfScene(scene))) return undefined;
  const problem = problemOfScene(scene, belief, start);
  const solution = solve(problem, { firstDamping: NEAR });
  if (!solution.nearlySettled || !solution.relationsHold) return undefined;
  const covariance = openCovarianceOf(problem, solution);
  const diagnosis = diagnose(solution, covariance.matrix, covariance.redundancy);
  const cost = solution.chiSquare - CRITICAL ** 2 * diagnosis.redundancy + costOfFreed(scene, belief);
  return { belief, start, solution, covariance, diagnosis, cost };
}

/** What is not taken for granted costs as much as a piece with as many freedoms, and how rare it is. */
function costOfFreed({ views }: Scene, { freed }: Belief): number {
  return views
    .filter(({ shares }) => shares === undefined)
    .flatMap((view) => modelOf(view).parts.filter(({ id }) => freed.has(partBlock(view, id))))
    .reduce((sum, { start, unusual }) => sum + CRITICAL ** 2 * start.length + (unusual?.cost ?? 0), 0);
}

/** The numbers that an adjustment ended at, to begin the next one with. */
export function startFrom(
  { views }: Scene,
  { start, solution: { values } }: Pick<AdjustedScene, 'start' | 'solution'>,
): SceneStart {
  const ended = views
    .filter((view) => takesPart(view, values))
    .map((view) => [view.id, modelOf(view).parts.flatMap(({ id }) => [...values.get(partBlock(view, id))!])] as const);
  return {
    maps: new Map([...start.maps, ...ended]),
    coordinates: new Map([...values].filter(([id]) => isFeature(id)).map(([id, [value]]) => [id, value!])),
  };
}

/** Whether a view stood among the others. */
export const takesPart = (view: SceneView, values: ReadonlyMap<string, unknown>) =>
  modelOf(view).parts.every(({ id }) => values.has(partBlock(view, id)));
