import { add, scale, type Vec } from '../geometry';
import type { ColourPicture } from './colour-picture';
import type { FoundEdge } from './edge';
import { noiseOf, profileAlong, type Profile } from './profile';
import { listSteps, meanOf, type BrightnessStep } from './step';

/** An edge across a scan, and how soft it is: the sigma of its blur, px. */
export interface FirstEdge extends FoundEdge {
  readonly blur: number;
}

/** Less smoothing than elsewhere: the narrower a band of shadow beside a rim is, the more smoothing draws the two apart. Px. */
const SMOOTHING = 0.6;
/** What is this much as steep as the steepest stands out as it does. */
const STANDS_OUT = 0.25;
/** How far a step draws what lies beside it away from itself, px for each time that what else changes there comes to as much as the step. */
const DRAWN = 0.5;

/**
 * The edge that a straight scan meets first, of all that stand out: from within a thing its rim and not that of its shadow, from the face about a hole its rim and not the foot of its wall, which may stand out
 * more. Undefined where no step does. What else changes within a few pixels widens its sigma. Weak: a frame that is printed a few pixels within a rim, a bevel beside a hole.
 */
export function findFirstAcross(
  picture: ColourPicture,
  middle: Vec,
  direction: number,
  { reach, beside }: { readonly reach: number; readonly beside: number },
): FirstEdge | undefined {
  const across: Vec = [Math.cos(direction), Math.sin(direction)];
  const profile = profileAlong(picture, middle, across, reach + 4, beside);
  const rows = 2 * beside + 1;
  const noise = noiseOf(profile);
  const steps = listSteps(profile, { reach, rows, noise, smoothing: SMOOTHING, closely: true });
  const steepest = Math.max(...steps.map(({ steepness }) => steepness));
  const rim = steps
    .filter(({ steepness }) => steepness > STANDS_OUT * steepest)
    .reduce<BrightnessStep | undefined>((first, step) => (first && first.at < step.at ? first : step), undefined);
  return (
    rim && {
      at: add(middle, scale(across, rim.at)),
      normal: direction,
      sigma: Math.hypot(rim.sigma, DRAWN * unrestAbout(profile, rim, noise / Math.sqrt(rows))),
      blur: rim.blur,
      kind: 'step',
    }
  );
}

/** How far about a rim it is looked what else changes, px. */
const AROUND = 3;

/** How much else changes about a step, as a share of itself and all of it at the most: the way of the colours from pixel to pixel is longer than the step, beyond what noise does. */
function unrestAbout(profile: Profile, { at, contrast }: BrightnessStep, noise: number): number {
  const places = Array.from({ length: 2 * AROUND + 1 }, (_, i) =>
    profile.colours.map((channel) => meanOf(channel, at + i - AROUND - 0.5, at + i - AROUND + 0.5)),
  );
  const way = places.slice(1).reduce((sum, colour, i) => {
    const square = colour.reduce((all, value, c) => all + (value - places[i]![c]!) ** 2, 0);
    return sum + Math.sqrt(Math.max(0, square - (2 * noise) ** 2));
  }, 0);
  return Math.min(1, Math.max(0, way / contrast - 1));
}
