import { EigenvalueDecomposition, type Matrix } from 'ml-matrix';
import { add, scale, subtract, type Vec } from '../geometry';
import type { Fit } from './fit';
import { isInFront, toPlane, toSheet } from './sheet-map';

/** Doubts smaller than this share of the largest move nothing that shows. */
const NEGLIGIBLE = 1e-9;
/** Share of a sigma by which the map is varied for a slope. */
const STEP = 0.1;

const roots = new WeakMap<Matrix, readonly (readonly number[])[]>();

/** The doubts of a fit's numbers as independent directions of sigma one: the columns of a root of their covariance within one way of taking the picture, which views that share it share, and every other way. */
const listDoubted = (fit: Fit): readonly (readonly number[])[] => [
  ...listWithin(fit),
  ...fit.mixed.ways.map(({ away, weight }) => away.map((each) => Math.sqrt(weight) * each)),
];

function listWithin({ values, mixed: { within: covariance } }: Fit): readonly (readonly number[])[] {
  if (values.length === 0) return [];
  const known = roots.get(covariance);
  if (known) return known;
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(covariance, { assumeSymmetric: true });
  const largest = Math.max(...realEigenvalues);
  const root = realEigenvalues.flatMap((variance, column) =>
    variance > NEGLIGIBLE * NEGLIGIBLE * largest
      ? [values.map((_, i) => Math.sqrt(variance) * eigenvectorMatrix.get(i, column))]
      : [],
  );
  roots.set(covariance, root);
  return root;
}

/** Of every doubt of a fit how many sigmas it goes at once, where it is another way of taking the picture; undefined of those that go by any. */
export const listReaches = (fit: Fit): readonly (number | undefined)[] => [
  ...listWithin(fit).map(() => undefined),
  ...fit.mixed.ways.map(({ weight }) => 1 / Math.sqrt(weight)),
];

/** Rounds in which the way back is found: each brings it nearer by the share of the way that was gone. */
const BACK = Array.from({ length: 12 });

/** How a place of the sheet moves on the plane, mm. */
type Move = (sheet: Vec) => Vec;

const mapAway = (fit: Fit, direction: readonly number[], times: number) =>
  fit.mapWith(fit.values.map((value, i) => value + times * direction[i]!));

function moveAlong(fit: Fit, direction: readonly number[]): Move {
  const [ahead, behind] = [mapAway(fit, direction, STEP), mapAway(fit, direction, -STEP)];
  return (sheet) => scale(subtract(toPlane(ahead, sheet), toPlane(behind, sheet)), 1 / (2 * STEP));
}

/** Another way of taking the picture may lie so far off (mirrored, by twice its slant) that no slope leads there: what it makes of a place is asked of its own map, where that is not beyond its horizon. */
const listMovesOfWays = (fit: Fit): readonly Move[] =>
  fit.mixed.ways.map(({ away, weight }) => {
    const [there, slope, share] = [mapAway(fit, away, 1), moveAlong(fit, away), Math.sqrt(weight)];
    return (sheet) =>
      scale(isInFront(there, sheet) ? subtract(toPlane(there, sheet), toPlane(fit.map, sheet)) : slope(sheet), share);
  });

/**
 * The doubts of a fit: how a place of the sheet moves on the plane when one of them goes by one sigma. The sum of their squares is the
 * covariance of the map. mm. None where the fit is without scale, since nothing is claimed there.
 */
export const listMapDoubts = (fit: Fit): readonly Move[] => [
  ...listWithin(fit).map((direction) => moveAlong(fit, direction)),
  ...listMovesOfWays(fit),
];

/**
 * A fit after its doubts, in the order of `listMapDoubts`, went by so many sigmas each. Its stated doubt stays: what moved it is not evidence that is listed. On the way to another way of taking the picture places
 * go straight from where they are to where they would be, which no map between the two does.
 */
export function movedFit(fit: Fit, sigmas: readonly number[]): Fit {
  const [within, all] = [listWithin(fit), listDoubted(fit)];
  const movedBy = (directions: readonly (readonly number[])[]) =>
    fit.values.map((value, i) =>
      directions.reduce((sum, direction, k) => sum + direction[i]! * (sigmas[k] ?? 0), value),
    );
  const map = fit.mapWith(movedBy(within));
  const moves = listMovesOfWays(fit)
    .map((move, k) => ({ move, by: sigmas[within.length + k] ?? 0 }))
    .filter(({ by }) => by !== 0);
  const shift: Move = (sheet) => moves.reduce<Vec>((sum, { move, by }) => add(sum, scale(move(sheet), by)), [0, 0]);
  return {
    ...fit,
    values: movedBy(all),
    map,
    toPlane: (sheet) => add(toPlane(map, sheet), shift(sheet)),
    toSheet: (plane) =>
      (moves.length === 0 ? [] : BACK).reduce<Vec>(
        (at) => toSheet(map, subtract(plane, shift(at))),
        toSheet(map, plane),
      ),
  };
}
