/** Deterministic noise: the same scene gives the same picture on every machine. */
export function hash(x: number, y: number, seed: number): number {
  let h = (x | 0) * 374761393 + (y | 0) * 668265263 + seed * 1274126177;
  h = Math.imul(h ^ (h >>> 13), 1274126177);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

/** Smooth noise in [0, 1] with features of size 1. */
export function smooth(x: number, y: number, seed: number): number {
  const [i, k] = [Math.floor(x), Math.floor(y)];
  const [a, b] = [x - i, y - k];
  const [u, v] = [a * a * (3 - 2 * a), b * b * (3 - 2 * b)];
  const low = hash(i, k, seed) * (1 - u) + hash(i + 1, k, seed) * u;
  const high = hash(i, k + 1, seed) * (1 - u) + hash(i + 1, k + 1, seed) * u;
  return low * (1 - v) + high * v;
}

/** A normal deviate from a running state (Box-Muller over a linear congruential generator; for film grain only). */
export function createGrain(seed: number): () => number {
  let state = seed >>> 0;
  const next = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296;
  return () => Math.sqrt(-2 * Math.log(next() + 1e-12)) * Math.cos(2 * Math.PI * next());
}
