import type { Observation } from '../adjust';
import { distance, type Vec } from '../geometry';
import { applyHomography } from './homography';
import type { MapModel } from './map-model';

/** A place pointed at on the sheet. Pixels; `sigma` is one sigma of each coordinate. */
export interface SheetPoint {
  readonly at: Vec;
  readonly sigma: number;
}

/** A known length between two pointed places. mm, one sigma. A check is compared with the fit and never used in it. */
export interface LengthEvidence {
  readonly id: string;
  readonly from: SheetPoint;
  readonly to: SheetPoint;
  readonly mm: number;
  readonly sigma: number;
  readonly check: boolean;
}

export const MAP = 'map';
const pointBlock = (evidence: LengthEvidence, end: 'from' | 'to') => `${evidence.id}:${end}`;

export function pointBlocks(evidence: LengthEvidence) {
  return (['from', 'to'] as const).map((end) => ({ id: pointBlock(evidence, end), start: evidence[end].at }));
}

/** The two clicks and the length itself: the true places of the clicks are unknowns of their own. */
export function lengthObservations(evidence: LengthEvidence, model: MapModel): Observation[] {
  const clicks = (['from', 'to'] as const).map((end): Observation => {
    const { at, sigma } = evidence[end];
    return {
      group: `click:${evidence.id}`,
      origin: 'measured',
      blocks: [pointBlock(evidence, end)],
      residuals: ([place]) => [(place![0]! - at[0]) / sigma, (place![1]! - at[1]) / sigma],
    };
  });
  return [...clicks, {
    group: evidence.id,
    origin: 'stated',
    blocks: [MAP, pointBlock(evidence, 'from'), pointBlock(evidence, 'to')],
    residuals: ([map, from, to]) => {
      const h = model.homography(map!, false);
      const length = distance(applyHomography(h, from as unknown as Vec), applyHomography(h, to as unknown as Vec));
      return [(length - evidence.mm) / evidence.sigma];
    },
  }];
}
