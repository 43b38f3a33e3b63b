import type { Vec } from '../geometry';
import { applyHomography, type Homography } from './homography';
import { straightened } from './lens';
import { firstNumberOf, type MapModel, type MapPart } from './models';
import { atHeight } from './projection';
import { toUnits, type SheetMap } from './sheet-map';

/** A map with how it changes with each of its numbers. */
export interface MapSlopes {
  readonly map: SheetMap;
  /** Change of the forward map's nine entries with each number, and with the height where that varies, last; zero for the bow of the lens, which acts before it. */
  readonly byNumber: readonly Homography[];
  /** Where the lens and its middle begin among the numbers, and how many they have. */
  readonly lens: Span;
  readonly centre: Span;
}

interface Span {
  readonly first: number;
  readonly count: number;
}

/** A place on the plane and its slopes: by each number of the map, then by the sheet's x and y. */
export interface SlopedPlace {
  readonly place: Vec;
  readonly x: readonly number[];
  readonly y: readonly number[];
}

/**
 * A model's map with its slopes, at numbers and a height; where that varies, by the height too. Central differences of the nine entries only, by each number: points then follow in
 * closed form.
 */
export function createSlopes(
  model: MapModel,
): (numbers: readonly number[], height: number, varies?: boolean) => MapSlopes {
  const spanOf = (part: MapPart): Span => ({
    first: firstNumberOf(model, part),
    count: model.parts.find(({ id }) => id === part)?.start.length ?? 0,
  });
  const [lens, centre] = [spanOf('lens'), spanOf('lens-centre')];
  const isOfLens = (i: number) => i >= lens.first && i < lens.first + lens.count;
  return (numbers, height, varies = false) => {
    const pose = atHeight(height);
    const byNumber = numbers.map((value, i) =>
      isOfLens(i) ? NOTHING : changeWith((at) => model.forwardAt(numbers.with(i, at), pose), value),
    );
    const byHeight = varies ? [changeWith((at) => model.forwardAt(numbers, atHeight(at)), height)] : [];
    return { map: model.mapAt(numbers, pose), byNumber: [...byNumber, ...byHeight], lens, centre };
  };
}

function changeWith(forwardAt: (value: number) => Homography, value: number): Homography {
  const step = 1e-6 * Math.max(1, Math.abs(value));
  const [above, below] = [forwardAt(value + step), forwardAt(value - step)];
  return above.map((entry, e) => (entry - below[e]!) / (2 * step)) as unknown as Homography;
}

const NOTHING: Homography = [0, 0, 0, 0, 0, 0, 0, 0, 0];

export function placeWithSlopes({ map, byNumber, lens, centre }: MapSlopes, sheet: Vec): SlopedPlace {
  const { unit, forward: h } = map;
  const bent = toUnits(map, sheet);
  const [u, v] = straightened(map.lens, bent);
  const place = applyHomography(h, [u, v]);
  const w = h[6] * u + h[7] * v + h[8];
  const x = byNumber.map((d) => (d[0] * u + d[1] * v + d[2] - place[0] * (d[6] * u + d[7] * v + d[8])) / w);
  const y = byNumber.map((d) => (d[3] * u + d[4] * v + d[5] - place[1] * (d[6] * u + d[7] * v + d[8])) / w);
  // By the straightened units, then by the lens and by the sheet.
  const [xu, xv] = [(h[0] - place[0] * h[6]) / w, (h[1] - place[0] * h[7]) / w];
  const [yu, yv] = [(h[3] - place[1] * h[6]) / w, (h[4] - place[1] * h[7]) / w];
  const [dx, dy] = [bent[0] - map.lens.centre[0], bent[1] - map.lens.centre[1]];
  const square = dx * dx + dy * dy;
  for (let i = 0; i < lens.count; i++) {
    const along = square ** (i + 1);
    x[lens.first + i] = (xu * dx + xv * dy) * along;
    y[lens.first + i] = (yu * dx + yv * dy) * along;
  }
  const factor = 1 + square * (map.lens.k1 + square * map.lens.k2);
  const growth = 2 * (map.lens.k1 + 2 * square * map.lens.k2);
  const [uu, uv, vv] = [factor + growth * dx * dx, growth * dx * dy, factor + growth * dy * dy];
  if (centre.count > 0) {
    x[centre.first]! += xu * (1 - uu) - xv * uv;
    x[centre.first + 1]! += xv * (1 - vv) - xu * uv;
    y[centre.first]! += yu * (1 - uu) - yv * uv;
    y[centre.first + 1]! += yv * (1 - vv) - yu * uv;
  }
  x.push((xu * uu + xv * uv) / unit, -(xu * uv + xv * vv) / unit);
  y.push((yu * uu + yv * uv) / unit, -(yu * uv + yv * vv) / unit);
  return { place, x, y };
}
