import { add, scale, type Vec } from '../geometry';
import type { ColourPicture } from './colour-picture';
import { noiseOf, profileAlong } from './profile';
import { listSteps, meanOf, type BrightnessStep } from './step';

/** A place on an edge of the picture. Sheet px. */
export interface FoundEdge {
  readonly at: Vec;
  /** Direction squarely across the edge, radians, clockwise on the screen. */
  readonly normal: number;
  /** One sigma across it. */
  readonly sigma: number;
  /** A step between two surfaces, or the middle of a thin line. */
  readonly kind: 'step' | 'line';
}

export interface ScanOptions {
  /** How far to look to both sides, px. */
  readonly reach: number;
  /** Rows beside the scan that are averaged with it, to each side. */
  readonly beside: number;
  /** Whether a thin line counts by its middle. */
  readonly lines?: boolean;
  /** One sigma of the hand that pointed at the middle, px, where one did. */
  readonly hand?: number | undefined;
}

/** What is as wide or wider is no line, px. */
export const LINE_WIDTH = 9;
const SURELY_THIN = 4.5;
/** Flanks of a line are as steep as each other to this share; where a hand pointed, surely: the shadow beside a thing is steep towards it only, and what it ends with counts so much less. */
const LIKE_FLANKS = 0.6;
const SURELY_ALIKE = 0.87;
const SHADOW = 0.3;

/** Colours along a scan, by channel, and the noise of one pixel. */
interface Seen {
  readonly colours: readonly Float64Array[];
  readonly noise: number;
}

/** What a scan may be caught by: a step, or a line by its middle. */
interface Caught {
  readonly at: number;
  readonly sigma: number;
  readonly steepness: number;
  readonly kind: FoundEdge['kind'];
}

/**
 * The edge that a straight scan crosses nearest to its middle: the place where colour changes most steeply, to a fraction of a
 * pixel. Its sigma is the Cramér-Rao bound of a blurred step in noise, noise / contrast · √(2√π · blur / rows), and a floor for
 * what edges of real things do. Where a hand pointed, the others that it may have meant widen it. Undefined where no step stands out. Weak: two edges within three pixels are one, between them.
 */
export function findEdgeAcross(
  picture: ColourPicture,
  middle: Vec,
  direction: number,
  { reach, beside, lines = false, hand }: ScanOptions,
): FoundEdge | undefined {
  const across: Vec = [Math.cos(direction), Math.sin(direction)];
  // The other flank of a line may lie farther off than its first one.
  const farthest = lines ? reach + LINE_WIDTH : reach;
  const profile = profileAlong(picture, middle, across, farthest + 4, beside);
  const seen = { colours: profile.colours, noise: noiseOf(profile) };
  const steps = listSteps(profile, {
    reach: farthest,
    rows: 2 * beside + 1,
    noise: seen.noise,
    closely: hand !== undefined,
  });
  const near = steps.filter(({ peak }) => Math.abs(peak) <= reach);
  const around = near.length === 0 && lines ? findFlankAround(steps, seen) : undefined;
  const caught = (around ? [around] : near).map((step): Caught =>
    lines ? paired(step, steps, seen, hand === undefined ? LIKE_FLANKS : SURELY_ALIKE) : { ...step, kind: 'step' },
  );
  const weigh = hand === undefined ? byReach(reach) : byHand(hand);
  const [best, ...others] = caught.sort((a, b) => weigh(b) - weigh(a));
  if (!best) return undefined;
  const sigma = hand === undefined ? best.sigma : Math.hypot(best.sigma, rivalry(best, others, weigh));
  return { at: add(middle, scale(across, best.at)), normal: direction, sigma, kind: best.kind };
}

/** The steepest wins, unless a nearer one is nearly as steep. */
const byReach =
  (reach: number) =>
  ({ at, steepness }: Caught) =>
    steepness * Math.exp(-((at / reach) ** 2));
/** Hands are now and then farther off than they should be: for which edge they meant, by so much more. */
const SLIPS = 1.4;
/** The likelier one is meant: by how far the hand is from it, and by how much it stands out. */
const byHand =
  (hand: number) =>
  ({ at, steepness }: Caught) =>
    steepness ** 2 * Math.exp(-((at / (SLIPS * hand)) ** 2) / 2);

/** How likely it is beforehand that nothing was meant that stands out; of an edge just where the hand is. Assumed. */
const NOTHING = 0.001;
/** Two flanks of one line, px. */
const SAME = 0.4;

/** One sigma of what comes from not knowing which edge was meant, or whether any was. */
function rivalry(best: Caught, others: readonly Caught[], weigh: (caught: Caught) => number): number {
  const nothing = NOTHING * best.steepness ** 2;
  const rivals = others
    .filter(({ at }) => Math.abs(at - best.at) > SAME)
    .map((other) => ({ weight: weigh(other), away: other.at - best.at }));
  const all = [...rivals, { weight: nothing, away: best.at }];
  return Math.sqrt(
    all.reduce((sum, { weight, away }) => sum + weight * away * away, 0) /
      all.reduce((sum, { weight }) => sum + weight, weigh(best)),
  );
}

/**
 * What a step is with the one that takes its change back: flanks that are at least so much alike are a line, and count by its middle; the less alike, the less it is one. Else the
 * softer one is the rim of a thing's shadow, beside the thing's own edge.
 */
function paired(step: BrightnessStep, steps: readonly BrightnessStep[], seen: Seen, alike: number): Caught {
  const [other] = steps
    .filter((flank) => isOtherFlank(step, flank) && isOnOneGround(seen, step.at, flank.at))
    .sort((a, b) => Math.abs(a.at - step.at) - Math.abs(b.at - step.at));
  if (!other) return { ...step, kind: 'step' };
  const like = likeness(step, other);
  if (like < alike)
    return {
      ...step,
      steepness: step.steepness < other.steepness ? SHADOW * step.steepness : step.steepness,
      kind: 'step',
    };
  const unlike = ((1 - like) * Math.abs(step.at - other.at)) / 2;
  return {
    at: (step.at + other.at) / 2,
    sigma: Math.hypot(step.sigma / 2, other.sigma / 2, unlike),
    steepness: Math.max(step.steepness, other.steepness),
    kind: 'line',
  };
}

const likeness = (a: BrightnessStep, b: BrightnessStep) =>
  Math.min(a.steepness, b.steepness) / Math.max(a.steepness, b.steepness);

/** The nearer flank of a line on which the middle of the scan lies. */
function findFlankAround<S extends BrightnessStep>(steps: readonly S[], seen: Seen): S | undefined {
  const byNearness = [...steps].sort((a, b) => Math.abs(a.at) - Math.abs(b.at));
  const [first] = byNearness;
  return first &&
    steps.some((step) => step.at * first.at < 0 && isOtherFlank(first, step) && isOnOneGround(seen, first.at, step.at))
    ? first
    : undefined;
}

/** Flanks are as steep as each other, and change colour there and back again; the farther off one is, the more so. */
function isOtherFlank(best: BrightnessStep, step: BrightnessStep): boolean {
  const { at, towards } = step;
  const alike = towards.reduce((sum, value, c) => sum + value * best.towards[c]!, 0);
  const width = Math.abs(at - best.at);
  return width < LINE_WIDTH && likeness(best, step) > LIKE_FLANKS && alike < (width < SURELY_THIN ? -0.7 : -0.9);
}

/** Grounds that differ by less than this share of what stands out from them, beyond so many sigmas of a pixel's noise, are one: the dark wall of a thing lies between its face and the bench, which may be nearly alike. */
const ONE_GROUND = 0.07;
const GRAIN = 1.5;

/** Whether a line lies on one ground: to both sides of it the colour is alike. A wall, a bevel or a shadow between two things is no line. */
function isOnOneGround({ colours, noise }: Seen, a: number, b: number): boolean {
  const [left, right] = [Math.min(a, b), Math.max(a, b)];
  const between = (from: number, to: number) => colours.map((channel) => meanOf(channel, from, to));
  const [before, inside, after] = [
    between(left - 3.5, left - 1.5),
    between((left + right) / 2 - 0.25, (left + right) / 2 + 0.25),
    between(right + 1.5, right + 3.5),
  ];
  const apart = (p: readonly number[], q: readonly number[]) => Math.hypot(...p.map((value, c) => value - q[c]!));
  return apart(before, after) < ONE_GROUND * Math.min(apart(before, inside), apart(inside, after)) + GRAIN * noise;
}
