import { toPolygon, type Point, type Profile } from './profile';

/** Signed distance to an outline with holes, mm, negative inside the material, sampled on a grid and interpolated. */
export interface DistanceField {
  readonly min: Point;
  readonly max: Point;
  at(x: number, y: number): number;
}

const CELL = 0.2;
const MARGIN = 12;
/** A little more than one: what is left out by squares is not nearer by its root. */
const NEARLY = 1 + 1e-9;

export function distanceField(outer: Profile, holes: readonly Profile[]): DistanceField {
  const rings = [outer, ...holes].map((profile) => toPolygon(profile));
  const xs = rings[0]!.map((p) => p[0]);
  const ys = rings[0]!.map((p) => p[1]);
  const min: Point = [Math.min(...xs) - MARGIN, Math.min(...ys) - MARGIN];
  const max: Point = [Math.max(...xs) + MARGIN, Math.max(...ys) + MARGIN];
  const [columns, rows] = [Math.ceil((max[0] - min[0]) / CELL) + 2, Math.ceil((max[1] - min[1]) / CELL) + 2];
  const values = sampleDistances(rings, min, columns, rows);
  const at = (x: number, y: number): number => {
    const u = (x - min[0]) / CELL;
    const v = (y - min[1]) / CELL;
    const i = Math.floor(u);
    const k = Math.floor(v);
    if (i < 0 || k < 0 || i >= columns - 1 || k >= rows - 1) return MARGIN;
    const a = u - i;
    const b = v - k;
    const cell = k * columns + i;
    return (
      (values[cell]! * (1 - a) + values[cell + 1]! * a) * (1 - b) +
      (values[cell + columns]! * (1 - a) + values[cell + columns + 1]! * a) * b
    );
  };
  return { min, max, at };
}

/** Every short chord writes its true distance to the cells near it; a scan line settles inside and outside. */
function sampleDistances(rings: readonly Point[][], min: Point, columns: number, rows: number): Float32Array {
  const values = new Float32Array(columns * rows).fill(MARGIN);
  const reach = Math.ceil(MARGIN / CELL);
  for (const ring of rings) {
    ring.forEach((a, n) => {
      if (n % 4 && ring.length > 400) return;
      const b = ring[(n + (ring.length > 400 ? 4 : 1)) % ring.length]!;
      const [low, high] = [
        [Math.min(a[0], b[0]), Math.min(a[1], b[1])],
        [Math.max(a[0], b[0]), Math.max(a[1], b[1])],
      ] as const;
      const range = (lo: number, hi: number, from: number, count: number) =>
        [
          Math.max(0, Math.floor((lo - from) / CELL) - reach),
          Math.min(count - 1, Math.ceil((hi - from) / CELL) + reach),
        ] as const;
      const [x0, x1] = range(low[0], high[0], min[0], columns);
      const [y0, y1] = range(low[1], high[1], min[1], rows);
      const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
      const square = dx * dx + dy * dy || 1;
      for (let k = y0; k <= y1; k++) {
        for (let i = x0; i <= x1; i++) {
          const [px, py] = [min[0] + i * CELL - a[0], min[1] + k * CELL - a[1]];
          const t = Math.min(1, Math.max(0, (px * dx + py * dy) / square));
          const [qx, qy] = [px - t * dx, py - t * dy];
          const cell = k * columns + i;
          const least = values[cell]!;
          // The root is what takes long, and is needed by few.
          if (qx * qx + qy * qy > NEARLY * least * least) continue;
          const d = Math.hypot(qx, qy);
          if (d < least) values[cell] = d;
        }
      }
    });
  }
  for (let k = 0; k < rows; k++) markInside(values, rings, min, columns, k);
  return values;
}

function markInside(values: Float32Array, rings: readonly Point[][], min: Point, columns: number, row: number): void {
  const y = min[1] + row * CELL;
  const cuts: number[] = [];
  for (const ring of rings) {
    ring.forEach((a, n) => {
      const b = ring[(n + 1) % ring.length]!;
      if (a[1] > y !== b[1] > y) cuts.push(a[0] + ((y - a[1]) / (b[1] - a[1])) * (b[0] - a[0]));
    });
  }
  cuts.sort((a, b) => a - b);
  for (let c = 0; c + 1 < cuts.length; c += 2) {
    const from = Math.max(0, Math.ceil((cuts[c]! - min[0]) / CELL));
    const to = Math.min(columns - 1, Math.floor((cuts[c + 1]! - min[0]) / CELL));
    for (let i = from; i <= to; i++) values[row * columns + i] = -values[row * columns + i]!;
  }
}
