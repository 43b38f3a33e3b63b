import type { EvidenceKind, SaidName } from '@/core/job';

/** How a kind of evidence is pointed at: `per` points a line or side, `lines` of them; a curve takes as many as one likes. */
export interface EvidencePointing {
  readonly lines: number;
  readonly per: number;
  /** Points that have to be there before it can be used. */
  readonly least: number;
  /** Sizes that are asked for, and those that may stay open. */
  readonly sizes: readonly SaidName[];
  readonly optional: boolean;
}

const OPEN_ENDED = Infinity;

export const EVIDENCE_POINTING: Readonly<Record<EvidenceKind, EvidencePointing>> = {
  length: { lines: 1, per: 2, least: 2, sizes: ['length'], optional: false },
  circle: { lines: 1, per: OPEN_ENDED, least: 3, sizes: ['diameter'], optional: true },
  rectangle: { lines: 4, per: 2, least: 8, sizes: ['width', 'height'], optional: true },
  straight: { lines: 1, per: OPEN_ENDED, least: 3, sizes: [], optional: true },
  level: { lines: 1, per: 2, least: 2, sizes: ['angle'], optional: true },
  parallel: { lines: 2, per: 2, least: 4, sizes: [], optional: true },
  square: { lines: 2, per: 2, least: 4, sizes: [], optional: true },
  equal: { lines: 2, per: 2, least: 4, sizes: [], optional: true },
  angle: { lines: 2, per: 2, least: 4, sizes: ['angle'], optional: false },
  'known-point': { lines: 1, per: 1, least: 1, sizes: ['across', 'up'], optional: false },
};

/** Points in the order in which they were set, cut into lines. */
export function groupsOf<T>(kind: EvidenceKind, points: readonly T[]): readonly (readonly T[])[] {
  const { per, lines } = EVIDENCE_POINTING[kind];
  if (per === OPEN_ENDED) return [points];
  return Array.from({ length: Math.min(lines, Math.ceil(points.length / per)) }, (_, i) => points.slice(i * per, (i + 1) * per));
}

export const isEnough = (kind: EvidenceKind, count: number) => count >= EVIDENCE_POINTING[kind].least;
export const isFull = (kind: EvidenceKind, count: number) => count >= EVIDENCE_POINTING[kind].lines * EVIDENCE_POINTING[kind].per;
