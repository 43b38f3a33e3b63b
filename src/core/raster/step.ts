import type { Colour } from './colour-picture';
import { PROFILE_STEP, smoothedSlopes, SMOOTHING, type Profile } from './profile';

/** What no average takes away: bevels, tone curves, compression. A share of the blur, and a least, px. Found on pictures of known truth: docs/accuracy.md. */
const SHAPE_SHARE = 0.12;
const SHAPE_LEAST = 0.12;
/** A step has to stand out: levels of colour, and multiples of the noise. */
const LEAST_CONTRAST = 12;
const LEAST_SIGNAL = 5;

/** A step across a scan: where it is steepest, how steep and how soft (the sigma of its blur), and how much sigma; `towards` is the change of colour, of length one. Px of the scan. */
export interface BrightnessStep {
  readonly at: number;
  readonly steepness: number;
  readonly contrast: number;
  readonly blur: number;
  readonly towards: Colour;
  readonly sigma: number;
  /** Where the change of all colours together is steepest, to the step of a profile. */
  readonly peak: number;
}

/** How steps are looked for: how far to both sides of the scan's middle, how many rows were averaged, how noisy they are, how much slopes are smoothed, and whether closely. */
export interface StepSearch {
  readonly reach: number;
  readonly rows: number;
  readonly smoothing?: number;
  /** Of one pixel, one sigma. */
  readonly noise: number;
  /** Also bands a pixel or two wide, as the wall of a hole that is seen aslant; where rims are followed such bands are grain. */
  readonly closely: boolean;
}

/** The steps along a scan that stand out. */
export function listSteps(profile: Profile, search: StepSearch): BrightnessStep[] {
  const slopes = profile.colours.map((channel) => smoothedSlopes(channel, search.smoothing));
  return listPeaks(slopes, search.reach).flatMap((peak) => judge(profile.colours, slopes, peak, search) ?? []);
}

/** Where colour changes most steeply, from the middle of the scan, px. */
function listPeaks(slopes: readonly Float64Array[], reach: number): number[] {
  const [red, green, blue] = slopes as readonly [Float64Array, Float64Array, Float64Array];
  const squared = red.map((slope, i) => slope * slope + green[i]! * green[i]! + blue[i]! * blue[i]!);
  const zero = (squared.length - 1) / 2;
  const peaks: number[] = [];
  for (let i = 1; i < squared.length - 1; i++) {
    const at = (i - zero) * PROFILE_STEP;
    if (Math.abs(at) <= reach && squared[i]! >= squared[i - 1]! && squared[i]! > squared[i + 1]!) peaks.push(at);
  }
  return peaks;
}

/** How far the flank of a step reaches at the most, px, and the share of its steepness at which it ends. */
const FLANK = 2.5;
const FLANK_ENDS = 0.15;

/** From where to where a step rises about its steepest place, px: another one may begin right behind it. */
function flankAbout(slopes: readonly Float64Array[], peak: number): readonly [number, number] {
  const zero = (slopes[0]!.length - 1) / 2;
  const top = Math.round(peak / PROFILE_STEP + zero);
  const along = (i: number) => slopes.reduce((sum, channel) => sum + (channel[i] ?? 0) * channel[top]!, 0);
  const least = FLANK_ENDS * along(top);
  const end = (way: 1 | -1) => {
    let i = top;
    while (Math.abs(i + way - top) * PROFILE_STEP <= FLANK && along(i + way) > least) i += way;
    return (i - zero) * PROFILE_STEP;
  };
  return [end(-1), end(1)];
}

/** A step seen along the change of colour itself, where it stands out most. */
function judge(
  colours: readonly Float64Array[],
  slopes: readonly Float64Array[],
  peak: number,
  { rows, noise, closely, smoothing = SMOOTHING }: StepSearch,
): BrightnessStep | undefined {
  const [from, to, over] = closely ? [...flankAbout(slopes, peak), 1] : [peak - 1.5, peak + 1.5, 2];
  const change = colours.map(
    (channel) => meanOf(channel, to, to + over) - meanOf(channel, from - over, from),
  ) as unknown as Colour;
  const contrast = Math.hypot(...change);
  if (contrast < LEAST_CONTRAST || contrast < (LEAST_SIGNAL * noise) / Math.sqrt(rows)) return undefined;
  const towards = change.map((value) => value / contrast) as unknown as Colour;
  const [red, green, blue] = slopes as readonly [Float64Array, Float64Array, Float64Array];
  const top = topNear(
    red.map((slope, i) => towards[0] * slope + towards[1] * green[i]! + towards[2] * blue[i]!),
    peak,
  );
  if (!top) return undefined;
  // Of a Gaussian step: contrast over its steepness, with the smoothing taken out again.
  const wide = contrast / (top.steepness * Math.sqrt(2 * Math.PI));
  const blur = Math.sqrt(Math.max(0.3 ** 2, wide * wide - smoothing ** 2));
  const bound = (noise / contrast) * Math.sqrt((2 * Math.sqrt(Math.PI) * blur) / rows);
  return { ...top, peak, contrast, blur, towards, sigma: Math.hypot(bound, SHAPE_LEAST, SHAPE_SHARE * blur) };
}

/** The steepest place within a pixel: the top of the parabola through three slopes. */
function topNear(slopes: Float64Array, peak: number): { at: number; steepness: number } | undefined {
  const zero = (slopes.length - 1) / 2;
  const middle = Math.round(peak / PROFILE_STEP + zero);
  let top = middle;
  for (let i = Math.max(1, middle - 4); i <= Math.min(slopes.length - 2, middle + 4); i++)
    if (slopes[i]! > slopes[top]!) top = i;
  const [before, here, after] = [slopes[top - 1]!, slopes[top]!, slopes[top + 1]!];
  const bend = before - 2 * here + after;
  if (!(here > 0) || !(bend < 0)) return undefined;
  return { at: (top + (before - after) / (2 * bend) - zero) * PROFILE_STEP, steepness: here };
}

/** The mean of values along a scan from one place to another, px from its middle. */
export function meanOf(values: Float64Array, from: number, to: number): number {
  const zero = (values.length - 1) / 2;
  const indexOf = (t: number) => Math.min(values.length - 1, Math.max(0, Math.round(t / PROFILE_STEP + zero)));
  const [first, last] = [indexOf(from), indexOf(to)];
  let sum = 0;
  for (let i = first; i <= last; i++) sum += values[i]!;
  return sum / (last - first + 1);
}
