import { Matrix, pseudoInverse } from 'ml-matrix';
import { distance, type Vec } from '../geometry';
import type { Fit } from './fit';
import type { MapPart } from './models';
import { toPlane } from './sheet-map';

/**
 * Where the doubt of a distance across half the picture comes from: the share of its variance that would go if a part were known
 * exactly, largest first. They need not add up. Scale, turn and shift are left out: they follow from the evidence and the rest.
 */
export interface Doubt {
  readonly part: MapPart | 'height';
  readonly share: number;
}

const FOLLOWS: ReadonlySet<string> = new Set<MapPart>(['scale', 'turn', 'shift']);

export function listDoubts(fit: Fit): Doubt[] {
  if (!fit.scaled || !fit.model) return [];
  const { width, height } = fit.picture;
  const [a, b]: [Vec, Vec] = [
    [0.25 * width, height / 2],
    [0.75 * width, height / 2],
  ];
  const across = (values: readonly number[]) => {
    const map = fit.mapWith(values);
    return distance(toPlane(map, a), toPlane(map, b));
  };
  const slopes = fit.values.map((value, i) => {
    const step = 0.1 * Math.sqrt(fit.covariance.get(i, i)) || 1e-9;
    return (across(fit.values.with(i, value + step)) - across(fit.values.with(i, value - step))) / (2 * step);
  });
  const whole = fit.covariance.mmul(Matrix.columnVector(slopes));
  const variance = Matrix.rowVector(slopes).mmul(whole).get(0, 0);
  // What knowing a part exactly would take away: its covariance with the distance, squared, over its own.
  const shareOf = (at: readonly number[]) => {
    const shared = whole.selection([...at], [0]);
    return (
      shared
        .transpose()
        .mmul(pseudoInverse(fit.covariance.selection([...at], [...at])))
        .mmul(shared)
        .get(0, 0) / variance
    );
  };
  const { parts, lift } = fit.layout;
  const doubts: Doubt[] = fit.model.parts.map(({ id }, i) => ({ part: id, share: shareOf(parts[i]!) }));
  doubts.push({ part: 'height', share: shareOf([lift]) });
  return doubts.filter(({ part }) => !FOLLOWS.has(part)).sort((x, y) => y.share - x.share);
}
