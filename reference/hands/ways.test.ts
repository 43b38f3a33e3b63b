/**
 * The ways in which a camera can have been held, as they are sought: from a few starts, each followed for some steps. Beside that, what is reached from starts that are drawn at random and
 * followed to their very ends.
 */
import { adjustEveryWay, adjustView, HASTY, type AdjustedView } from '../../src/core/calibrate/adjust-view';
import { chooseModel } from '../../src/core/calibrate/models';
import { createRandom } from '../../src/core/calibrate/simulation';
import { showTo, type Known } from './bench-things';
import { drawWorld, type CameraKind } from './world';

const CAMERA: CameraKind = { focal35mm: [24, 100], told: false, tilt: [3, 45], fill: [0.4, 0.95] };
/** Ways whose chi-square is farther from the best one's weigh next to nothing beside it. */
const COUNTS = 8;
const WORLDS = 16;
const STARTS = 8;
const PATIENT = { steps: 150 };

const SLANTED: ReadonlySet<'tilt'> = new Set(['tilt']);
/** Nothing is photographed from flatter than this. */
const isSound = ({ values: [, across, up] }: AdjustedView) => Math.hypot(across!, up!) < 1.15;

interface Sought {
  readonly isBest: boolean;
  readonly found: number;
  readonly missed: number;
}

function seek(known: Known, sigma: number, i: number): Sought {
  const world = drawWorld(CAMERA, 300 + i);
  const { points, evidence } = showTo(world, known, sigma);
  const model = chooseModel(world.picture, 'auto', 'auto', { turns: false, shifts: false });
  const pointed = { points, lift: { mm: 0, sigma: 1e-9 } };
  const hasty = adjustEveryWay(model, evidence, pointed, SLANTED, HASTY, {});
  const { uniform } = createRandom(i);
  const anyhow = Array.from({ length: STARTS }, () => {
    const [scale, , , , ...lens] = hasty[0]!.values;
    const begun = [scale!, 1.4 * uniform() - 0.7, 1.4 * uniform() - 0.7, 1.6 * uniform() - 0.2, ...lens.map(() => 0)];
    return adjustView(model, evidence, pointed, SLANTED, begun, PATIENT);
  }).flatMap((view) => (view.ok && view.value.solution.settled && isSound(view.value) ? [view.value] : []));
  const [best] = [...hasty, ...anyhow].sort((a, b) => a.solution.chiSquare - b.solution.chiSquare);
  const isSame = (a: AdjustedView, b: AdjustedView) =>
    a.values.every((value, k) => Math.abs(value - b.values[k]!) < 0.01);
  const count = [...hasty, ...anyhow].filter(
    (way, k, all) =>
      way.solution.chiSquare < best!.solution.chiSquare + COUNTS &&
      !all.slice(0, k).some((other) => isSame(way, other)),
  );
  const missed = count.filter((way) => !hasty.some((other) => isSame(way, other)));
  return {
    isBest: hasty.length > 0 && hasty[0]!.solution.chiSquare < best!.solution.chiSquare + 0.01,
    found: count.length - missed.length,
    missed: missed.length,
  };
}

const KINDS: Readonly<Record<string, readonly [Known, number, number]>> = {
  'a card, sides that edges were found on': [{ card: true }, 0.3, 0.93],
  'a card, sides that a hand pointed at, so that it can lie in two ways': [{ card: true }, 2, 0.93],
  'a card and a length': [{ card: true, lengths: 1 }, 1, 0.93],
  'three lengths, of which nothing tells where to begin': [{ lengths: 3 }, 0.3, 0.85],
};

it.each(Object.entries(KINDS))(
  '%s: the best way is found, and nearly all that can hardly be told from it',
  (_says, [known, sigma, least]) => {
    const sought = Array.from({ length: WORLDS }, (_, i) => seek(known, sigma, i));
    const sum = (of: 'found' | 'missed') => sought.reduce((all, one) => all + one[of], 0);
    if (process.env.PRINT_TABLE) console.log(sum('found'), sum('missed'), sought.filter(({ isBest }) => isBest).length);
    expect(sought.filter(({ isBest }) => isBest).length).toBeGreaterThanOrEqual(WORLDS - 1);
    expect(sum('found') / (sum('found') + sum('missed'))).toBeGreaterThanOrEqual(least);
  },
);
