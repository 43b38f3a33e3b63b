/** An elevation stands upright on an edge that is drawn in its plan, wherever that runs. */
import { jobOf } from '../job/for-tests';
import { addOutline, replaceOutline, setSide, setStandsOn, type Command, type Job } from '../job';
import { drawnAt } from '../arrange/simulated';
import { distance3, dot3, normalOf, toSpace, type Vec3 } from '../space';
import { spaceBoundsOf } from '../formats';
import { ALL, benchOf, FRONT, joining, NOISELESS, shown, sized, TOP } from './bench-for-tests';
import { chainOn, FROM, LONG, onWall, TO, WALL } from './wall-for-tests';
import { createDeriver, drawingInSpace, lengthOfEdge, listOnEdges, onEdge } from '.';

/** The wall's elevation, with its own scale and a gable on it; the datum is at the wall's foot. */
const elevation: readonly Command[] = [
  ...shown(WALL).filter((_, i) => i === 0),
  setSide('wall', 'face'),
  sized(WALL, 'foot', 'end', 0.5, NOISELESS),
  addOutline(chainOn('gable', 'wall', [onWall(0, 0), onWall(LONG / 2, 700), onWall(LONG, 0)])),
];
const edge = addOutline(chainOn('edge', 'plan', [drawnAt(TOP, FROM), drawnAt(TOP, TO)]));
const standing = (...more: readonly Command[]): Job =>
  benchOf(NOISELESS, [
    ...joining(...ALL),
    ...elevation,
    edge,
    setStandsOn('wall', { outline: 'edge', from: 'edge0' }),
    ...more,
  ]);
const derive = (job: Job) => createDeriver()(job);
const standsIn = (job: Job) =>
  onEdge(
    job.views.find(({ id }) => id === 'wall')!,
    { job, derived: derive(job) },
  );

it('its zero is where the edge begins, across runs along it, up is up, and it is seen from the right of the way', () => {
  const stands = standsIn(standing());
  if (!stands || typeof stands === 'string') throw new Error(stands);
  expect(stands.under.view).toBe('plan');
  // The plan's scale comes from the others and lies turned a little.
  expect(Math.abs(stands.length - LONG)).toBeLessThan(1);
  const job = standing();
  const long = lengthOfEdge(job.views.find(({ id }) => id === 'wall')!.standsOn!, { job, derived: derive(job) })!;
  expect(long.value).toBeCloseTo(stands.length, 6);
  expect(long.sigma).toBeGreaterThan(0.3);
  expect(long.sigma).toBeLessThan(3);
  expect(distance3(stands.pose.origin, FROM)).toBeLessThan(1);
  expect(distance3(toSpace(stands.pose, [LONG, 0]), TO)).toBeLessThan(1.5);
  expect(stands.pose.y).toEqual([0, 0, 1].map((value) => expect.closeTo(value, 9)));
  const right: Vec3 = [TO[1] - FROM[1], FROM[0] - TO[0], 0];
  expect(dot3(normalOf(stands.pose), right)).toBeGreaterThan(0.99 * LONG);
});

it('turned round it begins at the other end and is seen from the other side; its zero may lie along the edge', () => {
  const at = (more: object) => {
    const stands = standsIn(standing(setStandsOn('wall', { outline: 'edge', from: 'edge0', ...more })));
    if (!stands || typeof stands === 'string') throw new Error(stands);
    return stands.pose;
  };
  const [plain, turned, slid] = [at({}), at({ turned: true }), at({ along: -250 })];
  expect(distance3(turned.origin, TO)).toBeLessThan(1);
  expect(dot3(normalOf(turned), normalOf(plain))).toBeCloseTo(-1, 9);
  expect(distance3(slid.origin, toSpace(plain, [-250, 0]))).toBeLessThan(1e-6);
});

it('what is drawn on it leaves in space where it stands', () => {
  const job = standing();
  const drawing = drawingInSpace(job, derive(job));
  if (!drawing.ok) throw new Error(drawing.code);
  const gable = drawing.value.layers.find(({ name }) => name.includes('(wall)'))!;
  const { corner, size } = spaceBoundsOf({ layers: [gable] })!;
  [200, 100, 0].forEach((mm, axis) => expect(Math.abs(corner[axis]! - mm)).toBeLessThan(1.5));
  [900, 300, 700].forEach((mm, axis) => expect(Math.abs(size[axis]! - mm)).toBeLessThan(1.5));
});

it('a plan that shares nothing yet carries it by its own zero', () => {
  const job = jobOf([
    ...shown(TOP),
    sized(TOP, 'foot', 'end', 0.5, NOISELESS),
    ...elevation,
    edge,
    setStandsOn('wall', { outline: 'edge', from: 'edge0' }),
  ]);
  const stands = standsIn(job);
  if (!stands || typeof stands === 'string') throw new Error(stands);
  // As the scan lies, which is two thousandths askew.
  expect(distance3(stands.pose.origin, FROM)).toBeLessThan(3);
  expect(listOnEdges(job, derive(job)).map(({ view }) => view)).toEqual(['wall', 'plan']);
});

it('an edge on its own plane, which another view shows too, is none to stand on', () => {
  const job = standing();
  const views = job.views.map((view) => (view.id === 'wall' ? { ...view, plane: 'plan' } : view));
  expect(standsIn({ ...job, views })).toBe('edge-apart');
});

it.each<[string, readonly Command[], string | undefined]>([
  [
    'an edge that bends',
    [
      addOutline(
        chainOn('bow', 'plan', [drawnAt(TOP, FROM), drawnAt(TOP, [600, 500, 0]), drawnAt(TOP, TO)], { kind: 'curve' }),
      ),
      setStandsOn('wall', { outline: 'bow', from: 'bow0' }),
    ],
    'edge-bent',
  ],
  ['an edge that is gone', [setStandsOn('wall', { outline: 'edge', from: 'nowhere' })], 'edge-gone'],
  [
    'an edge of no length',
    [
      addOutline(chainOn('dot', 'plan', [drawnAt(TOP, FROM), drawnAt(TOP, FROM)])),
      setStandsOn('wall', { outline: 'dot', from: 'dot0' }),
    ],
    'edge-short',
  ],
  ['an edge in a view that does not stand', [setStandsOn('wall', { outline: 'gable', from: 'gable0' })], 'edge-apart'],
  ['a view that shows one of the six sides', [setStandsOn(FRONT.id, { outline: 'edge', from: 'edge0' })], undefined],
])('%s is said', (_, more, says) => {
  const job = standing(...more);
  const view = job.views.find(({ id }) => id === (says === undefined ? FRONT.id : 'wall'))!;
  expect(onEdge(view, { job, derived: derive(job) })).toBe(says);
});

it('a view without a scale does not stand', () => {
  const bare = elevation.filter((_, i) => i !== 2);
  const job = benchOf(NOISELESS, [
    ...joining(...ALL),
    ...bare,
    edge,
    setStandsOn('wall', { outline: 'edge', from: 'edge0' }),
  ]);
  expect(standsIn(job)).toBe('edge-without-scale');
  const drawing = drawingInSpace(job, derive(job));
  expect(drawing.ok && drawing.value.layers.some(({ name }) => name.includes('(wall)'))).toBe(false);
});

it('where its edge is cut it stands on the part that has it', () => {
  const parts = [
    chainOn('left', 'plan', [drawnAt(TOP, FROM), drawnAt(TOP, [600, 233, 0])]),
    chainOn('right', 'plan', [drawnAt(TOP, [600, 233, 0]), drawnAt(TOP, TO)]),
  ];
  const named = parts.map((part, i) =>
    i === 1 ? { ...part, nodes: part.nodes.map((node, k) => (k === 0 ? { ...node, id: 'edge0' } : node)) } : part,
  );
  const job = standing(replaceOutline('edge', named, 'outline-split'));
  expect(job.views.find(({ id }) => id === 'wall')!.standsOn).toMatchObject({ outline: 'right', from: 'edge0' });
});
