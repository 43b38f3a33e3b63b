import { listAdvice, sigmaOfReading, type Advice } from '@/core/calibrate';
import type { FittedView } from '@/core/derive';

/** How far from the rim of the picture somebody can be expected to measure, as a share of its sides. */
const MARGIN = 0.12;
const CLICK_SIGMA = 1;

const found = new WeakMap<FittedView['fit'], Advice | undefined>();

/** The measurement that would help most over the middle of the picture, worked out once for a fit; undefined when none helps enough. */
export function adviceFor({ fit, sheet }: FittedView): Advice | undefined {
  if (!found.has(fit)) found.set(fit, workedOut(fit, sheet));
  return found.get(fit);
}

function workedOut(fit: FittedView['fit'], { width, height }: FittedView['sheet']): Advice | undefined {
  const [left, right, top, bottom] = [MARGIN * width, (1 - MARGIN) * width, MARGIN * height, (1 - MARGIN) * height];
  const within = [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ] as const;
  return listAdvice(fit, { within, clickSigma: CLICK_SIGMA, sigmaOf: (mm) => sigmaOfReading(mm, false) }, 1)[0];
}
