import type { Point } from '../generator/profile';
import type { Drawing, Line } from '../generator/scan';

/** A place of the trowel: across from the tip to the handle's end, deep away from the front, up from the bench that it lies on. mm */
export type Place = readonly [across: number, deep: number, up: number];

/** The tang's middle line, one cubic Bézier curve in space: it rises from the blade and swings over to the handle. */
export const TANG: readonly [Place, Place, Place, Place] = [
  [150, 0, 10],
  [205, 0, 10],
  [195, -26, 58],
  [265, -26, 58],
];
export const TROWEL = { length: 390, width: 76, heel: 150, handle: 125, round: 30 } as const;

export function onTang(t: number): Place {
  const s = 1 - t;
  const weights = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
  return [0, 1, 2].map((axis) =>
    TANG.reduce((sum, place, i) => sum + weights[i]! * place[axis]!, 0),
  ) as unknown as Place;
}

/** Where the view from above begins on the sheet, over the one from the front. */
export const ABOVE = 190;
const front = ([across, , up]: Place): Point => [across, up];
const above = ([across, deep]: Place): Point => [across, ABOVE + deep];

const chords = (through: readonly Point[]): Line[] => through.slice(1).map((to, i): Line => [through[i]!, to]);
const sampled = (at: (t: number) => Point): Line[] => chords(Array.from({ length: 61 }, (_, i) => at(i / 60)));
const box = (x: number, y: number, w: number, h: number): Line[] =>
  chords([
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
    [x, y],
  ]);

const half = TROWEL.width / 2;
/** The blade's half width from its tip to its heel, by the share of the way. */
const widthAt = (t: number) => half * Math.sin(0.93 * Math.PI * t ** 0.62) ** 0.8;
const blade = (side: 1 | -1) => sampled((t) => [heel * t, ABOVE + side * widthAt(t)]);
const { handle, round, heel } = TROWEL;
const [, deep, up] = TANG[3];
const end = TANG[3][0];

/** Front and, above it, the view from above: third angle, on a sheet of 297 × 210 mm (ISO 216 A4), scanned a little askew. */
export const trowelViews: Drawing = {
  name: 'trowel',
  paper: [297, 210],
  dpi: 200,
  ratio: 0.6,
  place: [34, 42],
  stretch: 1,
  askew: -0.3,
  lines: [
    ...sampled((t) => [heel * t, 22 * (1 - t) ** 2 - 4 * t * (1 - t) + 10 * t * t]),
    ...sampled((t) => [heel * t, 8 * (1 - t) ** 2 - 12 * t * (1 - t) + 6 * t * t]),
    ...sampled((t) => front(onTang(t))),
    ...box(end, up - round / 2, handle, round),
    ...blade(1),
    ...blade(-1),
    [
      [heel, ABOVE + widthAt(1)],
      [heel, ABOVE - widthAt(1)],
    ],
    ...sampled((t) => above(onTang(t))),
    ...box(end, ABOVE + deep - round / 2, handle, round),
  ],
  circles: [{ centre: [end + handle - 12, up], diameter: 8 }],
  dimensions: [
    { from: [0, 0], to: [end + handle, 0], away: -34, says: String(end + handle) },
    { from: [0, ABOVE - half], to: [0, ABOVE + half], away: 26, says: String(TROWEL.width) },
  ],
};
