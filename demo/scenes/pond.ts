import { hash, smooth } from '../generator/noise';
import type { Point } from '../generator/profile';
import type { Ground, Line } from '../generator/scan';

/** The pond and its paths as surveyed, metres; zero at the gate post. */
const SHORE = Array.from({ length: 36 }, (_, i): Point => {
  const angle = (i / 36) * 2 * Math.PI;
  const reach = 1 + 0.16 * Math.sin(2 * angle + 0.6) + 0.08 * Math.sin(3 * angle);
  return [14 + 7.2 * reach * Math.cos(angle), 9 + 4.6 * reach * Math.sin(angle)];
});
export const POND = {
  shore: SHORE,
  path: [
    [-1, 1],
    [3.2, 2.4],
    [5.6, 6.2],
    [5.2, 11.8],
    [9, 16.4],
    [18, 17.6],
    [26, 15.2],
  ] as readonly Point[],
  terrace: [
    [22.5, 3],
    [28, 3],
    [28, 7.5],
    [22.5, 7.5],
  ] as readonly Point[],
  posts: [
    [0, 0],
    [28, 0],
    [28, 19],
    [0, 19],
  ] as readonly Point[],
};

/** Stepping stones across the pond's narrow end, as somebody sketched them beside the terrace and two posts. Metres of the survey. */
export const STONES: readonly { readonly at: Point; readonly size: number }[] = Array.from({ length: 7 }, (_, i) => ({
  at: [21.4 - 1.05 * i, 7.9 + 0.55 * i + 0.3 * Math.sin(i)] as Point,
  size: 0.62 + 0.16 * hash(i, 1, 2),
}));

/** How the sketch lies against the survey: turned, at its own scale, its own zero. Sheet mm. */
export const SKETCH = { turn: 0.28, ratio: 11.5, place: [96, 36] as Point };

export function onSketch([x, y]: Point): Point {
  const [c, s] = [Math.cos(SKETCH.turn), Math.sin(SKETCH.turn)];
  const [u, v] = [x - 14, y];
  return [SKETCH.place[0] + SKETCH.ratio * (c * u - s * v), SKETCH.place[1] + SKETCH.ratio * (s * u + c * v)];
}

const ring = (points: readonly Point[]): Line[] => points.map((a, i) => [a, points[(i + 1) % points.length]!]);
const stone = ({ at: [x, y], size }: (typeof STONES)[number], n: number): Line[] =>
  ring(
    Array.from({ length: 9 }, (_, i): Point => {
      const angle = (i / 9) * 2 * Math.PI;
      const reach = (size / 2) * (0.85 + 0.3 * hash(i, n, 5));
      return [x + reach * Math.cos(angle), y + reach * Math.sin(angle)];
    }),
  );

/** What is drawn on the sketch, sheet mm. */
export const SKETCH_LINES: readonly Line[] = [
  ...ring(POND.terrace),
  ...POND.posts.slice(1, 3).flatMap(
    ([x, y]) =>
      [
        [
          [x - 0.4, y],
          [x + 0.4, y],
        ],
        [
          [x, y - 0.4],
          [x, y + 0.4],
        ],
      ] as Line[],
  ),
  ...SHORE.slice(0, 12).map((a, i): Line => [a, SHORE[i + 1]!]),
  ...STONES.flatMap(stone),
].map(([a, b]) => [onSketch(a), onSketch(b)]);

/** Paper that got wet: a brown tide line around where the water stood. */
export const waterStained: Ground = {
  paper(x, y, width, height) {
    const away =
      Math.hypot((x - width * 0.28) / width, (y - height * 0.7) / height) -
      0.24 -
      0.09 * smooth(x * 0.004, y * 0.004, 6);
    const tide = Math.exp(-((away / 0.009) ** 2)) * 0.2 + (away < 0 ? 0.06 : 0);
    const tone = 240 + 5 * smooth(x * 0.005, y * 0.005, 2);
    return [tone * (1 - tide * 0.7), tone * 0.985 * (1 - tide), tone * 0.95 * (1 - tide * 1.5)];
  },
  ink: 0.72,
};
