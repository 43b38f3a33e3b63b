/** What is stood in a drawing to judge it by eye is of true size there, follows the fit, stays where it is on the thing, and never leaves. */
import { distance, findUnion, pieceBounds, pointAt, type Piece, type Vec } from '../geometry';
import { drawnByEye, THINGS_BY_EYE, type LookedFrom, type ThingByEye } from '../shelf';
import { moveByEye, removeView, setDatum, standByEye, type Command, type StoodByEye } from '../job';
import { jobOf } from '../job/for-tests';
import { FRONT, NOISELESS, shown, sized } from './bench-for-tests';
import { createDeriver, drawingOf, listByEye } from '.';

const FOOT: Vec = [900, 1800];
const stood = (thing: ThingByEye, from: LookedFrom, turn = 0): StoodByEye => ({
  id: thing,
  plane: FRONT.id,
  thing,
  from,
  at: { kind: 'pointed', at: FOOT, sigma: 1 },
  turn,
});
const scaled = (wrong = 1) => [...shown(FRONT), sized(FRONT, 'foot', 'end', 0.5, NOISELESS, wrong)];

/** What stands there, in the picture: px. */
function inPicture(commands: readonly Command[]) {
  const job = jobOf(commands);
  const derived = createDeriver()(job);
  const { fit } = derived.views.get(FRONT.id)!;
  return listByEye(FRONT.id, { job, derived }).map(({ pieces, at }) => ({
    at: fit.toSheet(at),
    places: pieces.flatMap((piece) => [0, 0.3, 0.7, 1].map((t) => fit.toSheet(pointAt(piece, t)))),
  }));
}
const boxOf = (pieces: readonly Piece[]) => findUnion(pieces.map(pieceBounds))!;

it('each thing is as large as is said of it, its foot or its middle at zero', () => {
  for (const thing of THINGS_BY_EYE)
    for (const from of ['standing', 'above'] as const) {
      const { size, sigma, pieces } = drawnByEye(thing, from);
      const { min, max } = boxOf(pieces);
      const [wide, high] = [max[0] - min[0], max[1] - min[1]];
      expect([thing, from, Math.min(Math.abs(wide - size), Math.abs(high - size)) < sigma]).toEqual([
        thing,
        from,
        true,
      ]);
      if (from === 'standing') expect([thing, min[1]]).toEqual([thing, 0]);
      if (from === 'standing' && thing !== 'hand') expect(min[0] + max[0]).toBeCloseTo(0, 6);
    }
  // Common practice: a door leaf is about 900 by 2,000, a brick 215 by 65 (from memory).
  expect(boxOf(drawnByEye('door', 'standing').pieces)).toMatchObject({ min: [-450, 0], max: [450, 2000] });
  expect(boxOf(drawnByEye('brick', 'standing').pieces)).toMatchObject({ min: [-107.5, 0], max: [107.5, 65] });
});

it('stands where it was pointed at, at true size, and follows the fit', () => {
  const heightIn = (wrong: number) => {
    const [{ at, places } = { at: FOOT, places: [] }] = inPicture([
      ...scaled(wrong),
      standByEye(stood('door', 'standing')),
    ]);
    expect(distance(at, FOOT)).toBeLessThan(1e-6);
    return FOOT[1] - Math.min(...places.map(([, y]) => y));
  };
  // 0.6 mm to a pixel, turned by a quarter of a degree.
  expect(heightIn(1)).toBeGreaterThan(2000 / 0.6 - 8);
  expect(heightIn(1)).toBeLessThan(2000 / 0.6 + 8);
  expect(heightIn(2) / heightIn(1)).toBeCloseTo(0.5, 2);
});

it('stays where it is on the thing when the axes are said anew, and goes where it is put', () => {
  const before = inPicture([...scaled(), standByEye(stood('chair', 'standing', 0.4))]);
  const turned = inPicture([
    ...scaled(),
    standByEye(stood('chair', 'standing', 0.4)),
    setDatum(FRONT.id, { origin: [700, 1500], direction: 0.3 }),
  ]);
  expect(turned[0]!.places).toHaveLength(before[0]!.places.length);
  turned[0]!.places.forEach((place, i) => expect(distance(place, before[0]!.places[i]!)).toBeLessThan(1e-6));
  const chair = stood('chair', 'standing');
  const [moved] = inPicture([
    ...scaled(),
    standByEye(chair),
    moveByEye({ ...chair, at: { kind: 'pointed', at: [500, 500], sigma: 1 } }),
  ]);
  expect(distance(moved!.at, [500, 500])).toBeLessThan(1e-6);
});

it('is not there without a scale, goes with its view, and never leaves', () => {
  expect(inPicture([...shown(FRONT), standByEye(stood('door', 'standing'))])).toEqual([]);
  const job = jobOf([...scaled(), standByEye(stood('door', 'standing'))]);
  const nothing = drawingOf(job, createDeriver()(job), { plane: FRONT.id });
  expect(nothing.ok ? nothing.value.layers : []).toEqual([]);
  expect(jobOf([...scaled(), standByEye(stood('door', 'standing')), removeView(FRONT.id)]).byEye).toEqual([]);
});
