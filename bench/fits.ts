/** Fits of photographs by simulated cameras of every kind: how long they take. */
import { fitShown, showTo, type Known } from '../reference/hands/bench-things';
import { drawWorld, type CameraKind } from '../reference/hands/world';

const FOCAL: readonly (readonly [number, number])[] = [
  [24, 30],
  [20, 28],
  [40, 60],
  [65, 120],
];
const KNOWN: readonly Known[] = [
  { card: true },
  { card: true, lengths: 1 },
  { card: true, lengths: 1, edge: true },
  { lengths: 3 },
];
const PIXEL = 0.3;
const WORLDS = 6;
/** Each is fitted so many times, of which the quickest counts: what else the machine does is not the fit's. */
const TIMES = 3;

/** Milliseconds of each fit, quickest first: cameras held up to so many degrees aside, half of which told nothing of themselves. */
export function fitTimes(aside: number): readonly number[] {
  const kinds = FOCAL.flatMap((focal35mm) =>
    [true, false].map((told): CameraKind => ({ focal35mm, told, tilt: [0, aside], fill: [0.4, 0.95] })),
  );
  const times = kinds.flatMap((kind) =>
    KNOWN.flatMap((known) =>
      Array.from({ length: WORLDS }, (_, i) => {
        const world = drawWorld(kind, 100 * i + 7);
        const shown = showTo(world, known, PIXEL);
        return Math.min(
          ...Array.from({ length: TIMES }, () => {
            const start = performance.now();
            fitShown(world, shown);
            return performance.now() - start;
          }),
        );
      }),
    ),
  );
  return times.sort((a, b) => a - b);
}
