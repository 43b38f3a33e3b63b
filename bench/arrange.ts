/** Twelve sheets of one thing: how long the fit of all takes. */
import { fitScene, spaceCurveOf, type Scene, type SceneEvidence } from '../src/core/arrange';
import type { Cubic, Path } from '../src/core/geometry';
import { simulatedScene, type Drawn } from '../src/core/arrange/simulated';
import { DIRECTIONS, showsAlong, SIDES, type Vec3 } from '../src/core/space';
import { createRandom } from '../src/core/calibrate/simulation';

const LINES = 60;
const TIES = 300;

/** Twelve scans, two from each side; 60 shared lines, each seen by some of them, 300 places in all; overall sizes, and one of its own in each scan. */
function sheetsOfOneThing(): Scene {
  const generator = createRandom(5);
  const random = () => generator.uniform();
  const thing = Object.fromEntries(
    Array.from({ length: LINES }, (_, i) => [`p${i}`, [random() * 400 - 200, random() * 200, random() * 300] as Vec3]),
  );
  const drawn = Array.from({ length: 12 }, (_, i): Drawn => ({
    id: `v${i}`,
    side: SIDES[i % 6]!,
    scale: 0.2 + 0.1 * random(),
    turn: 0.1 * (random() - 0.5),
    zero: [1500, 1700],
    sized: { from: 'p0', to: 'p1', sigma: 0.2 },
  }));
  const evidence = DIRECTIONS.map((along, axis): SceneEvidence => ({
    kind: 'distance',
    id: along,
    from: `p${axis}`,
    to: `p${axis + 3}`,
    along,
    mm: Math.abs(thing[`p${axis}`]![axis]! - thing[`p${axis + 3}`]![axis]!),
    sigma: 0.2,
  }));
  const scene = simulatedScene({ thing, drawn, click: 1, evidence }, generator);
  const features = scene.features.map((feature, i) => {
    const only = DIRECTIONS[i % 3]!;
    const seen = feature.seen.filter(({ view }) => showsAlong(drawn.find(({ id }) => id === view)!.side, only));
    return { ...feature, only, seen: seen.filter((_, k) => (k + i) % seen.length < TIES / LINES) };
  });
  return { ...scene, features };
}

/** Milliseconds of a first fit, and of one more after a place was pointed at anew. */
export function arrangeTimes(): readonly [number, number] {
  const scene = sheetsOfOneThing();
  const first = since(() => fitScene(scene));
  const [view, ...others] = scene.views;
  const { at, sigma } = view!.points.p0!;
  const moved = { ...view!, points: { ...view!.points, p0: { at: [at[0] + 0.3, at[1]] as const, sigma } } };
  return [first, since(() => fitScene({ ...scene, views: [moved, ...others] }))];
}

/** A wave of so many cubics along x. */
const wave = (count: number, tall: number): Path => ({
  closed: false,
  pieces: Array.from({ length: count }, (_, i): Cubic => {
    const [left, right] = [10 * i, 10 * (i + 1)];
    const up = tall * (i % 2 === 0 ? 1 : -1);
    return { kind: 'cubic', a: [left, 0], b: [left + 3, up], c: [right - 3, up], d: [right, 0] };
  }),
});

/** Milliseconds for a curve in space from two paths of so many pieces. */
export function spaceCurveTime(count: number): number {
  const [front, top] = [wave(count, 4), wave(count, 6)];
  return since(() => spaceCurveOf({ side: 'front', path: front }, { side: 'top', path: top }, 0.01));
}

const since = (work: () => unknown): number => {
  const began = performance.now();
  work();
  return performance.now() - began;
};
