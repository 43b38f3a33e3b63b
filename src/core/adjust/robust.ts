import type { Block, Condition, Problem } from './problem';
import { solve, type Solution } from './solve';

/** How much a number still counts that is off by this many of its own sigmas: between 1 and 0. */
export type Loss = (deviations: number) => number;

/** Full weight up to `limit` sigmas, then a constant pull (Huber, Robust estimation of a location parameter, 1964); 1.345 keeps 95 % of the precision where nothing is wrong. */
export const huber =
  (limit = 1.345): Loss =>
  (deviations) =>
    Math.min(1, limit / Math.abs(deviations));
/** What is far off counts for nothing in the end (Cauchy's density); 2.385 keeps 95 %. Weak: may settle on the wrong half of evidence that is split. */
export const cauchy =
  (limit = 2.385): Loss =>
  (deviations) =>
    1 / (1 + (deviations / limit) ** 2);

export interface RobustSolution {
  /** Of the problem as it was weighed last: its sigmas are those of the weighed numbers. */
  readonly solution: Solution;
  /** The least weight within each group of stated conditions, and of each observed block by its id. */
  readonly weights: ReadonlyMap<string, number>;
  /** Whether the weights stayed where they were in the end. */
  readonly settled: boolean;
}

const ROUNDS = 60;
const SETTLED = 1e-6;

/**
 * Least squares in which what is far off counts less (iteratively reweighted: Holland & Welsch, Robust regression using iteratively
 * reweighted least-squares, 1977). Stated conditions and observed numbers are weighed by how far off they come out; exact
 * relations always hold. Says less about a single error than data snooping; for many small ones it is the better start.
 */
export function solveRobustly(problem: Problem, loss: Loss): RobustSolution {
  let weights = problem.conditions.map(() => [] as number[]);
  let blocks = new Map<string, readonly number[]>();
  for (let round = 0; ; round++) {
    const solution = solve(weighed(problem, weights, blocks));
    const next = problem.conditions.map((condition) =>
      condition.exact ? [] : condition.residuals(condition.blocks.map((id) => solution.values.get(id)!)).map(loss),
    );
    const nextBlocks = new Map(
      problem.blocks
        .filter(({ sigma }) => sigma !== undefined)
        .map((block) => [block.id, deviationsOf(block, solution).map(loss)]),
    );
    const change = Math.max(
      0,
      ...next.flatMap((row, i) => row.map((weight, k) => Math.abs(weight - (weights[i]![k] ?? 1)))),
      ...[...nextBlocks].flatMap(([id, row]) => row.map((weight, k) => Math.abs(weight - (blocks.get(id)?.[k] ?? 1)))),
    );
    if (change < SETTLED || round === ROUNDS)
      return { solution, weights: leastWeights(problem, next, nextBlocks), settled: change < SETTLED };
    [weights, blocks] = [next, nextBlocks];
  }
}

function deviationsOf({ id, start, sigma }: Block, { values }: Solution): number[] {
  return start.map(
    (observed, i) => (values.get(id)![i]! - observed) / (typeof sigma === 'number' ? sigma : sigma![i]!),
  );
}

function weighed(
  problem: Problem,
  weights: readonly (readonly number[])[],
  blocks: ReadonlyMap<string, readonly number[]>,
): Problem {
  return {
    conditions: problem.conditions.map((condition, i) => weighedCondition(condition, weights[i]!)),
    blocks: problem.blocks.map((block) => {
      const { sigma, start } = block;
      return sigma === undefined
        ? block
        : {
            ...block,
            sigma: start.map(
              (_, i) => (typeof sigma === 'number' ? sigma : sigma[i]!) / Math.sqrt(blocks.get(block.id)?.[i] ?? 1),
            ),
          };
    }),
  };
}

function weighedCondition(condition: Condition, weights: readonly number[]): Condition {
  if (weights.length === 0) return condition;
  const root = (i: number) => Math.sqrt(weights[i]!);
  const { linearize } = condition;
  return {
    ...condition,
    residuals: (values) => condition.residuals(values).map((residual, i) => residual * root(i)),
    ...(linearize && {
      linearize(values) {
        const { residuals, slopes } = linearize.call(condition, values);
        return {
          residuals: residuals.map((residual, i) => residual * root(i)),
          slopes: slopes.map((row, i) => row.map((slope) => slope * root(i))),
        };
      },
    }),
  };
}

function leastWeights(
  { conditions }: Problem,
  rows: readonly (readonly number[])[],
  blocks: ReadonlyMap<string, readonly number[]>,
): ReadonlyMap<string, number> {
  const least = new Map<string, number>([...blocks].map(([id, weights]) => [id, Math.min(...weights)]));
  conditions.forEach(({ group, exact }, i) => {
    if (!exact) least.set(group, Math.min(least.get(group) ?? 1, ...rows[i]!));
  });
  return least;
}
