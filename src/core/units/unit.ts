/** Lengths are millimetres inside; units live at the edges. 1 in = 25.4 mm by definition (international inch, 1959). */
export const MM_PER_INCH = 25.4;
export const MM_PER_FOOT = 12 * MM_PER_INCH;

export type UnitStyle = 'mm' | 'cm' | 'm' | 'inch' | 'inch-fraction' | 'feet-inches';

/** How a job shows lengths. `denominator` is the finest fraction of an inch that is written. */
export interface Units {
  readonly style: UnitStyle;
  readonly denominator: 2 | 4 | 8 | 16 | 32 | 64;
}

export const MILLIMETRES: Units = { style: 'mm', denominator: 16 };

/** Millimetres in the unit that a bare number is taken to be in. */
export function mmPerBareNumber(style: UnitStyle): number {
  switch (style) {
    case 'mm':
      return 1;
    case 'cm':
      return 10;
    case 'm':
      return 1000;
    default:
      return MM_PER_INCH;
  }
}

const NAMED: Readonly<Record<string, number>> = {
  um: 0.001,
  µm: 0.001,
  μm: 0.001,
  mm: 1,
  millimetre: 1,
  millimetres: 1,
  millimeter: 1,
  millimeters: 1,
  cm: 10,
  centimetre: 10,
  centimetres: 10,
  centimeter: 10,
  centimeters: 10,
  dm: 100,
  m: 1000,
  metre: 1000,
  metres: 1000,
  meter: 1000,
  meters: 1000,
  km: 1e6,
  thou: MM_PER_INCH / 1000,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  inches: MM_PER_INCH,
  '"': MM_PER_INCH,
  ft: MM_PER_FOOT,
  foot: MM_PER_FOOT,
  feet: MM_PER_FOOT,
  "'": MM_PER_FOOT,
  yd: 3 * MM_PER_FOOT,
  yard: 3 * MM_PER_FOOT,
  yards: 3 * MM_PER_FOOT,
};

/** Millimetres in a unit as people write it, or undefined when nobody writes it so. */
export function findUnit(written: string): number | undefined {
  return Object.hasOwn(NAMED, written) ? NAMED[written] : undefined;
}
