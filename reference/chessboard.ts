/** Finds the inner corners of a photographed chessboard, for checking against published photographs. */
import { readFileSync } from 'node:fs';
import jpeg from 'jpeg-js';
import { distance, type Vec } from '../src/core/geometry';
import { brightnessAt, findSaddle, grayFrom, type GrayPicture } from '../src/core/raster';

/** Debian's package opencv-doc. */
export const PHOTOGRAPHS = '/usr/share/doc/opencv-doc/examples/data';

export function readGray(file: string): GrayPicture {
  const { width, height, data } = jpeg.decode(readFileSync(file), { useTArray: true, formatAsRGBA: true });
  return grayFrom(width, height, data);
}

/** Inner corners by column (0 to 8) and row (0 to 5); undefined when the whole board was not found. */
export function findBoard(picture: GrayPicture, columns = 9, rows = 6): Vec[][] | undefined {
  const corners = listSaddles(picture);
  const middle = middleOf(corners);
  for (const seed of [...corners].sort((a, b) => distance(a, middle) - distance(b, middle))) {
    const lattice = growFrom(seed, corners);
    const boards =
      lattice.size < columns * rows
        ? []
        : [false, true].flatMap((turned) => listBlocks(lattice, columns, rows, turned));
    const best = boards.sort((a, b) => unevenness(a) - unevenness(b))[0];
    if (best) return best;
  }
  return undefined;
}

/** Every whole block of columns × rows in a lattice, also with its axes the other way round. */
function listBlocks(lattice: ReadonlyMap<string, Vec>, columns: number, rows: number, turned: boolean): Vec[][][] {
  return [...lattice.keys()].flatMap((key) => {
    const [left, top] = key.split(',').map(Number) as [number, number];
    const block = Array.from({ length: columns }, (_, c) =>
      Array.from({ length: rows }, (__, r) =>
        lattice.get(turned ? `${left + r},${top + c}` : `${left + c},${top + r}`),
      ),
    );
    return block.every((column) => column.every((corner) => corner !== undefined)) ? [block as Vec[][]] : [];
  });
}

/** How unevenly a block steps along its columns and rows: the largest second difference over the step. */
function unevenness(block: readonly (readonly Vec[])[]): number {
  const bends = (line: readonly Vec[]) =>
    line
      .slice(2)
      .map(
        (c, k) =>
          Math.hypot(c[0] - 2 * line[k + 1]![0] + line[k]![0], c[1] - 2 * line[k + 1]![1] + line[k]![1]) /
          distance(c, line[k]!),
      );
  return Math.max(...block.flatMap(bends), ...block[0]!.flatMap((_, r) => bends(block.map((column) => column[r]!))));
}

const middleOf = (points: readonly Vec[]): Vec =>
  [0, 1].map((k) => points.reduce((sum, p) => sum + p[k]!, 0) / points.length) as unknown as Vec;

/** Places whose brightness bends up one way and down the other, strongest of their neighbourhood. */
function listSaddles(picture: GrayPicture): Vec[] {
  const { width, height } = picture;
  const soft = blurred(blurred(picture));
  const at = (x: number, y: number) => soft[y * width + x]!;
  const strength = new Float32Array(width * height);
  for (let y = 4; y < height - 4; y++) {
    for (let x = 4; x < width - 4; x++) {
      const [xx, yy] = [at(x - 2, y) - 2 * at(x, y) + at(x + 2, y), at(x, y - 2) - 2 * at(x, y) + at(x, y + 2)];
      const xy = (at(x + 2, y + 2) - at(x - 2, y + 2) - at(x + 2, y - 2) + at(x - 2, y - 2)) / 4;
      strength[y * width + x] = xy * xy - xx * yy;
    }
  }
  const most = strength.reduce((best, value) => Math.max(best, value), 0);
  const found: Vec[] = [];
  for (let y = 6; y < height - 6; y++) {
    for (let x = 6; x < width - 6; x++) {
      const here = strength[y * width + x]!;
      if (here < 0.04 * most || !isPeak(strength, width, x, y)) continue;
      const corner = findSaddle(picture, [x + 0.5, y + 0.5], 5);
      if (corner && isWhereFourMeet(picture, corner) && found.every((other) => distance(other, corner) > 4))
        found.push(corner);
    }
  }
  return found;
}

/** Light, dark, light, dark round about, alike on opposite sides. */
function isWhereFourMeet(picture: GrayPicture, corner: Vec): boolean {
  const ring = Array.from({ length: 32 }, (_, k) =>
    brightnessAt(picture, [corner[0] + 6 * Math.cos((k * Math.PI) / 16), corner[1] + 6 * Math.sin((k * Math.PI) / 16)]),
  );
  const [dark, light] = [Math.min(...ring), Math.max(...ring)];
  const signs = ring.map((value) => value > (dark + light) / 2);
  const changes = signs.filter((sign, k) => sign !== signs[(k + 1) % 32]).length;
  const alike = signs.filter((sign, k) => sign === signs[(k + 16) % 32]).length;
  return light - dark > 45 && changes === 4 && alike >= 24;
}

function isPeak(strength: Float32Array, width: number, x: number, y: number): boolean {
  for (let dy = -4; dy <= 4; dy++)
    for (let dx = -4; dx <= 4; dx++) if (strength[(y + dy) * width + x + dx]! > strength[y * width + x]!) return false;
  return true;
}

function blurred({ width, height, data }: GrayPicture): Float32Array & GrayPicture {
  const soft = new Float32Array(width * height);
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      let sum = 0;
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++)
          sum += data[(y + dy) * width + x + dx]! * (2 - Math.abs(dx)) * (2 - Math.abs(dy));
      soft[y * width + x] = sum / 16;
    }
  }
  return Object.assign(soft, { width, height, data: soft });
}

/** A lattice of corners from one of them: each step is predicted from the last one that way and has to be met within a third of it. */
function growFrom(seed: Vec, corners: readonly Vec[]): Map<string, Vec> {
  const near = corners
    .filter((other) => other !== seed)
    .sort((a, b) => distance(a, seed) - distance(b, seed))
    .slice(0, 8);
  const first = near[0]!;
  const across: Vec = [first[0] - seed[0], first[1] - seed[1]];
  const second = near.find(
    (other) =>
      Math.abs(across[0] * (other[0] - seed[0]) + across[1] * (other[1] - seed[1])) <
      0.45 * Math.hypot(...across) * distance(other, seed),
  );
  const lattice = new Map<string, Vec>([['0,0', seed]]);
  if (!second) return lattice;
  const steps = new Map<string, readonly [Vec, Vec]>([['0,0', [across, [second[0] - seed[0], second[1] - seed[1]]]]]);
  const queue: (readonly [number, number])[] = [[0, 0]];
  for (let cell = queue.shift(); cell; cell = queue.shift()) {
    const [i, j] = cell;
    const [here, known] = [lattice.get(`${i},${j}`)!, steps.get(`${i},${j}`)!];
    for (const [di, dj] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ] as const) {
      const key = `${i + di},${j + dj}`;
      if (lattice.has(key)) continue;
      const [axis, sign] = di !== 0 ? ([0, di] as const) : ([1, dj] as const);
      const step = known[axis];
      const wanted: Vec = [here[0] + sign * step[0], here[1] + sign * step[1]];
      const met = corners.find((other) => distance(other, wanted) < 0.33 * Math.hypot(...step));
      if (!met || [...lattice.values()].includes(met)) continue;
      lattice.set(key, met);
      const walked: Vec = [sign * (met[0] - here[0]), sign * (met[1] - here[1])];
      steps.set(key, axis === 0 ? [walked, known[1]] : [known[0], walked]);
      queue.push([i + di, j + dj]);
    }
  }
  return lattice;
}
