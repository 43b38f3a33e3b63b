import type { Block, Condition, Problem } from './problem';

/** The coordinates that a view from each side shows, across and up: front, side, top. */
const SIDES = [
  [0, 2],
  [1, 2],
  [0, 1],
] as const;

/**
 * Flat views of one thing, each with a scale, a turn and a shift of its own, that show places of it: each place is seen in so many of them, off by the hand's pixel. The first two places
 * are known. `noise` is a stream of numbers from a normal distribution. Invented.
 */
export function randomScene(views: number, places: number, seenIn: number, noise: () => number): Problem {
  const truths = Array.from({ length: places }, (_, i) =>
    i === 0 ? [0, 0, 0] : i === 1 ? [900, 700, 500] : [noise() * 300, noise() * 250, noise() * 200],
  );
  const looks = Array.from({ length: views }, (_, v) => ({
    id: `view${v}`,
    side: SIDES[v % 3]!,
    numbers: [Math.log(2 + noise() * 0.2), 0.05 * noise(), 1500 + 30 * noise(), 1200 + 30 * noise()],
  }));
  const blocks: Block[] = [
    ...looks.map(({ id }) => ({ id, start: [Math.log(2), 0, 1500, 1200] })),
    ...truths.map((at, i) => ({ id: `place${i}`, start: at.map((value) => value + 5 * noise()) })),
  ];
  const conditions: Condition[] = truths.slice(0, 2).map((at, i) => ({
    group: `known${i}`,
    origin: 'stated',
    exact: false,
    blocks: [`place${i}`],
    residuals: ([place]) => at.map((value, k) => (place![k]! - value) / 0.1),
  }));
  truths.forEach((at, i) => {
    for (let s = 0; s < (i < 2 ? views : seenIn); s++) {
      const { id, side, numbers } = looks[(i + s) % views]!;
      const seen = shown(numbers, [at[side[0]]!, at[side[1]]!]).map((value) => value + noise());
      const click = `click${i}-${id}`;
      blocks.push({ id: click, start: seen, sigma: 1 });
      conditions.push({
        group: click,
        origin: 'measured',
        exact: true,
        blocks: [id, `place${i}`, click],
        residuals: ([look, place, clicked]) =>
          shown(look!, [place![side[0]]!, place![side[1]]!]).map((value, k) => value - clicked![k]!),
      });
    }
  });
  return { blocks, conditions };
}

/** Where a view shows a place of its plane, px. */
function shown([scale = 0, turn = 0, x = 0, y = 0]: readonly number[], [u, v]: readonly [number, number]): number[] {
  const [c, s] = [Math.exp(scale) * Math.cos(turn), Math.exp(scale) * Math.sin(turn)];
  return [x + c * u - s * v, y - s * u - c * v];
}
