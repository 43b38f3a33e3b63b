import { useMemo } from 'react';
import { listAdvice, sigmaOfReading, type Advice } from '@/core/calibrate';
import type { FittedView } from '@/core/derive';

/** How far from the rim of the picture somebody can be expected to measure, as a share of its sides. */
const MARGIN = 0.12;
const CLICK_SIGMA = 1;

/** The measurement that would help most over the middle of the picture; undefined when none helps enough. */
export function useAdvice({ fit, sheet }: FittedView): Advice | undefined {
  return useMemo(() => {
    const [left, right, top, bottom] = [
      MARGIN * sheet.width,
      (1 - MARGIN) * sheet.width,
      MARGIN * sheet.height,
      (1 - MARGIN) * sheet.height,
    ];
    const within = [
      [left, top],
      [right, top],
      [right, bottom],
      [left, bottom],
    ] as const;
    return listAdvice(fit, { within, clickSigma: CLICK_SIGMA, sigmaOf: (mm) => sigmaOfReading(mm, false) }, 1)[0];
  }, [fit, sheet]);
}
