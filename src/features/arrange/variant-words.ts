import type { Measured } from '@/core/adjust';
import type { VariantSize } from '@/core/derive';
import type { Units } from '@/core/units';
import { measuredInWords } from './shared-words';

/** "812.3 mm ±0.4 wide, 460 mm ±0.3 high" */
export const sizeInWords = ({ width, height }: VariantSize, units: Units): string =>
  `${measuredInWords(width, units)} wide, ${measuredInWords(height, units)} high`;

/** What lies within twice its doubt is no difference that could be told. */
const isTold = ({ value, sigma }: Measured) => Math.abs(value) > 2 * sigma;

function wayInWords(by: Measured, more: string, less: string, same: string, units: Units): string {
  if (!isTold(by)) return `${same} as far as can be told (${measuredInWords(by, units)})`;
  const size = measuredInWords({ value: Math.abs(by.value), sigma: by.sigma }, units);
  return `${size} ${by.value > 0 ? more : less}`;
}

/** "90 mm ±0.5 wider, and as high as far as can be told (0.2 mm ±0.6)" */
export const differenceInWords = ({ width, height }: VariantSize, units: Units): string =>
  [
    wayInWords(width, 'wider', 'narrower', 'as wide', units),
    wayInWords(height, 'higher', 'lower', 'as high', units),
  ].join(', and ');
