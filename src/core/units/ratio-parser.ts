import { done, refused, type Result } from '../basics';
import { parseLength } from './length-parser';

const NUMBER = String.raw`\d+(?:[.,]\d+)?`;
const PAIR = new RegExp(String.raw`^(${NUMBER})\s*[:/]\s*(${NUMBER})$`);
const ALONE = new RegExp(`^${NUMBER}$`);
const toNumber = (text: string) => Number(text.replace(',', '.'));

/**
 * A drawing's ratio as it is printed: `1:50`, `2:1`, `50` for 1:50, `1/4" = 1'`, `1 cm = 2 m`. Comes back as how many times larger the thing is than
 * its drawing. Refused when it is empty, not understood, or not larger than zero.
 */
export function parseRatio(text: string): Result<number> {
  const source = text.trim();
  if (source === '') return refused('ratio-empty');
  const [drawn, real, more] = source.split('=').map((side) => side.trim());
  const ratio = real !== undefined && more === undefined ? ratioOfLengths(drawn!, real) : ratioOfNumbers(source);
  return ratio !== undefined && Number.isFinite(ratio) && ratio > 0
    ? done(ratio)
    : refused('ratio-not-understood', { text });
}

function ratioOfNumbers(source: string): number | undefined {
  const pair = PAIR.exec(source);
  if (pair) return toNumber(pair[2]!) / toNumber(pair[1]!);
  return ALONE.test(source) ? toNumber(source) : undefined;
}

function ratioOfLengths(drawn: string, real: string): number | undefined {
  const [small, large] = [parseLength(drawn, 'mm'), parseLength(real, 'mm')];
  return small.ok && large.ok && small.value.mm > 0 ? large.value.mm / small.value.mm : undefined;
}

/** "1:50", "2:1", "1:1". */
export function formatRatio(ratio: number): string {
  const round = (value: number) => String(Number(value.toPrecision(4)));
  return ratio >= 1 ? `1:${round(ratio)}` : `${round(1 / ratio)}:1`;
}
