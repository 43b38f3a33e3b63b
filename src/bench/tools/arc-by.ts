import {
  add,
  angleOf,
  distance,
  findArcThrough,
  mix,
  perpendicular,
  scale,
  signedAngle,
  subtract,
  type Arc,
  type Vec,
} from '@/core/geometry';

/** The arc of a radius between two places, the shorter one; undefined where they are farther apart than its diameter. */
export function arcOfRadius(a: Vec, b: Vec, radius: number | undefined): Arc | undefined {
  const half = distance(a, b) / 2;
  if (radius === undefined || half === 0 || half > Math.abs(radius)) return undefined;
  const rise = Math.sqrt(radius * radius - half * half);
  const aside = scale(perpendicular(subtract(b, a)), (Math.sign(radius) * (Math.abs(radius) - rise)) / (2 * half));
  return findArcThrough(a, add(mix(a, b, 0.5), aside), b);
}

/** The arc about a centre from a place to the direction of another, the shorter way. */
export function arcAbout(centre: Vec, from: Vec, towards: Vec): Arc | undefined {
  const radius = distance(centre, from);
  const start = angleOf(subtract(from, centre));
  const sweep = signedAngle(angleOf(subtract(towards, centre)) - start);
  return radius > 0 && sweep !== 0 ? { kind: 'arc', centre, radius, start, sweep } : undefined;
}
