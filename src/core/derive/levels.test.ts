/** What is drawn on a layer stands at the layer's level: in the file, inside the folded sheet, under what stands on it, and in the sizes. */
import {
  addFeature,
  addLayer,
  addOutline,
  changeFeature,
  changeLayer,
  removeFeature,
  setLiesAt,
  setSide,
  setStandsOn,
  type Command,
  type Feature,
  type Job,
  type Layer,
} from '../job';
import { jobOf } from '../job/for-tests';
import { spaceBoundsOf } from '../formats';
import { applied } from '../geometry';
import { drawnAt } from '../arrange/simulated';
import type { Chain } from '../outline';
import type { Direction, Vec3 } from '../space';
import { ALL, benchOf, FRONT, joining, NOISELESS, shown, sharedBy, sized, THING, TOP } from './bench-for-tests';
import { createDeriver, drawingInSpace, drawnLookedAt, onEdge, sizeInSpace } from '.';

const UPPER = 2400;
const storey = (liesAt: string | undefined, id = 'upper'): Layer => ({
  id,
  name: id,
  color: 'tide',
  show: true,
  lock: false,
  ...(liesAt === undefined ? {} : { liesAt }),
});
const level = (id: string, mm: number, along: Direction = 'up', more: Partial<Feature> = {}): Command =>
  addFeature({ id, name: id, along, said: { [along]: { value: mm, written: String(mm) } }, seen: [], ...more });

/** A line in the plan, from one place of the thing to another. */
function line(id: string, layer: string, view = TOP, [from, to]: readonly [Vec3, Vec3] = [THING.foot!, THING.back!]) {
  const chain: Chain = {
    shape: 'chain',
    id,
    plane: view.id,
    layer,
    closed: false,
    nodes: [from, to].map((place, i) => ({
      id: `${id}${i}`,
      place: { kind: 'pointed', at: drawnAt(view, place), sigma: 1 },
      smooth: false,
    })),
    segments: [{ kind: 'line' }],
  };
  return addOutline(chain);
}

const houseOf = (...more: readonly Command[]): Job =>
  benchOf(NOISELESS, [
    ...joining(...ALL),
    level('floor', UPPER),
    addLayer(storey('floor')),
    line('ground', 'outline'),
    line('above', 'upper'),
    ...more,
  ]);
const derive = (job: Job) => createDeriver()(job);

/** Where each layer of the file in space begins and how far it reaches upwards, by name. */
function heightsIn(job: Job): Readonly<Record<string, readonly number[]>> {
  const drawing = drawingInSpace(job, derive(job));
  if (!drawing.ok) throw new Error(drawing.code);
  return Object.fromEntries(
    drawing.value.layers.map((layer) => {
      const { corner, size } = spaceBoundsOf({ layers: [layer] })!;
      return [layer.name, [corner[2], size[2]].map((mm) => Number(mm.toFixed(6)))];
    }),
  );
}

it('a plan of two storeys leaves at two heights, each on its layer, though no view shows the upper one', () => {
  expect(heightsIn(houseOf())).toEqual({ 'Outline (plan)': [0, 0], 'upper (plan)': [UPPER, 0] });
  // The layer says it of what is on it; the view of all else.
  expect(heightsIn(houseOf(level('slab', 150), setLiesAt('plan', 'slab')))).toEqual({
    'Outline (plan)': [150, 0],
    'upper (plan)': [UPPER, 0],
  });
});

it('a level that is said anew takes along what lies at it; gone, what lay at it lies with its view', () => {
  const again: Feature = {
    id: 'floor',
    name: 'floor',
    along: 'up',
    said: { up: { value: 2750, written: '2.75 m' } },
    seen: [],
  };
  expect(heightsIn(houseOf(changeFeature(again)))).toEqual({ 'Outline (plan)': [0, 0], 'upper (plan)': [2750, 0] });
  const without = houseOf(removeFeature('floor'));
  expect(without.layers.map(({ liesAt }) => liesAt)).toEqual([undefined, undefined]);
  expect(heightsIn(without)).toEqual({ 'Outline (plan)': [0, 0], 'upper (plan)': [0, 0] });
});

it('a level that is typed is where it is said to be before any view stands', () => {
  const { coordinate } = derive(jobOf([level('floor', UPPER, 'up', { plusMinus: 4 })])).arranged;
  expect([coordinate('floor', 'up'), coordinate('floor', 'across')]).toEqual([{ value: UPPER, sigma: 2 }, undefined]);
});

it('says nothing where the view shows that direction itself, or nothing tells it', () => {
  // A front shows how high things are; what it does not show is how deep they lie.
  const front = houseOf(line('gable', 'upper', FRONT));
  expect(heightsIn(front)['upper (front)']).toEqual([expect.closeTo(0, 3), expect.closeTo(THING.back![2], 0)]);
  const rear = addLayer(storey('wall', 'rear'));
  const deep = houseOf(level('wall', 520, 'deep'), rear, line('gable', 'rear', FRONT));
  const drawing = drawingInSpace(deep, derive(deep));
  if (!drawing.ok) throw new Error(drawing.code);
  const gable = drawing.value.layers.filter(({ name }) => name === 'rear (front)');
  expect(spaceBoundsOf({ layers: gable })!.corner[1]).toBeCloseTo(520, 9);
});

it('stands inside the folded sheet as high as it lies; what lies with a view of which nothing is said stays on the sheet', () => {
  const job = houseOf();
  const looked = drawnLookedAt({ job, derived: derive(job) }, { fold: 1, turn: 0, tip: 0 });
  expect(looked.map(({ view, layer }) => [view, layer])).toEqual([['plan', 'upper']]);
  expect(applied(looked[0]!.look, [70, 30])[1]).toBeCloseTo(UPPER, 9);
});

it('an elevation stands as high as the edge that it stands on', () => {
  const wall = { ...FRONT, id: 'wall', turn: 0, zero: [400, 1900] as const };
  const job = houseOf(
    ...shown(wall).filter((_, i) => i === 0),
    setSide('wall', 'face'),
    sized(wall, 'foot', 'end', 0.5, NOISELESS),
    setStandsOn('wall', { outline: 'above', from: 'above0' }),
  );
  const stands = onEdge(
    job.views.find(({ id }) => id === 'wall')!,
    { job, derived: derive(job) },
  );
  if (!stands || typeof stands === 'string') throw new Error(stands);
  expect(stands.pose.origin[2]).toBeCloseTo(UPPER, 9);
});

it('how high the whole reaches is known where its levels are typed, and has no plus-minus where one is read', () => {
  const job = houseOf();
  const [, , high] = sizeInSpace(job, derive(job));
  expect(high).toEqual({ value: expect.closeTo(UPPER, 6), sigma: expect.closeTo(0, 6) });
  const read = houseOf(sharedBy([FRONT], 'eaves', ['back'], NOISELESS, 'up'), changeLayer(storey('eaves')));
  expect(heightsIn(read)['upper (plan)']![0]).toBeCloseTo(THING.back![2], 0);
  const sizes = sizeInSpace(read, derive(read));
  expect(sizes.map((size) => size === undefined)).toEqual([false, false, true]);
});
