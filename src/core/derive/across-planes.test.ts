/** Relations between the views of one thing: what they do to outlines, to plus-minus, and to nothing else. */
import { createRandom } from '../calibrate/simulation';
import { distance, type Vec } from '../geometry';
import {
  addOutline,
  addRelations,
  readJob,
  setDatum,
  setJoins,
  setSide,
  setStandsOn,
  type Command,
  type Job,
} from '../job';
import type { Relation, RelationKind } from '../relate';
import { drawnAt, type Drawn } from '../arrange/simulated';
import { axesSeenFrom, distance3, scale3, toSpace, vectorOf, type Vec3 } from '../space';
import { ALL, benchOf, FRONT, joining, NOISELESS, RIGHT, shown, sized, THING, TOP } from './bench-for-tests';
import { chainOn, pointedAt } from './wall-for-tests';
import { createDeriver, measureShapes, sayingOn, type Derived } from '.';

const chain = (view: Drawn, id: string, places: readonly Vec3[], noise: () => number) =>
  chainOn(
    id,
    view.id,
    places.map((place) => pointedAt(drawnAt(view, place), noise)),
  );

const say = (id: string, kind: RelationKind, plane: string, ends: readonly string[], value?: number): Relation => ({
  id,
  kind,
  plane,
  on: ends.map((node) => ({ outline: node.replace(/\d+$/, ''), node })),
  value,
});

/** The edge of the seat in front, the seat from the side, and its plan. */
const traced = (noise: () => number): readonly Command[] => [
  addOutline(chain(FRONT, 'rail', [THING.seat!, [1360, 30, 430]], noise)),
  addOutline(chain(RIGHT, 'board', [THING.seat!, [40, 480, 430]], noise)),
  addOutline(chain(TOP, 'plank', [THING.seat!, [1360, 30, 430], [1360, 480, 430]], noise)),
];
const TIED = [
  say('height', 'one-up', 'front', ['rail0', 'board0']),
  say('left', 'one-across', 'front', ['rail0', 'plank0']),
  say('right', 'coincident', 'front', ['rail1', 'plank1']),
  say('depth', 'one-deep', 'side', ['board1', 'plank2']),
];
const bench = (noise: () => number, ...more: readonly Command[]): Job =>
  benchOf(noise, [...joining(...ALL), ...traced(noise), ...more]);
const derive = (job: Job) => createDeriver()(job);

const nodesOf = ({ shapes }: Derived, outline: string) => shapes.get(outline)!.nodes;
const figure = (job: Job, derived: Derived, read: (nodes: (outline: string) => readonly Vec[]) => number) =>
  measureShapes(job.outlines, { job, derived }, (shapes) => read((id) => shapes.get(id)!.nodes));

/** Where a node lies in the object frame. */
const inSpace = (derived: Derived, view: string, outline: string, node: number): Vec3 =>
  toSpace(derived.arranged.stands.get(view)!.pose, nodesOf(derived, outline)[node]!);

const expectTied = (derived: Derived) => {
  const at = (view: string, outline: string, node: number) => inSpace(derived, view, outline, node);
  expect(at('front', 'rail', 0)[2]).toBeCloseTo(at('side', 'board', 0)[2], 9);
  expect(at('front', 'rail', 0)[0]).toBeCloseTo(at('plan', 'plank', 0)[0], 9);
  expect(at('front', 'rail', 1)[0]).toBeCloseTo(at('plan', 'plank', 1)[0], 9);
  expect(at('side', 'board', 1)[1]).toBeCloseTo(at('plan', 'plank', 2)[1], 9);
};

it('holds to the last digits between views, and is read again from its file', () => {
  const { normal } = createRandom(4);
  const job = bench(normal, addRelations(TIED));
  const derived = derive(job);
  expectTied(derived);
  const related = ['front', 'side', 'plan'].map((plane) => derived.related.get(plane));
  expect(new Set(related).size).toBe(1);
  expect(related[0]!.groups.flatMap(({ solved }) => solved.live)).toHaveLength(4);
  const again = readJob(JSON.parse(JSON.stringify(job)));
  expect(again).toEqual({ ok: true, value: job });
});

it('a size typed in one view holds there to the last digit, and all that is tied goes along, as the views and their zeros do', () => {
  const { normal } = createRandom(6);
  const size = say('seat', 'up', 'front', ['rail0'], 431.5);
  const job = bench(normal, addRelations([...TIED, size]));
  const derived = derive(job);
  expect(nodesOf(derived, 'rail')[0]![1]).toBeCloseTo(431.5, 9);
  expectTied(derived);
  const { normal: same } = createRandom(6);
  const alone = derive(bench(same, addRelations(TIED)));
  const moved = (of: Derived) => of.planes.get('side')!.placing.toPlane([2000, 1500]);
  expect(distance(moved(derived), moved(alone))).toBeGreaterThan(1e-3);
  // What is said next is judged where the evidence alone puts the views.
  const [asked, evident, now] = [
    sayingOn(['side'], job, derived).relating('side').standing!.pose,
    ...[alone, derived].map(({ arranged }) => arranged.stands.get('side')!.pose),
  ] as const;
  expect(distance3(asked.origin, evident!.origin)).toBeLessThan(1e-9);
  expect(distance3(now!.origin, evident!.origin)).toBeGreaterThan(1e-3);
});

it('of a view that no longer joins nothing is held: what is traced there stands where it was drawn, bit for bit, until it joins again', () => {
  const { normal } = createRandom(7);
  const job = bench(normal, addRelations([TIED[0]!]));
  const parted = { ...job, views: job.views.map((view) => (view.id === 'side' ? { ...view, joins: false } : view)) };
  const derived = derive(parted);
  expect(derived.related.get('side')!.groups.flatMap(({ solved }) => solved.live)).toEqual([]);
  const untied = derive({ ...parted, relations: [] });
  for (const id of ['rail', 'board', 'plank']) expect(nodesOf(derived, id)).toEqual(nodesOf(untied, id));
  const { outlines, relating } = sayingOn(['side'], parted, derived);
  expect(outlines.map(({ id }) => id).sort()).toEqual(['board', 'rail']);
  expect(relating('side').standing).toBeUndefined();
});

it('what is not tied is where it was, bit for bit', () => {
  const { normal } = createRandom(8);
  const job = bench(normal, addRelations([TIED[0]!]));
  const [derived, untied] = [derive(job), derive({ ...job, relations: [] })];
  expect(nodesOf(derived, 'plank')).toEqual(nodesOf(untied, 'plank'));
  expect(derived.planes.get('plan')!.fits[0]!.values).toEqual(untied.planes.get('plan')!.fits[0]!.values);
  expect(derived.related.has('plan')).toBe(false);
});

it('is worked out once for as long as what it is about stays the same', () => {
  const { normal } = createRandom(9);
  const deriver = createDeriver();
  const job = bench(normal, addRelations(TIED));
  const first = deriver(job).related.get('front')!;
  const renamed = deriver({ ...job, name: 'Another name' }).related.get('side')!;
  expect(renamed.groups).toBe(first.groups);
});

/** Level as it truly runs on the sheet of each view, so that figures across and up are those of the thing. */
const trulyLevel = ALL.map((view) => {
  const [right] = axesSeenFrom(view.side);
  const [from, to] = [THING.foot!, scale3(vectorOf(right), 1000)].map((place) => drawnAt(view, place)) as [Vec, Vec];
  return setDatum(view.id, { origin: from, direction: Math.atan2(to[1] - from[1], to[0] - from[0]) });
});

type Read = (nodes: (outline: string) => readonly Vec[]) => number;
type Figures = readonly (readonly [truth: number, read: Read])[];
const RUNS = 50;

/** How often figures lie within two of their sigmas, and the mean of their squares in sigmas, when every click is made anew. */
function coverageOf(first: number, figures: Figures, jobWith: (noise: () => number) => Job) {
  const off = Array.from({ length: RUNS }, (_, run) => {
    const job = jobWith(createRandom(first + run).normal);
    const derived = derive(job);
    return figures.map(([truth, read]) => {
      const { value, sigma } = figure(job, derived, read);
      return (value - truth) / sigma;
    });
  }).flat();
  const mean = (of: (sigmas: number) => number) => off.reduce((sum, each) => sum + of(each), 0) / off.length;
  return { within: mean((sigmas) => Number(Math.abs(sigmas) <= 2)), squares: mean((sigmas) => sigmas ** 2) };
}

function expectTrue({ within, squares }: ReturnType<typeof coverageOf>): void {
  expect(within).toBeGreaterThan(0.93);
  expect(within).toBeLessThan(0.98);
  expect(squares).toBeGreaterThan(0.8);
  expect(squares).toBeLessThan(1.2);
}

it.each([
  ['by shape alone', TIED],
  ['and a size is typed of it', [...TIED, say('size', 'up', 'front', ['rail0'], 430)]],
] as const)('figures of what is tied are true, %s: within two sigmas in 93 to 97 of a hundred', (_, relations) =>
  expectTrue(
    coverageOf(
      100,
      [
        [430, (nodes) => nodes('board')[0]![1]],
        [1320, (nodes) => distance(nodes('plank')[0]!, nodes('plank')[1]!)],
        [450, (nodes) => nodes('board')[1]![0] - nodes('board')[0]![0]],
        [30 - 480, (nodes) => nodes('plank')[0]![1] - nodes('board')[1]![0]],
        [1360, (nodes) => nodes('rail')[1]![0]],
        [0, (nodes) => nodes('rail')[0]![1] - nodes('board')[0]![1]],
      ],
      (normal) => bench(normal, ...trulyLevel, addRelations(relations)),
    ),
  ),
);

describe('walls that stand on a plan', () => {
  const CORNER: Vec3 = [1100, 400, 0];
  const [SOUTH, EAST]: readonly (readonly [Vec3, Vec3])[] = [
    [[200, 100, 0], CORNER],
    [CORNER, [900, 1000, 0]],
  ];
  const wall = (id: string, zero: Vec): Drawn => ({ id, side: 'front', scale: 0.5, turn: 0, zero });
  const [S, E] = [wall('south', [400, 1900]), wall('east', [500, 1800])];
  const on = (
    view: Drawn,
    [from]: number[],
    ends: readonly [Vec3, Vec3],
    eaves: readonly Vec3[],
  ): readonly Command[] => [
    ...shown(view).filter((_, i) => i === 0),
    setSide(view.id, 'face'),
    sized(view, 'foot', 'end', 0.5, NOISELESS),
    addOutline(chain(view, `${view.id}-eaves`, eaves, NOISELESS)),
    setStandsOn(view.id, { outline: 'walls', from: `walls${from}` }),
  ];
  const long = (ends: readonly [Vec3, Vec3]) => distance3(...ends);
  const house = (...more: readonly Command[]) =>
    benchOf(NOISELESS, [
      ...joining(...ALL),
      addOutline(chain(TOP, 'walls', [SOUTH![0], CORNER, EAST![1]], NOISELESS)),
      ...on(S, [0], SOUTH!, [
        [0, 0, 702],
        [long(SOUTH!) + 3, 0, 700],
      ]),
      ...on(E, [1], EAST!, [
        [-2, 0, 706],
        [long(EAST!), 0, 703],
      ]),
      ...more,
    ]);

  it('eaves that meet on the edge that two walls share are one point of it', () => {
    const meets = say('meets', 'coincident', 'south', ['south-eaves1', 'east-eaves0']);
    const derived = derive(house(addRelations([meets])));
    const at = (view: string, node: number) =>
      toSpace(
        sayingOn([view], house(), derived).relating(view).standing!.pose,
        nodesOf(derived, `${view}-eaves`)[node]!,
      );
    expect(distance3(at('south', 1), at('east', 0))).toBeLessThan(1e-6);
    expect(at('south', 1)[2]).toBeCloseTo(703, 1);
    // The corner of the plan, as its own fit has it.
    expect(distance3(at('south', 1), [...CORNER.slice(0, 2), 703] as unknown as Vec3)).toBeLessThan(1.5);
  });

  it('a wall is at one height with a view that joins the plan, and waits where the plan does not', () => {
    const level = say('level', 'one-up', 'south', ['south-eaves0', 'ridge0']);
    const ridge = addOutline(
      chain(
        FRONT,
        'ridge',
        [
          [600, 0, 705],
          [700, 0, 705],
        ],
        NOISELESS,
      ),
    );
    const job = house(ridge, addRelations([level]));
    const derived = derive(job);
    const wallPose = sayingOn(['south'], job, derived).relating('south').standing!.pose;
    expect(toSpace(wallPose, nodesOf(derived, 'south-eaves')[0]!)[2]).toBeCloseTo(
      inSpace(derived, 'front', 'ridge', 0)[2],
      9,
    );
    const parted = derive(house(ridge, addRelations([level]), setJoins('plan', false)));
    expect(parted.related.get('south')!.groups.flatMap(({ solved }) => solved.live)).toEqual([]);
  });
});

describe('a size that is typed in one view', () => {
  /** Where the views have a place that both show, along what both show, mm apart. */
  const gapOf = (derived: Derived) => {
    const seenBy = (view: Drawn): Vec3 => {
      const { fit } = derived.views.get(view.id)!;
      return toSpace(derived.arranged.stands.get(view.id)!.pose, fit.toPlane(drawnAt(view, THING.end!)));
    };
    return seenBy(FRONT)[0] - seenBy(TOP)[0];
  };
  const size = say('long', 'across', 'front', ['rail1'], 1370);

  it('tells the one fit of all, in every view that joins it: they go on agreeing as they did', () => {
    const { normal } = createRandom(12);
    const free = bench(normal);
    const derived = derive({ ...free, relations: [size] });
    const before = derive(free);
    const widthIn = (of: Derived, view: Drawn) => {
      const [a, b] = [THING.foot!, THING.end!].map((place) => of.views.get(view.id)!.fit.toPlane(drawnAt(view, place)));
      return b![0] - a![0];
    };
    const [front, plan] = [FRONT, TOP].map((view) => widthIn(derived, view) / widthIn(before, view)) as [
      number,
      number,
    ];
    expect(front).toBeGreaterThan(1.001);
    expect(plan).toBeGreaterThan(1 + (front - 1) / 3);
    expect(Math.abs(gapOf(derived))).toBeLessThan(Math.abs(gapOf(before)) + 0.5);
  });

  it('lowers the doubt of all that stands on that fit, on whichever plane, and what is said of it is true', () => {
    const figures: Figures = [
      [1320, (nodes) => distance(nodes('plank')[0]!, nodes('plank')[1]!)],
      [450, (nodes) => nodes('board')[1]![0] - nodes('board')[0]![0]],
      [860, (nodes) => nodes('post')[1]![1]],
    ];
    const free = (noise: () => number) =>
      bench(noise, ...trulyLevel, addOutline(chain(FRONT, 'post', [THING.foot!, THING.back!], noise)));
    const told = (noise: () => number): Job => ({ ...free(noise), relations: [{ ...size, value: 1360 }] });
    expectTrue(coverageOf(300, figures, told));
    const [before, after] = [free, told].map((make) => make(createRandom(300).normal)) as [Job, Job];
    for (const [, read] of figures)
      expect(figure(after, derive(after), read).sigma).toBeLessThan(0.97 * figure(before, derive(before), read).sigma);
  });

  it('tells nothing of a view that stands by its own fit', () => {
    const { normal } = createRandom(12);
    const parted = bench(normal, setJoins('plan', false), sized(TOP, 'foot', 'end', 1, NOISELESS));
    const [derived, free] = [derive({ ...parted, relations: [size] }), derive(parted)];
    expect(derived.views.get('plan')!.fit.values).toEqual(free.views.get('plan')!.fit.values);
    expect(derived.views.get('side')!.fit.values).not.toEqual(free.views.get('side')!.fit.values);
  });
});
