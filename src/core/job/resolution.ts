import { ASSUMED } from '../calibrate';
import type { Evidence, EvidencePoint } from './evidence';
import type { Sheet, View } from './schema';
import { formatLength, formatRatio, MILLIMETRES, MM_PER_INCH } from '../units';

/** The corners of a sheet are where its pixels end; nothing is pointed at. px. */
const CORNER_SIGMA = 0.05;
/** How well a scanner keeps its dots an inch, share of a length, one sigma: what flatbeds promise; assumed. */
const SCANNER = 0.001;
/** What a resolution has to be at the least to come from a scanner; cameras write 72 or 96 and mean nothing. */
const LEAST_DPI = 100;

/** The resolution that a file tells, where it can be believed. */
export function believableDpi({ kind, taken }: Sheet): number | undefined {
  return kind !== 'photo' && taken.dpi !== undefined && taken.dpi >= LEAST_DPI ? taken.dpi : undefined;
}

const cornersOf = ({ width, height }: Pick<Sheet, 'width' | 'height'>) =>
  [
    [0, height],
    [width, height],
    [width, 0],
    [0, 0],
  ] as const;

/** Whether a piece is a sheet's own resolution: a rectangle on the sheet's own corners. */
export function isResolution({ kind, groups }: Evidence, { points }: Pick<View, 'points'>, sheet: Sheet): boolean {
  const places = groups.map(([id]) => points.find((point) => point.id === id)?.at);
  return (
    kind === 'rectangle' &&
    places.length === 4 &&
    cornersOf(sheet).every(([x, y], i) => places[i]?.[0] === x && places[i]?.[1] === y)
  );
}

export interface ResolutionEvidence {
  readonly evidence: Evidence;
  readonly points: readonly EvidencePoint[];
}

/**
 * Dots an inch and the printed ratio as what they are: the sheet itself is a rectangle of known size. Its plus-minus is that of the
 * scanner and, of a copy or print, that of its printer too; or what the scanner itself promises (share of a length, one sigma).
 */
export function resolutionEvidence(
  sheet: Sheet,
  dpi: number,
  ratio: number,
  newId: () => string,
  promised?: number,
): ResolutionEvidence {
  const { width, height, kind } = sheet;
  const [w, h] = [width, height].map((pixels) => (pixels / dpi) * MM_PER_INCH * ratio) as [number, number];
  const share = promised ?? Math.hypot(SCANNER, kind === 'drawing' ? ASSUMED.stretch.drawing : 0);
  const points = cornersOf(sheet).map((at): EvidencePoint => ({ id: newId(), at, sigma: CORNER_SIGMA }));
  const said = (mm: number) => ({ value: mm, written: formatLength(mm, MILLIMETRES) });
  const name = `${Number(dpi.toFixed(1))} dots an inch${ratio === 1 ? '' : `, drawn ${formatRatio(ratio)}`}`;
  const evidence: Evidence = {
    id: newId(),
    kind: 'rectangle',
    groups: points.map(({ id }) => [id]),
    said: { width: said(w), height: said(h) },
    plusMinus: 2 * share * Math.max(w, h),
    guess: false,
    role: 'use',
    name,
  };
  return { evidence, points };
}
