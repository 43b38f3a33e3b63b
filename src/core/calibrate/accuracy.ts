import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { propagateMany, type Measured } from '../adjust';
import { isSameList } from '../basics';
import { distance, subtract, type Vec } from '../geometry';
import {
  begunOnOtherSide,
  listFigures,
  hasTwoSizes,
  inOrder,
  pointFrame,
  pointsOf,
  type Observation,
  type EvidenceFigure,
  type SheetPoint,
} from './evidence';
import type { Fit } from './fit';
import type { Way } from './mixed';
import { atHeight } from './projection';
import { toPlane, type SheetMap } from './sheet-map';

/** A place that something is measured from: pointed on its own, or a named point that the fit has adjusted. */
export type MeasuredPoint = SheetPoint | { readonly name: string };

interface Joint {
  readonly x: readonly number[];
  readonly covariance: Matrix;
  /** Other ways in which the picture can have been taken, in the same numbers: no slope leads to them. */
  readonly ways: readonly Way[];
  /** Places on the plane for varied numbers. */
  placesAt(x: readonly number[]): Vec[];
}

/** Everything that a figure of these points depends on: the map, the height of what is traced, and the points. */
function jointOf(fit: Fit, points: readonly MeasuredPoint[]): Joint {
  const names = [...new Set(points.flatMap((p) => ('name' in p ? [p.name] : [])))];
  const own = points.filter((p): p is SheetPoint => !('name' in p));
  const {
    places,
    mixed: { within: covariance, ways },
  } = fit.withPoints(names);
  const count = fit.values.length;
  const joint = Matrix.zeros(covariance.rows + 2 * own.length, covariance.rows + 2 * own.length);
  joint.setSubMatrix(covariance, 0, 0);
  own.forEach((point, i) =>
    joint.setSubMatrix(pointingCovariance(point), covariance.rows + 2 * i, covariance.rows + 2 * i),
  );
  const mapAt = mapsOf(fit);
  const firstOf = new Map(
    points.map((p) => [p, 'name' in p ? count + 2 * names.indexOf(p.name) : covariance.rows + 2 * own.indexOf(p)]),
  );
  return {
    x: [...fit.values, ...places.flatMap(([x, y]) => [x, y]), ...own.flatMap(({ at }) => [at[0], at[1]])],
    covariance: joint,
    ways: ways.map(({ away, weight }) => ({ away: [...away, ...own.flatMap(() => [0, 0])], weight })),
    placesAt(x) {
      const numbers = x.slice(0, count);
      return points.map((p) => {
        const sheet: Vec = [x[firstOf.get(p)!]!, x[firstOf.get(p)! + 1]!];
        return toPlane(mapAt(numbers, ('name' in p ? (fit.points[p.name]!.height ?? 0) : p.height) ?? 'traced'), sheet);
      });
    },
  };
}

/** The maps for varied numbers, by height; those of the last numbers are kept, since it is the places that vary most. */
function mapsOf(fit: Fit): (numbers: readonly number[], height: number | 'traced') => SheetMap {
  let of: readonly number[] = [];
  let maps = new Map<number | 'traced', SheetMap>();
  return (numbers, height) => {
    if (!isSameList(of, numbers)) [of, maps] = [numbers, new Map()];
    const map = maps.get(height) ?? fit.mapWith(numbers, height === 'traced' ? undefined : atHeight(height));
    maps.set(height, map);
    return map;
  };
}

/** Covariance of a place as it was pointed, in the sheet's frame. px². */
export function pointingCovariance(point: SheetPoint): Matrix {
  const { axes, sigmas } = pointFrame(point);
  const turn = new Matrix([
    [axes[0][0], axes[1][0]],
    [axes[0][1], axes[1][1]],
  ]);
  return turn.mmul(Matrix.diag(sigmas.map((sigma) => sigma * sigma))).mmul(turn.transpose());
}

/**
 * Any number computed from places, with its plus-minus from the map and from the pointing. `f` gets the places on the plane as
 * they vary together. Unit of f; one sigma. On an unscaled view only the pointing counts. What has no height of its own lies
 * at the height that is traced.
 */
export function measureFrom(
  fit: Fit,
  points: readonly MeasuredPoint[],
  f: (places: readonly Vec[]) => number,
): Measured {
  return measureAll(fit, points, (places) => [f(places)])[0]!;
}

/** Several numbers of the same places, each with its plus-minus. */
function measureAll(
  fit: Fit,
  points: readonly MeasuredPoint[],
  f: (places: readonly Vec[]) => readonly number[],
): readonly Measured[] {
  const joint = jointOf(fit, points);
  const variances = covarianceOfFigures((x) => f(joint.placesAt(x)), joint).diagonal();
  return f(joint.placesAt(joint.x)).map((value, i) => ({ value, sigma: Math.sqrt(Math.max(0, variances[i]!)) }));
}

/** The covariance of what follows from numbers: first order within one way of taking the picture, and what every other way makes of them. */
function covarianceOfFigures(f: (x: readonly number[]) => readonly number[], { x, covariance, ways }: Joint): Matrix {
  const here = f(x);
  return ways.reduce(
    (sum, { away, weight }) => {
      const there = f(x.map((value, i) => value + away[i]!));
      const apart = Matrix.columnVector(there.map((value, i) => value - here[i]!));
      return apart.to1DArray().every(Number.isFinite) ? sum.add(apart.mmul(apart.transpose()).mul(weight)) : sum;
    },
    propagateMany(f, x, covariance),
  );
}

/** Distance between two places. mm, one sigma. */
export function measuredLength(fit: Fit, a: MeasuredPoint, b: MeasuredPoint): Measured {
  return measureFrom(fit, [a, b], ([p, q]) => distance(p!, q!));
}

/** Where a place lies on the plane, with one sigma of each coordinate, on the datum. mm. */
export function measuredPlace(fit: Fit, point: MeasuredPoint): readonly [Measured, Measured] {
  return [measureFrom(fit, [point], ([p]) => p![0]), measureFrom(fit, [point], ([p]) => p![1])];
}

/**
 * Plus-minus of a place relative to the middle of the evidence and its direction: the longer half-axis of its error ellipse. mm,
 * one sigma. A shift or turn of the whole, which changes no size, does not count. Grows away from the evidence, since scale, tilt, lens and height act on the distance from it.
 */
export function positionSigma(fit: Fit, place: SheetPoint): number {
  const [long] = errorEllipse(fit, place).axes;
  return long;
}

export interface ErrorEllipse {
  /** Half-axes, longer first, mm; one sigma. */
  readonly axes: readonly [number, number];
  /** Direction of the longer one on the plane, radians. */
  readonly direction: number;
}

export function errorEllipse(fit: Fit, place: SheetPoint): ErrorEllipse {
  const exact = (at: Vec): SheetPoint => ({ at, sigma: 1e-9 });
  const joint = jointOf(fit, [place, exact(fit.centre), ...(fit.baseline ?? []).map(exact)]);
  const directionAt = ([, , a, b]: readonly Vec[]) => (a && b ? Math.atan2(b[1] - a[1], b[0] - a[0]) : 0);
  const nominal = directionAt(joint.placesAt(joint.x));
  const covariance = covarianceOfFigures((x) => {
    const places = joint.placesAt(x);
    const turn = nominal - directionAt(places);
    const [dx, dy] = subtract(places[0]!, places[1]!);
    return [Math.cos(turn) * dx - Math.sin(turn) * dy, Math.sin(turn) * dx + Math.cos(turn) * dy];
  }, joint);
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(covariance, { assumeSymmetric: true });
  const long = realEigenvalues[0]! > realEigenvalues[1]! ? 0 : 1;
  const axis = (i: number) => Math.sqrt(Math.max(0, realEigenvalues[i]!));
  return {
    axes: [axis(long), axis(1 - long)],
    direction: Math.atan2(eigenvectorMatrix.get(1, long), eigenvectorMatrix.get(0, long)),
  };
}

/** A figure of a piece of evidence as the fit has it from the points as they were pointed, beside what was said. */
export interface ReadFigure {
  readonly figure: EvidenceFigure;
  readonly comesTo: Measured;
  /** Comes to minus said, and one sigma of that difference for a piece that is not in the fit; undefined when nothing was said. */
  readonly difference: number | undefined;
  readonly sigma: number;
}

export function readEvidence(fit: Fit, said: Observation): ReadFigure[] {
  const piece = asTaken(fit, said);
  const names = pointsOf(piece);
  // Height 0 unless said: evidence lies on its own plane, whatever height is traced at.
  const points = names.map((name) => ({ ...fit.points[name]!, height: fit.points[name]!.height ?? 0 }));
  const index = new Map(names.map((name, i) => [name, i]));
  const figures = listFigures(piece);
  const measured = measureAll(fit, points, (places) => {
    const at = (name: string) => places[index.get(name)!]!;
    return figures.map((figure) => figure.of(at));
  });
  return figures.map((figure, i) => {
    const comesTo = measured[i]!;
    return {
      figure,
      comesTo,
      difference: figure.said === undefined ? undefined : comesTo.value - figure.said,
      sigma: Math.hypot(comesTo.sigma, figure.sigma),
    };
  });
}

/** A piece with its corners as the fit has them; one that is not in it, in order. */
function asTaken(fit: Fit, said: Observation): Observation {
  const taken = fit.taken.get(said.id);
  return said.kind === 'rectangle' && taken?.kind === 'rectangle'
    ? { ...said, corners: taken.corners, sides: taken.sides }
    : inOrder(said, fit.points);
}

export interface CheckOutcome {
  readonly id: string;
  readonly figures: readonly ReadFigure[];
  readonly verdict: 'agrees' | 'differs';
}

/** Compares what was held back with the fit: it agrees when every figure is within two sigma of what was said. */
export function checkEvidence(fit: Fit, piece: Observation): CheckOutcome {
  const ways = hasTwoSizes(piece) ? [piece, begunOnOtherSide(piece)] : [piece];
  const [figures] = ways.map((way) => readEvidence(fit, way)).sort((a, b) => worstOf(a) - worstOf(b));
  return { id: piece.id, figures: figures!, verdict: worstOf(figures!) <= 2 ? 'agrees' : 'differs' };
}

/** The largest difference from what was said, in its own sigmas. */
const worstOf = (figures: readonly ReadFigure[]) =>
  Math.max(0, ...figures.map(({ difference = 0, sigma }) => Math.abs(difference) / sigma));

/** The one figure that stands for a fit: one sigma of a distance across the middle half of the picture, pointing left out. mm. */
export function fitSigma(fit: Fit): number {
  const { width, height } = fit.picture;
  const exact = (x: number): SheetPoint => ({ at: [x * width, height / 2], sigma: 1e-9 });
  return measuredLength(fit, exact(0.25), exact(0.75)).sigma;
}
