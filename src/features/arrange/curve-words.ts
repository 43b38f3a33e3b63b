import type { CurveDoubt, StandingCurve } from '@/core/derive';
import { DIRECTIONS, type Vec3 } from '@/core/space';
import { formatLength, formatPlusMinus, type Units } from '@/core/units';
import { DIRECTION_WORDS } from '@/ui/feature-words';

/** Two sigma of where the curve is least sure, mm; undefined where that is not known. */
export function worstAlong(doubt: CurveDoubt | undefined): number | undefined {
  const sigmas = doubt?.along.flatMap(({ sigma }) => sigma) ?? [];
  return sigmas.length > 0 && sigmas.every(Number.isFinite) ? 2 * Math.max(...sigmas) : undefined;
}

/** What only one of the two views shows of it, beyond what pointing explains: "From 12.0 mm to 15.2 mm across only Top shows it". */
export function missingInWords(
  { missing, along }: StandingCurve,
  doubt: CurveDoubt | undefined,
  views: readonly [string, string],
  units: Units,
): readonly string[] {
  const axis = DIRECTIONS.indexOf(along) as 0 | 1 | 2;
  const ends: readonly Vec3[] = doubt ? [doubt.along[0]!, doubt.along.at(-1)!].map(({ sigma }) => sigma) : [];
  const explained = Math.max(LEAST, ...ends.map((sigma) => 2 * sigma[axis]));
  return missing
    .filter(({ from, to }) => to - from > explained)
    .map(({ of, from, to }) => {
      const [start, end] = [from, to].map((value) => formatLength(value, units));
      return `From ${start} to ${end} ${DIRECTION_WORDS[along]} only ${views[of === 'first' ? 0 : 1]} shows it; that part is left away.`;
    });
}

/** What shows on no drawing. mm */
const LEAST = 0.05;

export const plusMinusInWords = (twoSigma: number | undefined, units: Units): string =>
  twoSigma === undefined ? 'not known' : formatPlusMinus(twoSigma / 2, units);
