import { distance, type Arc, type Piece, type Vec } from '../geometry';

/** For tests only: a ring of lines, arcs and curves about zero, about 100 across, as a seeded generator draws it. `flattest` is the power of ten of the least bow of an arc against its chord. */
export function drawRing(uniform: () => number, flattest = -6): readonly Piece[] {
  const count = 3 + Math.floor(uniform() * 6);
  const corners = Array.from({ length: count }, (_, k): Vec => {
    const [turn, reach] = [((k + 0.7 * uniform()) / count) * 2 * Math.PI, 20 + 40 * uniform()];
    return [reach * Math.cos(turn), reach * Math.sin(turn)];
  });
  return corners.map((a, k) => {
    const b = corners[(k + 1) % count]!;
    const [kind, chord] = [uniform(), distance(a, b)];
    if (kind < 0.35) return { kind: 'line', a, b };
    if (kind < 0.8)
      return bowedArc(a, b, (uniform() < 0.5 ? -1 : 1) * chord * 10 ** (flattest + (-0.7 - flattest) * uniform()));
    const aside = (share: number): Vec => [
      a[0] + (b[0] - a[0]) * share + (uniform() - 0.5) * 0.4 * chord,
      a[1] + (b[1] - a[1]) * share + (uniform() - 0.5) * 0.4 * chord,
    ];
    return { kind: 'cubic', a, b: aside(1 / 3), c: aside(2 / 3), d: b };
  });
}

/** The arc over a chord that leaves it by `bow` half-way, to the right where that is above nothing. */
export function bowedArc(a: Vec, b: Vec, bow: number): Arc {
  const chord = distance(a, b);
  const height = Math.abs(bow);
  const radius = (chord ** 2 / 4 + height ** 2) / (2 * height);
  const along: Vec = [(b[0] - a[0]) / chord, (b[1] - a[1]) / chord];
  const toCentre = Math.sign(bow) * (radius - height);
  const centre: Vec = [(a[0] + b[0]) / 2 - along[1] * toCentre, (a[1] + b[1]) / 2 + along[0] * toCentre];
  return {
    kind: 'arc',
    centre,
    radius,
    start: Math.atan2(a[1] - centre[1], a[0] - centre[0]),
    sweep: Math.sign(bow) * 2 * Math.asin(Math.min(1, chord / 2 / radius)),
  };
}
