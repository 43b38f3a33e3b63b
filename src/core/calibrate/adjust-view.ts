import {
  chiSquareQuantile99,
  covarianceOf,
  diagnose,
  solve,
  type Covariance,
  type Diagnosis,
  type Problem,
  type Search,
  type Solution,
} from '../adjust';
import { done, refused, type Result } from '../basics';
import type { Observation, Points } from './evidence';
import { firstNumberOf, type MapModel, type MapPart } from './models';
import { listSlantedStarts, listStarts } from './start';
import { problemOf, type Pointed } from './view-problem';

/** One adjustment of a view: a model, the pieces that take part, and what follows. */
export interface AdjustedView {
  readonly model: MapModel;
  readonly evidence: readonly Observation[];
  readonly points: Points;
  readonly solution: Solution;
  readonly covariance: Extract<Covariance, { kind: 'ok' }>;
  readonly diagnosis: Diagnosis;
  /** The numbers of the map, all parts one after the other. */
  readonly values: readonly number[];
}

/** How many slanted starts are followed to their end when square-on does not explain the evidence; where any slant may be, those that rectangles and circles tell of; and where nothing tells. */
const FOLLOWED = 2;
const TOLD_FOLLOWED = 3;
const UNTOLD_FOLLOWED = 6;
/** A circle shows no focal length: along each of the two ways in which it can lie a wide lens and a long one may both explain it. */
const ROUND_FOLLOWED = 6;
const MOST_FOLLOWED = { rectangle: TOLD_FOLLOWED, circle: ROUND_FOLLOWED, nothing: UNTOLD_FOLLOWED };
/** Tilts that differ by less than this, radians, are one way of holding the camera. */
const LEANS_APART = 0.25;
/** A start that has so many times the chi-square of the best one leads nowhere. */
const HOPELESS = 1e5;
/** What has come as near as so many times what chance leaves is followed on, for so many steps. */
const WORTH_FOLLOWING = 3;
const FOLLOWED_ON = 300;
/** Damping where all that may be is assumed, so that nothing runs away. */
const NEAR = 1e-6;
/** Ends whose numbers of the map differ by less than this are one. */
const SAME_END = 1e-3;

/**
 * Adjusts a view with a model whose `freed` parts are left to the evidence, from given numbers or from where the evidence points
 * to: square-on first and, where the tilt is open and square-on does not explain the evidence, from several slants. Refused with `<part>-undetermined` and what else is
 * open when the evidence does not tell. Whether it settled, and whether exact relations hold, is said by the solution. What explains the evidence already when `patience` ends is followed on.
 */
export function adjustView(
  model: MapModel,
  evidence: readonly Observation[],
  pointed: Pointed,
  freed: ReadonlySet<MapPart>,
  from?: readonly number[],
  patience?: Patience,
): Result<AdjustedView> {
  const attempt = attemptWith(model, evidence, pointed, freed, patience);
  const sought = () =>
    maySlant(model, freed)
      ? listEnds(model, evidence, pointed, attempt)[0]
      : findBest(model, evidence, pointed, freed, attempt);
  const followed = (start: readonly number[]) =>
    patience?.isAll ? attempt(start) : toItsEnd(attempt(start), model, attempt);
  const best = from ? followed(from) : sought();
  return best ? adjustedFrom(best, model, evidence, pointed) : refused('fit-not-found');
}

/** Every way in which a camera that may have been held anyhow can have stood: of a small or distant thing there are two, mirrored, that look much alike. Those that settled, best first; one that creeps is followed only within `room` (chi-square). `from`: where else it may begin. */
export function adjustEveryWay(
  model: MapModel,
  evidence: readonly Observation[],
  pointed: Pointed,
  freed: ReadonlySet<MapPart>,
  patience: Patience,
  { room, from }: { readonly room?: number; readonly from?: readonly number[] | undefined },
): AdjustedView[] {
  const ends = listEnds(
    model,
    evidence,
    pointed,
    attemptWith(model, evidence, pointed, freed, patience),
    room,
    from,
  ).filter(({ solution }) => solution.settled && solution.relationsHold);
  const adjusted = ends.flatMap((end) => {
    const view = adjustedFrom(end, model, evidence, pointed);
    return view.ok ? [view.value] : [];
  });
  return adjusted.filter((view, i) => !adjusted.slice(0, i).some((other) => endsAlike(view, other)));
}

/** Whether two adjustments have come to the same numbers of the map. */
export const endsAlike = ({ values }: AdjustedView, other: AdjustedView): boolean =>
  values.every((value, i) => Math.abs(value - other.values[i]!) < SAME_END);

/** Whether the tilt is an assumption that has been given up. */
const maySlant = (model: MapModel, freed: ReadonlySet<MapPart>) =>
  freed.has('tilt') && model.parts.some(({ id, unusual }) => id === 'tilt' && unusual);

function adjustedFrom(
  { problem, solution }: Attempt,
  model: MapModel,
  evidence: readonly Observation[],
  { points }: Pointed,
): Result<AdjustedView> {
  if (!Number.isFinite(solution.chiSquare)) return refused('fit-not-found');
  const parts = model.parts.map(({ id }) => id as string);
  const shapes = problem.blocks.map(({ id }) => id).filter((id) => !parts.includes(id));
  const covariance = covarianceOf(problem, solution, [...parts.reverse(), ...shapes]);
  if (covariance.kind === 'rank-deficient') return refusedAsUndetermined(covariance.undetermined);
  const values = model.parts.flatMap(({ id }) => [...solution.values.get(id)!]);
  return done({
    model,
    evidence,
    points,
    solution,
    covariance,
    values,
    diagnosis: diagnose(solution, covariance.matrix, covariance.redundancy),
  });
}

interface Attempt {
  readonly problem: Problem;
  readonly solution: Solution;
}

/** How long adjustments are followed. */
export interface Patience extends Pick<Search, 'steps' | 'giveUpAfter'> {
  /** Whether that is all, also for what explains the evidence already. */
  readonly isAll?: boolean;
}

/** What is true settles within a few steps from where it begins, and what creeps is not. */
export const HASTY: Patience = { steps: 25, giveUpAfter: 10 };

type Try = (numbers: readonly number[], patience?: Patience) => Attempt;

function attemptWith(
  model: MapModel,
  evidence: readonly Observation[],
  pointed: Pointed,
  freed: ReadonlySet<MapPart>,
  usual?: Patience,
): Try {
  // Scale, slant and focal length hang closely together: along their valley the usual damping would take thirty steps.
  const firstDamping = model.parts.some(({ unusual }) => unusual) ? NEAR : undefined;
  return (numbers, patience = usual) => {
    const problem = problemOf(model, evidence, pointed, freed, numbers);
    return { problem, solution: solve(problem, { ...patience, firstDamping }) };
  };
}

function findBest(
  model: MapModel,
  evidence: readonly Observation[],
  pointed: Pointed,
  freed: ReadonlySet<MapPart>,
  attempt: Try,
): Attempt | undefined {
  const starts = listStarts(model, evidence, pointed.points);
  const first = starts.next().value as readonly number[] | undefined;
  const square = first && toItsEnd(attempt(first), model, attempt);
  const isHeld = model.parts.some(({ id, sigma }) => id === 'tilt' && sigma && !freed.has('tilt'));
  if (square && (explains(square) || isHeld)) return square;
  // Each slant gets a few steps, and the most promising are followed to the end.
  const tried = ranked([...starts], attempt, { steps: 3 });
  const followed: Attempt[] = square ? [square] : [];
  for (const { numbers } of tried.slice(0, FOLLOWED)) {
    followed.push(attempt(numbers));
    if (explains(followed.at(-1)!)) return followed.at(-1);
  }
  return followed.sort((a, b) => rankOf(a) - rankOf(b))[0];
}

const explains = ({ solution }: Attempt) =>
  solution.settled && solution.relationsHold && solution.chiSquare <= quantileOf(solution);

interface Start {
  readonly numbers: readonly number[];
  readonly cost: number;
}

function ranked(starts: readonly (readonly number[])[], attempt: Try, patience: Patience): Start[] {
  return starts
    .map((numbers) => ({ numbers, cost: attempt(numbers, patience).solution.chiSquare }))
    .filter(({ cost }) => Number.isFinite(cost))
    .sort((a, b) => a.cost - b.cost);
}

/** Where the starts that promise most lead to, best first. */
function listEnds(
  model: MapModel,
  evidence: readonly Observation[],
  { points }: Pointed,
  attempt: Try,
  room?: number,
  from?: readonly number[],
): Attempt[] {
  const { starts, by } = listSlantedStarts(model, evidence, points);
  const most = MOST_FOLLOWED[by];
  const tried = ranked(from ? [from, ...starts] : starts, attempt, { steps: 0 });
  const promising = tried.filter(({ cost }) => cost < HOPELESS * (tried[0]!.cost + 1));
  // Ways that lean apart go before more of the same way.
  const first = firstNumberOf(model, 'tilt');
  const leansApart = ({ numbers: a }: Start, { numbers: b }: Start) =>
    Math.hypot(a[first]! - b[first]!, a[first + 1]! - b[first + 1]!) > LEANS_APART;
  const apart = promising.reduce<readonly Start[]>(
    (kept, start) => (kept.every((other) => leansApart(start, other)) ? [...kept, start] : kept),
    [],
  );
  const followed = [...new Set([...apart.slice(0, most), ...promising])].slice(0, most);
  return followed
    .map(({ numbers }) => toItsEnd(attempt(numbers), model, attempt, room))
    .sort((a, b) => rankOf(a) - rankOf(b));
}

/** An adjustment that explains the evidence already when its steps run out is followed on: a circle, and a slant through a wide lens, take more of them. */
function toItsEnd(reached: Attempt, model: MapModel, attempt: Try, room = Infinity): Attempt {
  const { solution } = reached;
  if (solution.settled || !(solution.chiSquare < Math.min(room, WORTH_FOLLOWING * quantileOf(solution))))
    return reached;
  return attempt(
    model.parts.flatMap(({ id }) => [...solution.values.get(id)!]),
    { steps: FOLLOWED_ON },
  );
}

const quantileOf = ({ linearization, layout }: Solution) =>
  chiSquareQuantile99(Math.max(1, linearization.rows.length - layout.unknowns));

const rankOf = ({ solution }: Attempt) =>
  (solution.settled && solution.relationsHold ? 0 : 1e12) +
  (Number.isFinite(solution.chiSquare) ? solution.chiSquare : 1e15);

/** Which open part is named first: the one that a practitioner can do most about. */
export const PART_ORDER: readonly MapPart[] = [
  'scale',
  'tilt',
  'stretch',
  'skew',
  'focal',
  'lens',
  'lens-centre',
  'turn',
  'shift',
];

function refusedAsUndetermined(undetermined: readonly string[]) {
  const parts = PART_ORDER.filter((part) => undetermined.includes(part));
  const names = parts.length > 0 ? parts : undetermined.map((id) => id.split(':')[0]!);
  return refused(parts.length > 0 ? `${parts[0]}-undetermined` : 'evidence-undetermined', {
    undetermined: names.join(','),
  });
}
