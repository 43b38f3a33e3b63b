import { MM_PER_INCH, type Units } from './unit';

const MINUS = '−';

/**
 * Decimals and plus-minus for people. `plusMinus` in the shown unit; it is rounded up to one figure (two when it begins
 * with 1), so that what is shown never claims more than what is known.
 */
function rounding(plusMinus: number): { decimals: number; margin: string } {
  if (!(plusMinus > 0) || !Number.isFinite(plusMinus)) return { decimals: 2, margin: '' };
  const magnitude = Math.floor(Math.log10(plusMinus));
  const leading = plusMinus / 10 ** magnitude;
  const decimals = Math.min(6, Math.max(0, (leading < 2 ? 1 : 0) - magnitude));
  const step = 10 ** -decimals;
  return { decimals, margin: (Math.ceil(plusMinus / step - 1e-9) * step).toFixed(decimals) };
}

function fixed(value: number, decimals: number): string {
  const text = Math.abs(value).toFixed(decimals);
  return value < 0 && Number(text) !== 0 ? MINUS + text : text;
}

/** Whole inches and a reduced fraction, without the inch sign: `1 5/16`, `3/4`, `0`. */
function fraction(inches: number, denominator: number): string {
  const parts = Math.round(Math.abs(inches) * denominator);
  let [top, bottom] = [parts % denominator, denominator];
  while (top > 0 && top % 2 === 0) [top, bottom] = [top / 2, bottom / 2];
  const whole = Math.floor(parts / denominator);
  const text = top === 0 ? `${whole}` : whole === 0 ? `${top}/${bottom}` : `${whole} ${top}/${bottom}`;
  return inches < 0 && parts > 0 ? MINUS + text : text;
}

function feetAndInches(inches: number, denominator: number): string {
  const rounded = Math.round(Math.abs(inches) * denominator) / denominator;
  const feet = Math.floor(rounded / 12);
  const sign = inches < 0 && rounded > 0 ? MINUS : '';
  return `${sign}${feet}' ${fraction(rounded - feet * 12, denominator)}"`;
}

const SHOWN = {
  mm: { mm: 1, sign: 'mm', decimals: 2 },
  cm: { mm: 10, sign: 'cm', decimals: 3 },
  m: { mm: 1000, sign: 'm', decimals: 4 },
  inch: { mm: MM_PER_INCH, sign: 'in', decimals: 3 },
} as const;

/** A length for people. mm in; `sigma` is one sigma, shown as two (`412.6 mm ±0.3`); undefined shows no plus-minus. */
export function formatLength(mm: number, units: Units, sigma?: number): string {
  const twoSigma = sigma === undefined ? NaN : 2 * sigma;
  if (units.style === 'inch-fraction' || units.style === 'feet-inches') {
    const inches = mm / MM_PER_INCH;
    const text =
      units.style === 'inch-fraction'
        ? `${fraction(inches, units.denominator)}"`
        : feetAndInches(inches, units.denominator);
    const { margin } = rounding(twoSigma / MM_PER_INCH);
    return margin ? `${text} ±${margin}"` : text;
  }
  const shown = SHOWN[units.style];
  const { decimals, margin } = rounding(twoSigma / shown.mm);
  const text = fixed(mm / shown.mm, margin ? decimals : shown.decimals);
  return margin ? `${text} ${shown.sign} ±${margin}` : `${text} ${shown.sign}`;
}

/** An area for people: mm² in; square millimetres, centimetres, metres, or square inches out. */
export function formatArea(mm2: number, units: Units, sigma?: number): string {
  const [per, sign] = areaUnit(mm2, units.style);
  const { decimals, margin } = rounding(sigma === undefined ? NaN : (2 * sigma) / per);
  return margin ? `${fixed(mm2 / per, decimals)} ${sign} ±${margin}` : `${fixed(mm2 / per, 2)} ${sign}`;
}

function areaUnit(mm2: number, style: Units['style']): readonly [per: number, sign: string] {
  if (!isMetric(style)) return [MM_PER_INCH ** 2, 'in²'];
  if (style === 'm' && Math.abs(mm2) >= SMALL_IN_METRES) return [1e6, 'm²'];
  return style === 'cm' ? [100, 'cm²'] : [1, 'mm²'];
}

const isMetric = (style: Units['style']) => style === 'mm' || style === 'cm' || style === 'm';

/** Areas below this would be written as next to nothing in square metres. mm² */
const SMALL_IN_METRES = 1e4;

/** A volume with its plus-minus: mm³ in, cubic metres, centimetres or inches out. */
export function formatVolume(mm3: number, units: Units, sigma?: number): string {
  const [per, sign] = volumeUnit(mm3, units.style);
  const { decimals, margin } = rounding(sigma === undefined ? NaN : (2 * sigma) / per);
  return margin ? `${fixed(mm3 / per, decimals)} ${sign} ±${margin}` : `${fixed(mm3 / per, 2)} ${sign}`;
}

function volumeUnit(mm3: number, style: Units['style']): readonly [per: number, sign: string] {
  if (!isMetric(style)) return [MM_PER_INCH ** 3, 'in³'];
  return style === 'm' || mm3 > 1e9 ? [1e9, 'm³'] : [1e3, 'cm³'];
}

/** An angle for people: radians in, degrees out. */
export function formatAngle(radians: number, sigma?: number): string {
  const degree = 180 / Math.PI;
  const { decimals, margin } = rounding(sigma === undefined ? NaN : 2 * sigma * degree);
  return margin ? `${fixed(radians * degree, decimals)}° ±${margin}` : `${fixed(radians * degree, 2)}°`;
}

/** A slope as trades say it: `14.04° · 25.0 % · 3 in 12`. Radians in; the rise to the nearest eighth. */
export function formatSlope(radians: number, sigma?: number): string {
  const rise = Math.tan(Math.abs(radians));
  if (rise > 100) return `${formatAngle(radians, sigma)} · upright`;
  return `${formatAngle(radians, sigma)} · ${fixed(100 * rise, 1)} % · ${Math.round(96 * rise) / 8} in 12`;
}

/** The plus-minus alone, as the strip of views and the job cards show it: `±0.3 mm`. */
export function formatPlusMinus(sigma: number, units: Units): string {
  const inches = units.style !== 'mm' && units.style !== 'cm' && units.style !== 'm';
  const shown = inches ? SHOWN.inch : SHOWN[units.style as 'mm'];
  const { margin } = rounding((2 * sigma) / shown.mm);
  return `±${margin || '0'} ${shown.sign}`;
}
