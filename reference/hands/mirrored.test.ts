/**
 * A round thing seen from far aside by a long lens lies one way or mirrored, and hardly anything tells which: the two ways are twice the slant apart, so far that no slope leads from one to the other. What is
 * measured has both within its plus-minus, and so has every place.
 */
import { listMapDoubts, listReaches, measuredLength, movedFit, type Fit } from '../../src/core/calibrate';
import { add, distance, mix, scale, type Vec } from '../../src/core/geometry';
import { fitShown, measureAsked, showTo } from './bench-things';
import { HANDS, Photograph } from './photo-hand';
import { KNOWN, tracePlate } from './plate-run';
import { drawWorld, type CameraKind } from './world';

const KIND: CameraKind = { focal35mm: [30, 120], told: false, tilt: [10, 40], fill: [0.75, 0.95] };
const RUNS = 48;
const runs = Array.from({ length: RUNS }, (_, i) => {
  const world = drawWorld(KIND, 4100 + i);
  const fit = fitShown(world, showTo(world, { token: true, lengths: 1 }, 0.5));
  if (!fit.ok) throw new Error(fit.code);
  return { world, fit: fit.value };
});
const torn = runs.filter(({ fit }) => fit.mixed.ways.some(({ weight }) => weight > 0.1));

const otherWays = (fit: Fit) =>
  fit.mixed.ways.map(({ away, weight }) => ({
    weight,
    map: movedFit({ ...fit, mixed: { ...fit.mixed, ways: [{ away, weight }] } }, [
      ...listReaches(fit)
        .filter((reach) => reach === undefined)
        .map(() => 0),
      1 / Math.sqrt(weight),
    ]),
  }));

it('is so in many photographs', () => {
  expect(torn.length).toBeGreaterThanOrEqual(8);
});

it('nine of ten sizes lie within their plus-minus, and hardly any beyond twice that', () => {
  const off = runs.flatMap(({ world, fit }) => measureAsked(world, fit).map((size) => Math.abs(size.off / size.sigma)));
  expect(off.filter((sigmas) => sigmas <= 2).length / off.length).toBeGreaterThan(0.9);
  expect(off.filter((sigmas) => sigmas > 4).length / off.length).toBeLessThan(0.02);
});

// By slopes these were off by up to fifteen sigma: 29 ± 1.6 mm where 40 is true.
it('what is traced on such a photograph has both ways within its plus-minus, whatever is measured', () => {
  const photo = new Photograph(drawWorld({ ...KIND, focal35mm: [65, 120], tilt: [0, 40] }, 55107));
  for (const hand of ['mouse', 'finger, aimed'])
    for (const { value, sigma, truth } of tracePlate(photo, KNOWN['a coin and a length']!, HANDS[hand]!)!)
      expect(Math.abs(value - truth) / sigma).toBeLessThan(2.5);
});

it('a wide lens and a long one are both thought of, which a circle does not tell apart', () => {
  for (const seed of [4139, 4236]) {
    const world = drawWorld({ ...KIND, focal35mm: [80, 120], tilt: [25, 40] }, seed);
    const fit = fitShown(world, showTo(world, { token: true, lengths: 1 }, 0.5));
    if (!fit.ok) throw new Error(fit.code);
    const { values, layout, model, mixed } = fit.value;
    const [focal] = layout.parts[model!.parts.findIndex(({ id }) => id === 'focal')]!;
    const thoughtOf = [0, ...mixed.ways.map(({ away }) => away[focal!]!)].map((by) => values[focal!]! + by);
    // In half diagonals, as logarithms.
    const truth = Math.log(world.camera.focal35mm / (Math.hypot(36, 24) / 2));
    expect(Math.min(...thoughtOf.map((one) => Math.abs(one - truth)))).toBeLessThan(0.35);
  }
});

it('a doubt that goes all the way takes every place to where the other way has it, and half of it half-way', () => {
  for (const { world, fit } of torn) {
    const doubts = listMapDoubts(fit);
    listReaches(fit).forEach((reach, k) => {
      if (reach === undefined) return;
      const gone = (share: number) =>
        movedFit(
          fit,
          doubts.map((_, i) => (i === k ? share * reach : 0)),
        );
      for (const at of [world.see([0, 0]), world.see([110, 70])]) {
        const [here, there] = [fit.toPlane(at), gone(1).toPlane(at)];
        expect(distance(gone(0.5).toPlane(at), mix(here, there, 0.5))).toBeLessThan(1e-9);
        expect(distance(add(here, scale(doubts[k]!(at), reach)), there)).toBeLessThan(1e-9);
        expect(distance(gone(0.1).toSheet(gone(0.1).toPlane(at)), at)).toBeLessThan(1e-3);
      }
    });
  }
});

it('a length is as uncertain as one way is by itself, and as the others are off', () => {
  for (const { world, fit } of torn) {
    const [a, b] = [world.see([-80, 60]), world.see([70, 60])];
    const point = (at: Vec) => ({ at, sigma: 1e-9, height: 0 });
    const alone = measuredLength(
      { ...fit, withPoints: () => ({ places: [], mixed: { ...fit.mixed, ways: [] } }) },
      point(a),
      point(b),
    );
    const apart = otherWays(fit).map(
      ({ map, weight }) => weight * (distance(map.toPlane(a), map.toPlane(b)) - alone.value) ** 2,
    );
    const whole = Math.hypot(alone.sigma, ...apart.map(Math.sqrt));
    expect(measuredLength(fit, point(a), point(b)).sigma / whole).toBeCloseTo(1, 2);
  }
});
