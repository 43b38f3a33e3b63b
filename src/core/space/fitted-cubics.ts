import { pointInSpace, velocityInSpace, type SpaceCubic } from './piece';
import { add3, distance3, dot3, scale3, subtract3, type Vec3 } from './vec3';

/** A smooth curve in space by a parameter, and which way it runs (any length but none). */
export interface SmoothCurve {
  at(t: number): Vec3;
  towards(t: number): Vec3;
}

const SAMPLES = 16;
const MOST_HALVINGS = 12;
const ROUNDS = 4;

/**
 * A smooth curve from one parameter to another as cubics that keep its ends and directions, none of which lies farther off than `tolerance` (mm), as seen at many places of it. Handles by least squares over chord
 * lengths, places by Newton's method, halved where that is not good enough (Schneider, An algorithm for automatically fitting digitized curves, Graphics Gems, 1990). After twelve halvings it is left as it is.
 */
export function fittedCubics(curve: SmoothCurve, from: number, to: number, tolerance: number, depth = 0): SpaceCubic[] {
  const places = Array.from({ length: SAMPLES + 1 }, (_, i) => curve.at(from + ((to - from) * i) / SAMPLES));
  const cubic = fitted(places, unit(curve.towards(from)), unit(curve.towards(to)));
  if (cubic.off <= tolerance || depth >= MOST_HALVINGS) return [cubic.piece];
  const middle = (from + to) / 2;
  return [
    ...fittedCubics(curve, from, middle, tolerance, depth + 1),
    ...fittedCubics(curve, middle, to, tolerance, depth + 1),
  ];
}

const unit = (a: Vec3): Vec3 => scale3(a, 1 / (Math.hypot(...a) || 1));

interface Fitted {
  readonly piece: SpaceCubic;
  /** How far the place that is farthest off lies from it. mm. */
  readonly off: number;
}

function fitted(places: readonly Vec3[], out: Vec3, into: Vec3): Fitted {
  let at = chordLengths(places);
  let piece = withHandles(places, at, out, into);
  for (let round = 0; round < ROUNDS; round++) {
    at = places.map((place, i) => nearer(piece, place, at[i]!));
    piece = withHandles(places, at, out, into);
  }
  const off = Math.max(
    ...places.map((place, i) => distance3(pointInSpace(piece, nearer(piece, place, at[i]!)), place)),
  );
  return { piece, off };
}

function chordLengths(places: readonly Vec3[]): number[] {
  const along = places.reduce<number[]>(
    (sums, place, i) => [...sums, i === 0 ? 0 : sums[i - 1]! + distance3(places[i - 1]!, place)],
    [],
  );
  return along.map((length) => length / (along.at(-1)! || 1));
}

/** Handles along the directions at the ends, as long as leads nearest by the places: two equations for two lengths; a third of the chord where they lead nowhere. */
function withHandles(places: readonly Vec3[], at: readonly number[], out: Vec3, into: Vec3): SpaceCubic {
  const [a, d] = [places[0]!, places.at(-1)!];
  let [aa, ab, bb, ra, rb] = [0, 0, 0, 0, 0];
  places.forEach((place, i) => {
    const [t, s] = [at[i]!, 1 - at[i]!];
    const [p, q] = [scale3(out, 3 * s * s * t), scale3(into, -3 * s * t * t)];
    const rest = subtract3(place, add3(scale3(a, s * s * (s + 3 * t)), scale3(d, t * t * (t + 3 * s))));
    [aa, ab, bb] = [aa + dot3(p, p), ab + dot3(p, q), bb + dot3(q, q)];
    [ra, rb] = [ra + dot3(p, rest), rb + dot3(q, rest)];
  });
  const whole = aa * bb - ab * ab;
  const [alpha, beta] = [(ra * bb - rb * ab) / whole, (aa * rb - ab * ra) / whole];
  const third = distance3(a, d) / 3;
  const isSound = alpha > 1e-3 * third && beta > 1e-3 * third;
  const [first, last] = isSound ? [alpha, beta] : [third, third];
  return { kind: 'cubic', a, b: add3(a, scale3(out, first)), c: subtract3(d, scale3(into, last)), d };
}

/** One step of Newton's method towards the foot of a place. */
function nearer(piece: SpaceCubic, place: Vec3, t: number): number {
  const velocity = velocityInSpace(piece, t);
  const step = dot3(subtract3(place, pointInSpace(piece, t)), velocity) / (dot3(velocity, velocity) || 1);
  return Math.min(1, Math.max(0, t + step));
}
