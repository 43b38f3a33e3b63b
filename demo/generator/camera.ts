import type { Point } from './profile';

/**
 * A camera over a bench, richer than any that a fit assumes: off-centre, with radial and slightly tangential lens errors.
 * World in mm: x right, y away, z up. Picture in pixels, y down, the first pixel's outer corner at (0, 0).
 */
export interface Camera {
  readonly width: number;
  readonly height: number;
  readonly focal35mm: number;
  /** Where it stands, mm; it looks straight down before it is turned. */
  readonly place: readonly [number, number, number];
  /** Turns about the picture's x, its y, and the line of sight. Degrees. */
  readonly tilt: readonly [number, number, number];
  /** k1, k2 radial and p1, p2 tangential, over half the diagonal; then the shift of the middle in pixels. */
  readonly lens: {
    readonly k1: number;
    readonly k2: number;
    readonly p1: number;
    readonly p2: number;
    readonly shift: Point;
  };
}

export interface Ray {
  /** Where it meets the height z: writes x and y into `out`. */
  meet(z: number, out: [number, number]): void;
}

export interface Optics {
  /** World to pixel. */
  project(x: number, y: number, z: number): Point;
  /** The ray of a pixel. It is the camera's own and is taken anew by the next call: a picture follows ten million of them, one after the other. */
  ray(px: number, py: number): Ray;
}

const radians = (degrees: number) => (degrees * Math.PI) / 180;

/** Rows: the picture's right, the picture's down, the line of sight, in world coordinates. */
function rotation(tilt: Camera['tilt']): number[][] {
  const [a, b, c] = tilt.map(radians) as [number, number, number];
  let rows = [
    [1, 0, 0],
    [0, -1, 0],
    [0, 0, -1],
  ];
  const turn = (i: number, k: number, angle: number) => {
    const [u, v] = [rows[i]!, rows[k]!];
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    rows = rows.map((row, n) =>
      n === i
        ? row.map((_, m) => cos * u[m]! + sin * v[m]!)
        : n === k
          ? row.map((_, m) => cos * v[m]! - sin * u[m]!)
          : row,
    );
  };
  turn(1, 2, a);
  turn(0, 2, b);
  turn(0, 1, c);
  return rows;
}

export function optics(camera: Camera): Optics {
  const half = Math.hypot(camera.width, camera.height) / 2;
  const focal = (camera.focal35mm / Math.hypot(36, 24)) * 2 * half;
  const [right, down, ahead] = rotation(camera.tilt) as [number[], number[], number[]];
  const [ox, oy, oz] = camera.place;
  const { k1, k2, p1, p2, shift } = camera.lens;
  const [cx, cy] = [camera.width / 2 + shift[0], camera.height / 2 + shift[1]];
  const bend = (x: number, y: number): Point => {
    const r2 = x * x + y * y;
    const radial = 1 + k1 * r2 + k2 * r2 * r2;
    return [x * radial + 2 * p1 * x * y + p2 * (r2 + 2 * x * x), y * radial + p1 * (r2 + 2 * y * y) + 2 * p2 * x * y];
  };
  let [rx, ry, rz] = [0, 0, 0];
  const ray: Ray = {
    meet(z, out) {
      const t = (z - oz) / rz;
      out[0] = ox + rx * t;
      out[1] = oy + ry * t;
    },
  };
  return {
    project(x, y, z) {
      const d = [x - ox, y - oy, z - oz];
      const along = (row: number[]) => row[0]! * d[0]! + row[1]! * d[1]! + row[2]! * d[2]!;
      const depth = along(ahead);
      const [u, v] = bend(((along(right) / depth) * focal) / half, ((along(down) / depth) * focal) / half);
      return [cx + u * half, cy + v * half];
    },
    // Written without arrays, which took half of a picture's time.
    ray(px, py) {
      const tu = (px - cx) / half;
      const tv = (py - cy) / half;
      let u = tu;
      let v = tv;
      for (let i = 0; i < 4; i++) {
        const r2 = u * u + v * v;
        const radial = 1 + k1 * r2 + k2 * r2 * r2;
        const bu = u * radial + 2 * p1 * u * v + p2 * (r2 + 2 * u * u);
        const bv = v * radial + p1 * (r2 + 2 * v * v) + 2 * p2 * u * v;
        u += tu - bu;
        v += tv - bv;
      }
      const x = (u * half) / focal;
      const y = (v * half) / focal;
      rx = right[0]! * x + down[0]! * y + ahead[0]!;
      ry = right[1]! * x + down[1]! * y + ahead[1]!;
      rz = right[2]! * x + down[2]! * y + ahead[2]!;
      return ray;
    },
  };
}
