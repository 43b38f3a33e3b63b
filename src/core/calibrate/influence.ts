import type { Fit } from './fit';
import type { Observation } from './evidence';

/** Unknowns that a piece of a kind brings for itself: what its conditions spend on those they do not spend on the map. */
const OWN_UNKNOWNS: Partial<Record<Observation['kind'], number>> = { circle: 3, rectangle: 5, straight: 2 };

/** How much of what the evidence tells about the map comes from this piece: 0 to 1; undefined for a piece that is not in the fit. */
export function influenceOf(fit: Fit, evidence: readonly Observation[], id: string): number | undefined {
  const spent = evidence.flatMap((piece) => {
    const group = fit.diagnosis?.groups.find((other) => other.group === piece.id);
    return group && !piece.check
      ? [{ id: piece.id, leverage: Math.max(0, group.leverage - (OWN_UNKNOWNS[piece.kind] ?? 0)) }]
      : [];
  });
  const mine = spent.find((other) => other.id === id);
  const whole = spent.reduce((sum, { leverage }) => sum + leverage, 0);
  return mine && whole > 0 ? mine.leverage / whole : undefined;
}
