import { type Matrix } from 'ml-matrix';
import { propagateMany } from '../adjust';
import { distance, mix, type Vec } from '../geometry';
import type { Fit } from './fit';
import { OWN_PLANE } from './projection';
import { isInFront, toPlane } from './sheet-map';

/** A length that would help: where, and what it brings. mm, one sigma, of the worst length within the region. */
export interface Advice {
  readonly from: Vec;
  readonly to: Vec;
  readonly worstSigmaNow: number;
  readonly worstSigmaThen: number;
}

export interface AdviceWish {
  /** Corners of where it matters, sheet px, around. */
  readonly within: readonly Vec[];
  /** One sigma of the pointing, sheet px. */
  readonly clickSigma: number;
  /** One sigma of a length that somebody measures. mm. */
  sigmaOf(mm: number): number;
}

/** Advice below this share of what there is now is not worth a measurement. */
const WORTHWHILE = 0.95;

/**
 * The lengths between corners and middles of a region that lower the worst sigma within it most, best first (rank-one update
 * of the covariance; the candidate's own pointing and reading are in it). Empty when none helps by a twentieth.
 */
export function listAdvice(fit: Fit, { within, clickSigma, sigmaOf }: AdviceWish, most = 3): Advice[] {
  if (!fit.scaled) return [];
  const seats = within
    .flatMap((corner, i) => [corner, mix(corner, within[(i + 1) % within.length]!, 0.5)])
    .filter((seat) => isInFront(fit.map, seat));
  const pairs = seats
    .flatMap((a, i) => seats.slice(i + 1).map((b) => [a, b] as const))
    .filter(([a, b]) => distance(a, b) > 20 * clickSigma);
  if (pairs.length === 0) return [];
  // What is measured lies on the plane of the evidence, what is asked for at the height that is traced.
  const lengths = (x: readonly number[]) =>
    [fit.mapWith(x), fit.mapWith(x, OWN_PLANE)].flatMap((map) =>
      pairs.map(([a, b]) => distance(toPlane(map, a), toPlane(map, b))),
    );
  const covariance = propagateMany(lengths, fit.values, fit.covariance);
  const now = lengths(fit.values);
  const worstSigmaNow = Math.sqrt(Math.max(...covariance.diagonal().slice(0, pairs.length)));
  return pairs
    .map(([from, to], i) => {
      const perPixel = now[i]! / distance(from, to);
      const noise = sigmaOf(now[i]!) ** 2 + 2 * (clickSigma * perPixel) ** 2;
      return {
        from,
        to,
        worstSigmaNow,
        worstSigmaThen: Math.sqrt(worstAfter(covariance, pairs.length, pairs.length + i, noise)),
      };
    })
    .filter(({ worstSigmaThen }) => worstSigmaThen < WORTHWHILE * worstSigmaNow)
    .sort((a, b) => a.worstSigmaThen - b.worstSigmaThen)
    .slice(0, most);
}

function worstAfter(covariance: Matrix, asked: number, measured: number, noise: number): number {
  const gain = covariance.get(measured, measured) + noise;
  return Math.max(
    ...Array.from({ length: asked }, (_, j) => covariance.get(j, j) - covariance.get(j, measured) ** 2 / gain),
  );
}
