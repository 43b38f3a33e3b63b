import { done, refused, type Result } from '../basics';
import type { Measured } from '../adjust';

/** A figure that cannot be read, written as what it may be: "240 or 249 or 210". */
export const isUnsure = (text: string) => /\S\s+or\s+\S/.test(text);

/** The reading that comes nearest to what the rest of the evidence makes of it. Refused without a scale, and where two are as near. */
export function chooseCandidate<T extends { readonly value: number }>(
  text: string,
  read: (part: string) => Result<T>,
  comesTo: Measured | undefined,
): Result<T> {
  if (!comesTo) return refused('candidates-need-scale');
  const readings: T[] = [];
  for (const part of text.split(/\s+or\s+/)) {
    const reading = read(part);
    if (!reading.ok) return reading;
    readings.push(reading.value);
  }
  const [best, next] = readings.sort((a, b) => Math.abs(a.value - comesTo.value) - Math.abs(b.value - comesTo.value));
  const isClear = !next || Math.abs(next.value - comesTo.value) > 2 * comesTo.sigma;
  return best && isClear ? done(best) : refused('candidates-not-told');
}
