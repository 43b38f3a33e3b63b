/** A point or a displacement in a plane. The unit and the frame are the caller's: mm with y up, or sheet pixels with y down. */
export type Vec = readonly [x: number, y: number];

export const add = (a: Vec, b: Vec): Vec => [a[0] + b[0], a[1] + b[1]];
export const subtract = (a: Vec, b: Vec): Vec => [a[0] - b[0], a[1] - b[1]];
export const scale = (a: Vec, factor: number): Vec => [a[0] * factor, a[1] * factor];
export const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1];
/** The z of the cross product: positive when b lies counter-clockwise of a (y up). */
export const cross = (a: Vec, b: Vec): number => a[0] * b[1] - a[1] * b[0];
export const norm = (a: Vec): number => Math.hypot(a[0], a[1]);
export const distance = (a: Vec, b: Vec): number => Math.hypot(a[0] - b[0], a[1] - b[1]);
export const mix = (a: Vec, b: Vec, t: number): Vec => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
/** Turned a quarter counter-clockwise (y up). */
export const perpendicular = (a: Vec): Vec => [-a[1], a[0]];
export const polar = (length: number, angle: number): Vec => [length * Math.cos(angle), length * Math.sin(angle)];
export const angleOf = (a: Vec): number => Math.atan2(a[1], a[0]);

/** The same direction with length 1; undefined for a displacement of length zero. */
export function findDirection(a: Vec): Vec | undefined {
  const length = norm(a);
  return length > 0 ? scale(a, 1 / length) : undefined;
}

/** The same angle in [0, 2π). */
export function positiveAngle(angle: number): number {
  const turn = 2 * Math.PI;
  const rest = angle % turn;
  return rest < 0 ? rest + turn : rest;
}

/** The direction of a line, which has no front: −π/2 to π/2. */
export const lineAngle = (angle: number): number => Math.atan2(Math.sin(2 * angle), Math.cos(2 * angle)) / 2;

/** The same angle in (−π, π]. */
export function signedAngle(angle: number): number {
  const positive = positiveAngle(angle);
  return positive > Math.PI ? positive - 2 * Math.PI : positive;
}
