import type { EvidenceKind, SaidName } from '@/core/job';

/** The ways in which a piece is pointed at: a kind's own, or a box by what it touches. */
export type PointingWay = EvidenceKind | 'box';

/** How a piece is pointed at: points on each of its lines or sides in turn; a curve takes as many as one likes. */
export interface EvidencePointing {
  readonly groups: readonly number[];
  /** Points that have to be there before it can be used. */
  readonly least: number;
  /** Sizes that are asked for, and those that may stay open. */
  readonly sizes: readonly SaidName[];
  readonly optional: boolean;
}

const OPEN_ENDED = [Infinity];

export const EVIDENCE_POINTING: Readonly<Record<PointingWay, EvidencePointing>> = {
  length: { groups: [2], least: 2, sizes: ['length'], optional: false },
  circle: { groups: OPEN_ENDED, least: 3, sizes: ['diameter'], optional: true },
  rectangle: { groups: [2, 2, 2, 2], least: 8, sizes: ['width', 'height'], optional: true },
  // What it stands on says how it is turned; the other sides are touched once each.
  box: { groups: [2, 1, 1, 1], least: 5, sizes: ['width', 'height'], optional: true },
  straight: { groups: OPEN_ENDED, least: 3, sizes: [], optional: true },
  level: { groups: [2], least: 2, sizes: ['angle'], optional: true },
  parallel: { groups: [2, 2], least: 4, sizes: [], optional: true },
  square: { groups: [2, 2], least: 4, sizes: [], optional: true },
  equal: { groups: [2, 2], least: 4, sizes: [], optional: true },
  angle: { groups: [2, 2], least: 4, sizes: ['angle'], optional: false },
  'known-point': { groups: [1], least: 1, sizes: ['across', 'up'], optional: false },
};

/** Points in the order in which they were set, cut into lines. Sides that were found have as many points each as there are for them. */
export function pointingGroups<T>(way: PointingWay, points: readonly T[]): readonly (readonly T[])[] {
  let first = 0;
  if (way === 'rectangle' && points.length > EVIDENCE_POINTING.rectangle.least)
    return [0, 1, 2, 3].map((side) => points.slice((side * points.length) / 4, ((side + 1) * points.length) / 4));
  return EVIDENCE_POINTING[way].groups
    .map((count) => points.slice(first, (first += count)))
    .filter((group) => group.length > 0);
}

/** Whether as many points as one likes may lie on it. */
export const isOpenEnded = (way: PointingWay) => EVIDENCE_POINTING[way].groups === OPEN_ENDED;
export const isEnough = (way: PointingWay, count: number) => count >= EVIDENCE_POINTING[way].least;
export const isFull = (way: PointingWay, count: number) =>
  count >= EVIDENCE_POINTING[way].groups.reduce((sum, size) => sum + size, 0);
