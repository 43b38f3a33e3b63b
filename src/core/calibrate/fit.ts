import { Matrix } from 'ml-matrix';
import { covarianceOf, diagnose, solve, type Diagnosis, type Problem } from '../adjust';
import { done, refused, type Result } from '../basics';
import { distance, mix, type Vec } from '../geometry';
import { lengthObservations, MAP, pointBlocks, type LengthEvidence } from './evidence';
import { applyHomography, inverse, type Homography } from './homography';
import { assumedObservations, modelFor, onDatum, type Datum, type Lift, type PictureGeometry } from './map-model';

/**
 * What follows from the evidence: a map from sheet pixels to the view plane (mm, y up, on the datum) and how uncertain it
 * is. `values` are the map's numbers, `covariance` theirs; `mapWith` is the map for other numbers, for propagation.
 */
export interface Fit {
  readonly scaled: boolean;
  readonly values: readonly number[];
  readonly covariance: Matrix;
  readonly toPlane: Homography;
  readonly toSheet: Homography;
  mapWith(values: readonly number[]): Homography;
  /** As `mapWith`, for what lies on the plane of the evidence itself instead of the height that is traced at. */
  evidenceMapWith(values: readonly number[]): Homography;
  /** Middle of the evidence, sheet px: accuracy is stated relative to it. The picture's middle when there is none. */
  readonly centre: Vec;
  readonly diagnosis: Diagnosis | undefined;
  readonly warnings: readonly string[];
}

export interface FitInput {
  readonly picture: PictureGeometry;
  readonly datum: Datum;
  readonly evidence: readonly LengthEvidence[];
  readonly lift: Lift;
}

/** A view without any scale: pixels, y up, on the datum. Nothing about it is uncertain because nothing is claimed. */
export function unscaledFit({ picture, datum }: Omit<FitInput, 'evidence' | 'lift'>): Fit {
  const toPlane = onDatum([1, 0, 0, 0, -1, picture.height, 0, 0, 1], datum);
  return {
    scaled: false, values: [], covariance: Matrix.zeros(0, 0), toPlane, toSheet: inverse(toPlane),
    mapWith: () => toPlane, evidenceMapWith: () => toPlane,
    centre: [picture.width / 2, picture.height / 2], diagnosis: undefined, warnings: [],
  };
}

/** Why a piece of evidence cannot take part; undefined when it can. */
function findFault(evidence: LengthEvidence): Result<never> | undefined {
  const numbers = [evidence.mm, evidence.sigma, ...evidence.from.at, ...evidence.to.at, evidence.from.sigma, evidence.to.sigma];
  if (numbers.some((value) => !Number.isFinite(value))) return refused('evidence-not-a-number', { id: evidence.id });
  if (evidence.mm <= 0) return refused('evidence-length-not-positive', { id: evidence.id });
  if (evidence.sigma <= 0 || evidence.from.sigma <= 0 || evidence.to.sigma <= 0) return refused('evidence-sigma-not-positive', { id: evidence.id });
  if (distance(evidence.from.at, evidence.to.at) < 3 * Math.hypot(evidence.from.sigma, evidence.to.sigma)) {
    return refused('evidence-ends-coincide', { id: evidence.id });
  }
  return undefined;
}

/**
 * Fits a view to the lengths known about it. Unscaled when there is no evidence (checks do not count). Refused, with the
 * piece's id, when one cannot take part. When the pieces contradict each other at 1 %, the covariance is scaled by the
 * variance factor and the warning `evidence-disagrees` is given.
 */
export function fitView(input: FitInput): Result<Fit> {
  const { picture, datum, evidence, lift } = input;
  for (const piece of evidence) {
    const fault = findFault(piece);
    if (fault) return fault;
  }
  const used = evidence.filter((piece) => !piece.check);
  if (used.length === 0) return done(unscaledFit(input));
  const model = modelFor(picture, lift);
  const problem: Problem = {
    blocks: [{ id: MAP, start: startValues(model, used) }, ...used.flatMap(pointBlocks)],
    observations: [...assumedObservations(model, MAP), ...used.flatMap((piece) => lengthObservations(piece, model))],
  };
  const solution = solve(problem);
  const covariance = covarianceOf(problem, solution);
  if (covariance.kind !== 'ok' || !solution.converged) return refused('fit-undetermined');
  const diagnosis = diagnose(solution, covariance.matrix, covariance.redundancy);
  const values = solution.values.get(MAP)!;
  const last = values.length - 1;
  const raw = covariance.matrix.subMatrix(0, last, 0, last);
  const contradicts = diagnosis.isConsistent === false;
  const mapWith = (at: readonly number[]) => onDatum(model.homography(at, true), datum);
  return done({
    scaled: true,
    values,
    covariance: contradicts ? Matrix.mul(raw, diagnosis.varianceFactor!) : raw,
    toPlane: mapWith(values),
    toSheet: inverse(mapWith(values)),
    mapWith,
    evidenceMapWith: (at) => onDatum(model.homography(at, false), datum),
    centre: centreOf(used),
    diagnosis,
    warnings: contradicts ? ['evidence-disagrees'] : [],
  });
}

/** The model's start with the scale that the longest piece gives by itself. */
function startValues(model: ReturnType<typeof modelFor>, used: readonly LengthEvidence[]): number[] {
  const longest = used.reduce((a, b) => (b.mm > a.mm ? b : a));
  const h = model.homography(model.start, false);
  const shown = distance(applyHomography(h, longest.from.at), applyHomography(h, longest.to.at));
  return [model.start[0]! + Math.log(longest.mm / shown), ...model.start.slice(1)];
}

function centreOf(evidence: readonly LengthEvidence[]): Vec {
  const middles = evidence.map(({ from, to }) => mix(from.at, to.at, 0.5));
  return [
    middles.reduce((sum, p) => sum + p[0], 0) / middles.length,
    middles.reduce((sum, p) => sum + p[1], 0) / middles.length,
  ];
}
