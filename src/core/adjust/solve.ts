import { Matrix } from 'ml-matrix';
import { linearize, type Linearization } from './linearize';
import { curvatureOf } from './curvature';
import { beginDamping, eased, dampedMore } from './damping';
import { partitionOf } from './elimination';
import { findStep, forcesOn, missOf, reduce, type NormalEquations, type DampedStep } from './normal';
import { rowTimes } from './sparse';
import { layOut, startValues, type Layout, type Problem, type Values } from './problem';
import { fromRatios, inRatios, listInUnits, type InUnits } from './units';

export interface Solution {
  readonly layout: Layout;
  /** The unknowns and the adjusted places of what was observed. */
  readonly values: Values;
  readonly linearization: Linearization;
  readonly equations: NormalEquations;
  /** Sum of squared whitened corrections at the solution. */
  readonly chiSquare: number;
  /** How many were tried. */
  readonly steps: number;
  /** Whether the steps became small. */
  readonly settled: boolean;
  /** Whether they became at least too small to show before they ran out. */
  readonly nearlySettled: boolean;
  /** Whether every exact relation holds at the values. */
  readonly relationsHold: boolean;
}

/** What stays the same all along a search. */
interface Setting {
  readonly problem: Problem;
  readonly layout: Layout;
  readonly inUnits: readonly InUnits[];
  readonly repeats: number | undefined;
}

interface State {
  readonly values: Values;
  readonly at: Linearization;
  readonly equations: NormalEquations;
  /** The same by the ratios that are sought. */
  readonly ratios: NormalEquations;
  /** Whether slopes and misses have a size: slopes that have none any more (a focal length beyond all bounds) are no way on. */
  readonly isUsable: boolean;
}

/** Squares of steps in units of their own sigma: done at the first, or at the second where large residuals keep the steps from dying out and nothing is gained. */
const SMALL_STEP = 1e-10;
const INVISIBLE_STEP = 1e-5;
const LEVEL = 1e-9;
/** A tenth of a sigma: where the steps run out on the way along a narrow valley, as they do with evidence that contradicts itself, nothing that shows is left to gain. */
const LAST_STEP = 1e-2;
/** What rounding may add to a merit, as a share of chi-square. */
const SLACK = 1e-12;
/** Damping of the first step, as a share of the diagonal. */
const FIRST_DAMPING = 1e-4;
/** Steps that are given before it is given up. */
const FULL_RUN = 70;
/** A search that is given up has a chi-square of more than this for each freedom, of which a few are counted where there are none. */
const HOPELESS = 100;
const FEW_FREEDOMS = 5;
/** An exact relation that is missed by more than this share of its sigma from clicks does not hold. */
const EXACT_MISS = 0.02;

/** How long a search may be, and how it begins. */
export interface Search {
  /** The most steps that are tried. */
  readonly steps?: number | undefined;
  /** After so many it is given up where it is far from explaining anything and from any rest. */
  readonly giveUpAfter?: number | undefined;
  /** Damping of the first step, as a share of the diagonal: a small one saves steps where the search begins near its end, or at one of a narrow valley. */
  readonly firstDamping?: number | undefined;
  /** Exact equations that repeat each other where they hold, but not yet where the search begins, need a larger one (see `reduce`). */
  readonly repeats?: number | undefined;
}

/**
 * Levenberg-Marquardt on the reduced normal equations, damped on their own diagonal (Marquardt 1963; Madsen, Nielsen &
 * Tingleff, Methods for Non-Linear Least Squares Problems, 2004, section 3.2), relinearised at the adjusted observations
 * (Pope, Some pitfalls to be avoided in the iterative adjustment of nonlinear problems, 1972). Progress is judged by the
 * weighted misclosures. The values are the best that were found; `settled` and `relationsHold` say how far to trust them.
 */
export function solve(
  problem: Problem,
  { steps: maximumSteps = FULL_RUN, giveUpAfter = Infinity, firstDamping = FIRST_DAMPING, repeats }: Search = {},
): Solution {
  const layout = layOut(problem.blocks);
  const parts = partitionOf(problem, layout);
  const setting: Setting = { problem, layout, inUnits: listInUnits(problem.blocks, layout), repeats };
  let state = stateAt(setting, startValues(problem));
  let damping = beginDamping(firstDamping);
  let [settled, last, steps] = [false, Infinity, 0];
  let curvature: Matrix | undefined;
  while (steps < maximumSteps && !settled && state.isUsable) {
    steps++;
    const tried = tryStep(setting, state, findStep(state.ratios, parts, damping.share, curvature));
    if (tried?.isBetter) {
      const { next, step, isLevel, gained } = tried;
      settled = damping.share < 1e-3 && (step < SMALL_STEP || (isLevel && step < INVISIBLE_STEP));
      curvature = settled ? undefined : curvatureOf(problem, layout, next.at, next.values, tried.forces());
      [state, last] = [next, step];
      damping = eased(damping, isLevel ? 1 : gained);
      if (steps >= giveUpAfter && last > 1 && isHopeless(state, layout)) break;
    } else if (tried && curvature) {
      // How things bend here may say nothing of where they have to go.
      curvature = undefined;
    } else damping = dampedMore(damping);
  }
  return {
    ...endingOf(setting, state),
    steps,
    settled,
    nearlySettled: settled || (last < LAST_STEP && maximumSteps >= FULL_RUN),
  };
}

/** Where a step leads, how large it is, and whether that is better: `gained` is the share of what it promised. Undefined where there is none. */
function tryStep(setting: Setting, state: State, found: DampedStep | undefined) {
  if (!found) return undefined;
  const change = fromRatios(found.change, setting.inUnits, state.values);
  const next = stateAt(setting, movedBy(setting, state, change));
  const [before, after] = [state, next].map((each) => meritOf(each, state, found)) as [number, number];
  return {
    next,
    step: sizeOf(state, change) + shiftOf(setting.layout, state.values, next.values),
    isBetter: after <= before + SLACK * state.equations.chiSquare + SMALL_STEP,
    isLevel: Math.abs(before - after) <= LEVEL * Math.abs(after),
    gained: (before - after) / found.promised,
    forces: () => forcesOn(state.equations, found, next.at),
  };
}

/** What follows from where a search ended. */
function endingOf({ layout, repeats }: Setting, state: State): Omit<Solution, 'steps' | 'settled' | 'nearlySettled'> {
  // What nearly repeated others on the way says something of its own where the search ended, or repeats them for good.
  const equations = state.isUsable && repeats !== undefined ? reduce(state.at, layout) : state.equations;
  return {
    layout,
    values: state.values,
    linearization: state.at,
    equations,
    chiSquare: state.equations.chiSquare,
    relationsHold: relationsHold(state),
  };
}

/** Whether it would take a hundred times more than chance to explain what is left. */
const isHopeless = ({ at, equations }: State, { unknowns }: Layout) =>
  equations.chiSquare > HOPELESS * Math.max(FEW_FREEDOMS, at.rows.length - unknowns);

function stateAt({ problem, layout, inUnits, repeats }: Setting, values: Values): State {
  const at = linearize(problem, layout, values);
  const isUsable = at.residuals.every(Number.isFinite) && at.misclosures.every(Number.isFinite);
  const equations = isUsable ? reduce(at, layout, repeats) : NO_EQUATIONS;
  const ratios = isUsable ? inRatios(equations, inUnits, values) : equations;
  return { values, at, equations, ratios, isUsable: isUsable && equations.normal.diagonal().every(Number.isFinite) };
}

/**
 * What a step from a state is judged by: chi-square, and what the exact equations of that state miss, by the forces with which the step says that they hold (the Lagrangian; Nocedal & Wright,
 * Numerical Optimization, 2006, section 18.1). With those forces every step leads down, however near its end, and one that goes far along what bends is not refused for what it misses by the
 * bend (Maratos's effect, ibid. 15.4), as it was where misses were punished by their squares.
 */
function meritOf({ at, equations, isUsable }: State, from: State, { multipliers }: DampedStep): number {
  return isUsable
    ? from.equations.boundBy.reduce((sum, by, i) => sum + 2 * multipliers[i]! * missOf(by, at), equations.chiSquare)
    : Infinity;
}

const NO_EQUATIONS: NormalEquations = {
  weights: {
    components: [],
    times: (matrix) => matrix,
    timesVector: (values) => new Float64Array(values.length),
    at: () => 0,
    covarianceAt: () => 0,
    bound: [],
  },
  normal: Matrix.zeros(0, 0),
  gradient: new Float64Array(0),
  bound: Matrix.zeros(0, 0),
  boundMisclosure: Matrix.zeros(0, 1),
  boundBy: [],
  chiSquare: Infinity,
};

/** The unknowns after a step, and the observed numbers corrected to meet it. */
function movedBy({ problem, layout }: Setting, { values, at, equations }: State, by: Float64Array): Values {
  const missing = at.misclosures.map((misclosure, r) => misclosure + rowTimes(at.free[r]!, by));
  const multipliers = equations.weights.timesVector(missing);
  const corrections = new Float64Array(layout.observations.length);
  at.rows.forEach(({ observed: { columns, slopes } }, i) => {
    for (let k = 0; k < columns.length; k++)
      corrections[columns[k]!]! -= layout.variances[columns[k]!]! * slopes[k]! * multipliers[i]!;
  });
  return new Map(
    problem.blocks.map(({ id }) => {
      const unknown = layout.unknown.get(id);
      if (unknown !== undefined) return [id, values.get(id)!.map((value, k) => value + by[unknown + k]!)];
      const observed = layout.observed.get(id)!;
      return [id, values.get(id)!.map((_, k) => layout.observations[observed + k]! + corrections[observed + k]!)];
    }),
  );
}

/** Square of a step in units of its own sigma. */
function sizeOf({ at, equations: { weights } }: State, by: Float64Array): number {
  const along = at.free.map((row) => rowTimes(row, by));
  const weighted = weights.timesVector(along);
  return along.reduce((sum, each, r) => sum + each * weighted[r]!, 0);
}

function shiftOf(layout: Layout, before: Values, after: Values): number {
  let sum = 0;
  for (const [id, first] of layout.observed) {
    after.get(id)!.forEach((value, k) => (sum += (value - before.get(id)![k]!) ** 2 / layout.variances[first + k]!));
  }
  return sum;
}

function relationsHold({ at, equations }: State): boolean {
  return at.rows.every((row, i) => {
    if (row.noise === 1) return true;
    const sigma = Math.sqrt(equations.weights.covarianceAt(i, i));
    return Math.abs(at.residuals[i]!) <= EXACT_MISS * (sigma || 1);
  });
}
