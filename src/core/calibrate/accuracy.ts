import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { propagate, propagateMany, type Measured } from '../adjust';
import { distance, subtract, type Vec } from '../geometry';
import type { LengthEvidence, SheetPoint } from './evidence';
import { applyHomography, type Homography } from './homography';
import type { Fit } from './fit';

/** Covariance of the map's numbers and, independent of them, of pointed places: the x that everything is a function of. */
function jointCovariance(fit: Fit, sigmas: readonly number[]): Matrix {
  const count = fit.values.length;
  const joint = Matrix.zeros(count + sigmas.length, count + sigmas.length);
  joint.setSubMatrix(fit.covariance, 0, 0);
  sigmas.forEach((sigma, i) => joint.set(count + i, count + i, sigma * sigma));
  return joint;
}

/**
 * Any number computed from pointed places, with its plus-minus from the map and from the pointing. `f` gets the map and the
 * sheet coordinates as they vary together. Unit of f; one sigma. On an unscaled view only the pointing counts.
 */
export function measureFrom(fit: Fit, points: readonly SheetPoint[], f: (map: Homography, sheet: readonly Vec[]) => number): Measured {
  const count = fit.values.length;
  const x = [...fit.values, ...points.flatMap((p) => [p.at[0], p.at[1]])];
  const sigmas = points.flatMap((p) => [p.sigma, p.sigma]);
  const value = (at: readonly number[]) => {
    const sheet = points.map((_, i): Vec => [at[count + 2 * i]!, at[count + 2 * i + 1]!]);
    return f(fit.mapWith(at.slice(0, count)), sheet);
  };
  return propagate(value, x, jointCovariance(fit, sigmas));
}

/** Distance between two pointed places at the height that is traced. mm, one sigma. */
export function measuredLength(fit: Fit, a: SheetPoint, b: SheetPoint): Measured {
  return measureFrom(fit, [a, b], (map, [p, q]) => distance(applyHomography(map, p!), applyHomography(map, q!)));
}

/** What the fit makes of a piece of evidence, on the evidence's own plane. mm, one sigma (for a check: of fit and clicks). */
export function evidenceLength(fit: Fit, evidence: LengthEvidence): Measured {
  const onItsPlane: Fit = { ...fit, mapWith: fit.evidenceMapWith };
  return measuredLength(onItsPlane, evidence.from, evidence.to);
}

/**
 * Plus-minus of a place relative to the middle of the evidence: the longer half-axis of its error ellipse. mm, one sigma.
 * Grows away from the evidence, since scale, tilt and height act on the distance from it.
 */
export function positionSigma(fit: Fit, place: SheetPoint): number {
  const count = fit.values.length;
  const x = [...fit.values, place.at[0], place.at[1]];
  const relative = (at: readonly number[]) => {
    const map = fit.mapWith(at.slice(0, count));
    return subtract(applyHomography(map, [at[count]!, at[count + 1]!]), applyHomography(map, fit.centre));
  };
  const covariance = propagateMany(relative, x, jointCovariance(fit, [place.sigma, place.sigma]));
  const { realEigenvalues } = new EigenvalueDecomposition(covariance, { assumeSymmetric: true });
  return Math.sqrt(Math.max(0, ...realEigenvalues));
}

export type CheckVerdict = 'agrees' | 'differs';

export interface CheckOutcome {
  readonly id: string;
  readonly comesTo: Measured;
  /** Measured minus said. mm. */
  readonly difference: number;
  /** One sigma of the difference: of the fit, the clicks and the said length. */
  readonly sigma: number;
  readonly verdict: CheckVerdict;
}

/** Compares a held-back length with the fit: it agrees when the difference is within two sigma of itself. */
export function checkLength(fit: Fit, evidence: LengthEvidence): CheckOutcome {
  const comesTo = evidenceLength(fit, evidence);
  const difference = comesTo.value - evidence.mm;
  const sigma = Math.hypot(comesTo.sigma, evidence.sigma);
  return { id: evidence.id, comesTo, difference, sigma, verdict: Math.abs(difference) <= 2 * sigma ? 'agrees' : 'differs' };
}

/** The one figure that stands for a fit: one sigma of a distance across the middle half of the picture, pointing left out. mm. */
export function fitSigma(fit: Fit, picture: { readonly width: number; readonly height: number }): number {
  const exact = (x: number): SheetPoint => ({ at: [x * picture.width, picture.height / 2], sigma: 1e-9 });
  return measuredLength(fit, exact(0.25), exact(0.75)).sigma;
}
