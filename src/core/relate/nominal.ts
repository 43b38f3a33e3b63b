import type { MadeSize } from '../shelf';

/** A size or a slope that something may be meant to be. */
export interface Nominal {
  /** mm, or radians. */
  readonly value: number;
  /** As it is written: "8 mm", "5/16 in", "3 in 12". */
  readonly written: string;
  /** What is made in this size. */
  readonly name?: string | undefined;
}

/** Steps that sizes are made in, the rounder first. */
const MM_STEPS = [100, 50, 10, 5, 1, 0.5] as const;
const INCH_DENOMINATORS = [1, 2, 4, 8, 16, 32] as const;
const MM_PER_INCH = 25.4;
/** A step says something only when its sizes lie farther apart than so many sigmas: else one of them is always near. */
const TELLING = 5;

/**
 * Sizes that a measured one may be meant to be: within two sigma of it, of a step that is wide enough to say something, the
 * rounder first and one of each system, and what is made in sizes of its own (`made`). mm. Empty when nothing of that is near, which is as common.
 */
export function listNominals(value: number, sigma: number, made: readonly MadeSize[] = []): readonly Nominal[] {
  const reach = 2 * sigma;
  const metric = MM_STEPS.filter((step) => step > TELLING * sigma).map((step) => Math.round(value / step) * step);
  const inches = INCH_DENOMINATORS.filter((parts) => MM_PER_INCH / parts > TELLING * sigma).map((parts) => ({
    parts,
    count: Math.round((value / MM_PER_INCH) * parts),
  }));
  const isNear = (mm: number) => mm > 0 && Math.abs(mm - value) <= reach;
  const round = metric.find(isNear);
  const fraction = inches.find(({ parts, count }) => isNear((count / parts) * MM_PER_INCH));
  const known = listMade(value, sigma, made);
  return [
    ...known,
    ...(round === undefined || known.some(({ value: size }) => size === round)
      ? []
      : [{ value: round, written: `${Number(round.toFixed(1))} mm` }]),
    ...(fraction === undefined
      ? []
      : [
          {
            value: (fraction.count / fraction.parts) * MM_PER_INCH,
            written: `${writtenFraction(fraction.count, fraction.parts)} in`,
          },
        ]),
  ];
}

/** Of sizes that things are made in, those that are near; each says something only where the next one that is made is far. */
function listMade(value: number, sigma: number, made: readonly MadeSize[]): readonly Nominal[] {
  const near = made.filter(({ mm }) => Math.abs(mm - value) <= 2 * sigma);
  const sizes = [...new Set(near.map(({ mm }) => mm))];
  const isTelling =
    sizes.length === 1 && made.every(({ mm }) => mm === sizes[0] || Math.abs(mm - sizes[0]!) > TELLING * sigma);
  return isTelling
    ? [{ value: sizes[0]!, written: `${sizes[0]!} mm`, name: near.map(({ name }) => name).join(', ') }]
    : [];
}

function writtenFraction(count: number, parts: number): string {
  const [whole, rest] = [Math.floor(count / parts), count % parts];
  if (rest === 0) return String(whole);
  return whole > 0 ? `${whole} ${rest}/${parts}` : `${rest}/${parts}`;
}

const DEGREE = Math.PI / 180;
const DEGREE_STEPS = [15, 5, 1] as const;
/** Roofs are said by their rise in twelve; steeper than this nobody builds them. */
const STEEPEST_RISE = 24;

/**
 * Slopes against level that a measured one (radians, −90° to 90°) may be meant to be: whole degrees, the rounder first, and a rise in 12.
 * Within two sigma, of steps that say something there.
 */
export function listSlopes(angle: number, sigma: number): readonly Nominal[] {
  const isNear = (value: number) => Math.abs(value - angle) <= 2 * sigma;
  const degrees = DEGREE_STEPS.filter((step) => step * DEGREE > TELLING * sigma)
    .map((step) => Math.round(angle / (step * DEGREE)) * step)
    .find((value) => isNear(value * DEGREE));
  const rise = Math.round(12 * Math.tan(angle));
  const next = Math.abs(Math.atan2(rise + 1, 12) - Math.atan2(rise, 12));
  const hasRise =
    rise !== 0 && Math.abs(rise) <= STEEPEST_RISE && next > TELLING * sigma && isNear(Math.atan2(rise, 12));
  return [
    ...(degrees === undefined || degrees === 0 ? [] : [{ value: degrees * DEGREE, written: `${degrees}°` }]),
    ...(hasRise ? [{ value: Math.atan2(rise, 12), written: `${Math.abs(rise)} in 12` }] : []),
  ];
}
