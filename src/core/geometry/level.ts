import type { Vec } from './vec';

/** A sheet (y down) as it is seen with one of its directions level, and back. About zero; px. */
export interface Level {
  toSeen(sheet: Vec): Vec;
  toSheet(seen: Vec): Vec;
}

/** Turns a sheet so that `direction` (radians, clockwise on the sheet) is level; `mirrored` shows it from behind. */
export function levelled(direction: number, mirrored = false): Level {
  const [c, s, hand] = [Math.cos(direction), Math.sin(direction), mirrored ? -1 : 1];
  return {
    toSeen: ([x, y]) => [c * x + s * y, hand * (c * y - s * x)],
    toSheet: ([x, y]) => [c * x - s * hand * y, s * x + c * hand * y],
  };
}

export interface Box {
  readonly min: Vec;
  readonly max: Vec;
}

/** The upright box around places. */
export function boxAround(places: readonly Vec[]): Box {
  const [xs, ys] = [places.map(([x]) => x), places.map(([, y]) => y)];
  return { min: [Math.min(...xs), Math.min(...ys)], max: [Math.max(...xs), Math.max(...ys)] };
}
