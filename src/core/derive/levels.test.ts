/** What is drawn on a layer stands at the layer's level: in the file, inside the folded sheet, under what stands on it, and in the sizes. */
import {
  addFeature,
  addLayer,
  addOutline,
  changeFeature,
  changeLayer,
  removeFeature,
  removeOutlines,
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
import type { Chain, CircleOutline } from '../outline';
import type { Direction, Vec3 } from '../space';
import { createRandom } from '../calibrate/simulation';
import { ALL, benchOf, FRONT, joining, NOISELESS, RIGHT, shown, sharedBy, sized, THING, TOP } from './bench-for-tests';
import { chainOn } from './wall-for-tests';
import { createDeriver, drawingInSpace, drawnLookedAt, onEdge, riseOf, sizeInSpace } from '.';

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
const line = (
  id: string,
  layer: string,
  view = TOP,
  ends: readonly [Vec3, Vec3] = [THING.foot!, THING.back!],
): Command =>
  addOutline(
    chainOn(
      id,
      view.id,
      ends.map((place) => drawnAt(view, place)),
      { layer },
    ),
  );

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

describe('what rises from level to level', () => {
  const rising = (risesTo: string) => changeLayer({ ...storey('floor'), risesTo });
  const walls = (...more: readonly Command[]) => houseOf(level('eaves', UPPER + 2350), rising('eaves'), ...more);

  it('leaves at both, with an upright edge at each of its ends', () => {
    const job = walls();
    expect(heightsIn(job)).toEqual({ 'Outline (plan)': [0, 0], 'upper (plan)': [UPPER, 2350] });
    const drawing = drawingInSpace(job, derive(job));
    if (!drawing.ok) throw new Error(drawing.code);
    const upper = drawing.value.layers.find(({ name }) => name === 'upper (plan)')!;
    expect(upper.paths).toHaveLength(2);
    expect(upper.inSpace!.map(({ pieces: [edge] }) => edge)).toEqual(
      [THING.foot!, THING.back!].map(([across, deep]) => ({
        kind: 'line',
        a: [across, deep, UPPER].map((mm) => expect.closeTo(mm, 1) as number),
        b: [across, deep, UPPER + 2350].map((mm) => expect.closeTo(mm, 1) as number),
      })),
    );
    expect(sizeInSpace(job, derive(job))[2]).toMatchObject({ value: expect.closeTo(UPPER + 2350, 6) as number });
    // Folded up it is seen at both.
    expect(drawnLookedAt({ job, derived: derive(job) }, { fold: 1, turn: 0, tip: 0 })).toHaveLength(2);
  });

  it('has an edge at each corner of what is shut, and none where it runs on smoothly', () => {
    const places = [THING.foot!, [1360, 30, 0], THING.back!, [40, 500, 0]] as const;
    const seen = places.map((place) => drawnAt(TOP, place));
    const box = chainOn('box', TOP.id, seen, { closed: true, layer: 'upper' });
    const bent = chainOn('bent', TOP.id, seen, { closed: true, layer: 'upper', kind: 'curve' });
    const round = { ...bent, nodes: bent.nodes.map((node) => ({ ...node, smooth: true })) };
    const at = (i: number) => ({ kind: 'pointed' as const, at: seen[i]!, sigma: 1 });
    const post: CircleOutline = {
      shape: 'circle',
      id: 'post',
      plane: TOP.id,
      layer: 'upper',
      by: { kind: 'rim', centre: at(0), rim: at(1) },
    };
    const edgesOf = (outline: Chain | CircleOutline) => {
      const job = walls(removeOutlines(['above']), addOutline(outline));
      const drawing = drawingInSpace(job, derive(job));
      if (!drawing.ok) throw new Error(drawing.code);
      return drawing.value.layers.find(({ name }) => name === 'upper (plan)')!.inSpace!.length;
    };
    expect([edgesOf(box), edgesOf(bent), edgesOf(round)]).toEqual([4, 4, 0]);
    expect(edgesOf(post)).toBe(0);
  });

  it('where it should rise to a level below the one it lies at, it is flat, and by how much is told', () => {
    const job = houseOf(level('cellar', -300), rising('cellar'));
    expect(heightsIn(job)['upper (plan)']).toEqual([UPPER, 0]);
    const layer = job.layers.find(({ id }) => id === 'upper')!;
    expect(riseOf(layer, 'top', derive(job).arranged)).toEqual({ value: -300 - UPPER, sigma: 0 });
  });

  it('without either level it is flat where it lies', () => {
    const after = (gone: string) => heightsIn(walls(removeFeature(gone)))['upper (plan)'];
    expect(after('eaves')).toEqual([UPPER, 0]);
    expect(after('floor')).toEqual([0, 0]);
  });

  it('a storey between levels that were read is as well known as the way between them', () => {
    const { normal } = createRandom(3);
    const seen = [FRONT, RIGHT];
    const job = benchOf(normal, [
      ...joining(...ALL),
      sharedBy(seen, 'seat', ['seat'], normal, 'up'),
      sharedBy(seen, 'top', ['back'], normal, 'up'),
      addLayer({ ...storey('seat'), risesTo: 'top' }),
    ]);
    const { arranged } = derive(job);
    const rise = riseOf(
      job.layers.find(({ id }) => id === 'upper')!,
      'top',
      arranged,
    )!;
    const [low, high] = ['seat', 'top'].map((id) => arranged.coordinate(id, 'up')!);
    expect(rise.value).toBeCloseTo(high!.value - low!.value, 9);
    // Both hang on one scale: it counts once, and the way between is better known than two heights by themselves.
    expect(rise.sigma).toBeLessThan(Math.hypot(low!.sigma, high!.sigma));
  });

  it('how high it is lies within two sigma as often as it should', () => {
    const { normal } = createRandom(11);
    const truth = THING.back![2] - THING.seat![2];
    const within = Array.from({ length: 120 }, () => {
      const job = benchOf(normal, [
        ...joining(...ALL),
        sharedBy([FRONT, RIGHT], 'seat', ['seat'], normal, 'up'),
        sharedBy([FRONT, RIGHT], 'top', ['back'], normal, 'up'),
      ]);
      const { value, sigma } = riseOf({ liesAt: 'seat', risesTo: 'top' }, 'top', derive(job).arranged)!;
      return Math.abs(value - truth) <= 2 * sigma;
    });
    const share = within.filter(Boolean).length / within.length;
    expect([share >= 0.9, share < 1]).toEqual([true, true]);
  });
});
