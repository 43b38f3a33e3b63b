import type { Vec } from '../geometry';
import { applyHomography, type Homography } from './homography';
import { straightened } from './lens';
import { indexOf, type MapModel } from './models';
import type { SheetMap } from './sheet-map';

/** A map with how it changes with each of its numbers. */
export interface MapSlopes {
  readonly map: SheetMap;
  /** Change of the forward map's nine entries with each number; zero for the lens, which acts before it. */
  readonly byNumber: readonly Homography[];
  /** Where the lens begins among the numbers, and how many it has. */
  readonly lens: { readonly first: number; readonly count: number };
}

/** A place on the plane and its slopes: by each number of the map, then by the sheet's x and y. */
export interface SlopedPlace {
  readonly place: Vec;
  readonly x: readonly number[];
  readonly y: readonly number[];
}

/** Central differences of the nine entries only, by each number: points then follow in closed form. */
export function slopesOf(model: MapModel, numbers: readonly number[], height: number): MapSlopes {
  const lensFirst = indexOf(model, 'lens');
  const lens = { first: lensFirst, count: lensFirst < 0 ? 0 : model.parts.find(({ id }) => id === 'lens')!.start.length };
  const byNumber = numbers.map((value, i) => {
    if (i >= lens.first && i < lens.first + lens.count) return NOTHING;
    const step = 1e-6 * Math.max(1, Math.abs(value));
    const above = model.mapAt(numbers.with(i, value + step), height).forward;
    const below = model.mapAt(numbers.with(i, value - step), height).forward;
    return above.map((entry, e) => (entry - below[e]!) / (2 * step)) as unknown as Homography;
  });
  return { map: model.mapAt(numbers, height), byNumber, lens };
}

const NOTHING: Homography = [0, 0, 0, 0, 0, 0, 0, 0, 0];

export function placeWithSlopes({ map, byNumber, lens }: MapSlopes, sheet: Vec): SlopedPlace {
  const { middle, unit, forward: h } = map;
  const bent: Vec = [(sheet[0] - middle[0]) / unit, (middle[1] - sheet[1]) / unit];
  const [u, v] = straightened(map.lens, bent);
  const place = applyHomography(h, [u, v]);
  const w = h[6] * u + h[7] * v + h[8];
  const x = byNumber.map((d) => (d[0] * u + d[1] * v + d[2] - place[0] * (d[6] * u + d[7] * v + d[8])) / w);
  const y = byNumber.map((d) => (d[3] * u + d[4] * v + d[5] - place[1] * (d[6] * u + d[7] * v + d[8])) / w);
  // By the straightened units, then by the lens and by the sheet.
  const [xu, xv] = [(h[0] - place[0] * h[6]) / w, (h[1] - place[0] * h[7]) / w];
  const [yu, yv] = [(h[3] - place[1] * h[6]) / w, (h[4] - place[1] * h[7]) / w];
  const square = bent[0] ** 2 + bent[1] ** 2;
  for (let i = 0; i < lens.count; i++) {
    const along = square ** (i + 1);
    x[lens.first + i] = (xu * bent[0] + xv * bent[1]) * along;
    y[lens.first + i] = (yu * bent[0] + yv * bent[1]) * along;
  }
  const factor = 1 + square * (map.lens.k1 + square * map.lens.k2);
  const growth = 2 * (map.lens.k1 + 2 * square * map.lens.k2);
  const [uu, uv, vv] = [factor + growth * bent[0] ** 2, growth * bent[0] * bent[1], factor + growth * bent[1] ** 2];
  x.push((xu * uu + xv * uv) / unit, -(xu * uv + xv * vv) / unit);
  y.push((yu * uu + yv * uv) / unit, -(yu * uv + yv * vv) / unit);
  return { place, x, y };
}
