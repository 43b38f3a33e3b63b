import { useMemo } from 'react';
import type { EvidenceState, SaidSizes } from '@/bench/tools';
import { measuredLength } from '@/core/calibrate';
import type { FittedView } from '@/core/derive';
import { findUnitSlip , formatLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';

/** A length that is off against the rest by what a wrong unit would make of it is asked about before it is used. */
export function useSizeQuestion(fitted: FittedView | undefined, { kind, points }: EvidenceState, said: SaidSizes | undefined): string | undefined {
  const units = useUnits();
  return useMemo(() => {
    const typed = said?.sizes.length?.value;
    const [a, b] = points;
    if (kind !== 'length' || !fitted?.fit.scaled || !typed || !a || !b) return undefined;
    const comesTo = measuredLength(fitted.fit, { ...a, height: 0 }, { ...b, height: 0 });
    const slip = findUnitSlip(typed, comesTo.value);
    return slip && `By the rest this is ${formatLength(comesTo.value, units, comesTo.sigma)}. Did you mean ${slip.says}?`;
  }, [fitted, kind, points, said, units]);
}
