import { useMemo } from 'react';
import type { EvidenceState, SaidSizes } from '@/bench/tools';
import type { Measured } from '@/core/adjust';
import { measuredLength } from '@/core/calibrate';
import { ratioFor, type FittedView } from '@/core/derive';
import { findUnitSlip, formatLength, formatRatio, type Units } from '@/core/units';

/** What the rest of the evidence makes of a length that is being pointed at. */
export function useRest(fitted: FittedView | undefined, { kind, points }: EvidenceState): Measured | undefined {
  return useMemo(() => {
    const [a, b] = points;
    return kind === 'length' && fitted?.fit.scaled && a && b
      ? measuredLength(fitted.fit, { ...a, height: 0 }, { ...b, height: 0 })
      : undefined;
  }, [fitted, kind, points]);
}

/** A length that is off against the rest by what a wrong unit would make of it is asked about before it is used. */
export function findSizeQuestion(
  comesTo: Measured | undefined,
  said: SaidSizes | undefined,
  units: Units,
  fitted: FittedView | undefined,
): string | undefined {
  const typed = said?.sizes.length?.value;
  if (!comesTo || !typed) return undefined;
  const slip = findUnitSlip(typed, comesTo.value);
  const ratio = fitted && ratioFor(typed, comesTo.value, fitted);
  const has = formatLength(comesTo.value, units, comesTo.sigma);
  if (ratio)
    return `The sheet itself has ${has} here. Set it, if it is drawn at ${formatRatio(ratio)}.${slip ? ` Or did you mean ${slip.says}?` : ''}`;
  return slip && `By the rest this is ${has}. Did you mean ${slip.says}?`;
}
