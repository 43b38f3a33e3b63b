import { done, type Result } from '../basics';
import { adjustEvidence, unscaledAdjustment, type Adjustment, type Known } from './adjustment';
import { sightOf, type Axes, type Sight } from './sight';

/** What follows from the evidence of a view, in the axes in which it sees its plane. */
export type Fit = Adjustment & Sight;
export type FitInput = Known & Axes;

/** An adjustment as a view sees it: views that share their evidence look through the same one, each in its own axes. */
export const seenIn = (adjustment: Adjustment, axes: Axes): Fit => ({ ...adjustment, ...sightOf(adjustment, axes) });

/** Fits a view to all that is known about it; refused as `adjustEvidence` is. */
export function fitView(input: FitInput): Result<Fit> {
  const adjusted = adjustEvidence(input);
  return adjusted.ok ? done(seenIn(adjusted.value, input)) : adjusted;
}

/** A view without any scale: pixels, y up, on the datum. */
export const unscaledFit = (input: Pick<FitInput, 'picture' | 'datum'> & Partial<FitInput>): Fit =>
  seenIn(unscaledAdjustment(input), input);
