/** An elevation between the ends of its edge: as large as the plan says, and where that puts it. */
import { isUpright, listTurnedRound, lookedAt } from '../arrange';
import { createRandom } from '../calibrate/simulation';
import { drawnAt, type Drawn } from '../arrange/simulated';
import { applied, cross, distance, subtract, type Line, type Vec } from '../geometry';
import {
  addFeature,
  addOutline,
  addRelations,
  mirrorView,
  removeFeature,
  removeOutlines,
  seeFeature,
  setJoins,
  setSide,
  setStandsOn,
  standBetween,
  turnOnEdge,
  type Command,
  type Job,
} from '../job';
import { changed } from '../job/for-tests';
import { distance3, toSpace, type Vec3 } from '../space';
import { ALL, benchOf, CLICK, FRONT, joining, NOISELESS, RIGHT, shown, sized, THING, TOP } from './bench-for-tests';
import { measureOutline } from './figures';
import { chainOn, FROM, LONG, pointedAt, seenOn, shownEnds, TO, WALL, type Noise } from './wall-for-tests';
import { createDeriver, endsOfEdge, facingOf, foldedViews, onEdge, sharedIn } from '.';

/** Where the next wall ends that goes on from the end of the first, mm; and the ridge of a gable in the middle of that. */
const ON: Vec3 = [900, 1000, 0];
const RIDGE = [LONG / 2, 700] as const;
/** The elevation lies a little askew on its sheet. */
const ASKEW: Drawn = { ...WALL, turn: 0.003 };
const onWall = seenOn(ASKEW);

const offLine = ({ a, b }: Line, at: Vec) => cross(subtract(b, a), subtract(at, a)) / distance(a, b);

const end = (outline: string, node: number) => ({ outline, node: `${outline}${node}` });

const between = (job: Job, noise: Noise) => shownEnds(job, noise, onWall);

/** The bench with the plan of the walls and an elevation of the first that states no size of its own, before anything is said of its ends. */
const beforeEnds = (noise: Noise, ...more: readonly Command[]): Job =>
  benchOf(noise, [
    ...joining(...ALL),
    ...shown(ASKEW).filter((_, i) => i === 0),
    addOutline(
      chainOn(
        'gable',
        'wall',
        [[0, 0], RIDGE, [LONG, 0]].map(([u, v]) => pointedAt(onWall(u!, v!), noise)),
      ),
    ),
    addOutline(
      chainOn(
        'walls',
        'plan',
        [FROM, TO, ON].map((at) => pointedAt(drawnAt(TOP, at), noise)),
      ),
    ),
    setStandsOn('wall', { outline: 'walls', from: 'walls0' }),
    ...more,
  ]);
const standing = (noise: Noise = NOISELESS): Job => {
  const job = beforeEnds(noise);
  const onBase = [0, LONG].map((along, i) =>
    seeFeature('base', { id: `base-wall${i}`, view: 'wall', at: pointedAt(onWall(along, 0), noise), sigma: CLICK }),
  );
  return changed(job, standBetween('wall', between(job, noise)), ...onBase, setJoins('wall', true));
};
const derive = (job: Job) => createDeriver()(job);
const wallIn = (job: Job) => job.views.find(({ id }) => id === 'wall')!;

it('takes its scale from the plan, and stands between the ends, upright and as high as what it shares says', () => {
  const job = standing();
  const derived = derive(job);
  const fitted = derived.views.get('wall')!;
  expect(fitted.fit.scaled).toBe(true);
  const stands = derived.arranged.stands.get('wall')!;
  expect(stands).toMatchObject({ side: undefined, joins: true, byZero: [] });
  for (const [along, up] of [[0, 0], RIDGE, [LONG, 0], [250, 310]] as const) {
    const truth = toSpace({ origin: FROM, x: [900 / LONG, 300 / LONG, 0], y: [0, 0, 1] }, [along, up]);
    expect(distance3(toSpace(stands.pose, fitted.fit.toPlane(onWall(along, up))), truth)).toBeLessThan(0.01);
  }
  expect(onEdge(wallIn(job), { job, derived })).toMatchObject({ view: 'wall', pose: stands.pose });
  // The level on which the bench stands runs through both feet of the wall.
  const level = sharedIn(fitted, { job, derived }).find(({ feature }) => feature.id === 'base')!;
  for (const along of [0, LONG])
    expect(Math.abs(offLine(level.line!, fitted.fit.toPlane(onWall(along, 0))))).toBeLessThan(0.01);
});

it('sizes in it, and where it stands, lie within two sigma as often as they should', () => {
  const trials = 150;
  const within = { gable: 0, corner: 0 };
  for (let seed = 1; seed <= trials; seed++) {
    const random = createRandom(seed);
    const job = standing(() => random.normal());
    const derived = derive(job);
    const gable = job.outlines.find(({ id }) => id === 'gable')!;
    const wide = measureOutline(gable, { job, derived }, ({ nodes }) => distance(nodes[0]!, nodes[2]!));
    within.gable += Math.abs(wide.value - LONG) <= 2 * wide.sigma ? 1 : 0;
    const corner = derived.arranged.coordinate('corner1', 'across')!;
    within.corner += Math.abs(corner.value - TO[0]) <= 2 * corner.sigma ? 1 : 0;
  }
  for (const count of Object.values(within)) {
    expect(count / trials).toBeGreaterThan(0.9);
    expect(count / trials).toBeLessThan(0.99);
  }
});

it('a plan without any size takes its own from an elevation that has one', () => {
  const job = beforeEnds(NOISELESS, sized(ASKEW, 'foot', 'end', 0.5, NOISELESS));
  // Nothing but the wall says how large anything is.
  const bare: Job = {
    ...job,
    views: job.views.map((view) => (view.id === 'front' ? { ...view, evidence: [] } : view)),
  };
  const derived = derive(changed(bare, standBetween('wall', between(bare, NOISELESS)), setJoins('wall', true)));
  const { fit } = derived.views.get('plan')!;
  const [a, b] = [FROM, TO].map((at) => fit.toPlane(drawnAt(TOP, at)));
  expect(distance(a!, b!)).toBeCloseTo(LONG, 1);
});

it('seen from the wrong side of its edge it is found, and turned round or mirrored by one step', () => {
  const right = standing();
  const shows = (job: Job, id: string, at: Vec) =>
    changed(job, seeFeature(id, { id: `${id}-wall`, view: 'wall', at, sigma: CLICK }));
  // Two places of the bench that the wall shows as well, as they lie along it.
  const along = ([x, y]: Vec3) => ((x - FROM[0]) * 900 + (y - FROM[1]) * 300) / LONG;
  const places = [
    ['B', [1360, 500, 860]],
    ['A', [0, 0, 0]],
  ] as const;
  const seen = places.reduce((job, [id, at]) => shows(job, id, onWall(along(at), at[2])), right);
  expect(derive(seen).arranged.isDoubted).toBe(false);
  const wrong = changed(seen, turnOnEdge('wall'));
  const { arranged } = derive(wrong);
  expect(arranged.isDoubted).toBe(true);
  const found = listTurnedRound(arranged.scene!);
  expect(found.map(({ view }) => view)).toEqual(['wall']);
  expect(isUpright(found[0]!.side)).toBe(true);
  expect(derive(changed(wrong, turnOnEdge('wall'))).arranged.isDoubted).toBe(false);
  // Mirrored, its left end is what was its right one; mirrored twice it is as it was.
  const endsIn = (job: Job) =>
    ['corner0', 'corner1'].map((id) => {
      const feature = job.features.find((each) => each.id === id)!;
      return feature.seen.find(({ view }) => view === 'wall')!.at;
    });
  const mirrored = changed(seen, mirrorView('wall'));
  expect(endsIn(mirrored)).toEqual(endsIn(seen).reverse());
  expect(changed(mirrored, mirrorView('wall')).features).toEqual(seen.features);
});

it('is looked at among the others where it hangs on its edge of the plan, and folded up where it stands', () => {
  const job = standing();
  const derived = derive(job);
  const { pose } = derived.arranged.stands.get('wall')!;
  const [turn, tip] = [0.6, 0.5];
  const [laid, up] = [0, 1].map((fold) =>
    foldedViews({ job, derived }, { fold, turn, tip }).find(({ fitted }) => fitted.source.id === 'wall')!,
  );
  expect(
    distance(
      applied(up!.look, [120, 300]),
      lookedAt(toSpace(pose, [120, 300]), turn, tip).slice(0, 2) as unknown as Vec,
    ),
  ).toBeLessThan(1e-6);
  expect(distance(applied(laid!.look, [120, 300]), applied(up!.look, [120, 300]))).toBeGreaterThan(100);
});

it('what is said between it and another view holds to the last digit, along its edge and in height', () => {
  const random = createRandom(11);
  const noise = () => random.normal();
  const job = changed(
    standing(noise),
    addOutline(
      chainOn(
        'rail',
        'front',
        [
          [300, 690],
          [1100, 705],
        ].map(([x, z]) => pointedAt(drawnAt(FRONT, [x!, 0, z!]), noise)),
      ),
    ),
    addRelations([
      { id: 'high', plane: 'wall', kind: 'one-up', on: [end('gable', 1), end('rail', 0)] },
      { id: 'over', plane: 'wall', kind: 'one-across', on: [end('gable', 1), end('rail', 1)] },
    ]),
  );
  const derived = derive(job);
  const at = (view: string, outline: string, node: number) =>
    toSpace(derived.arranged.stands.get(view)!.pose, derived.shapes.get(outline)!.nodes[node]!);
  expect(derived.related.get('wall')!.holds).toBe(true);
  expect(at('wall', 'gable', 1)[2]).toBeCloseTo(at('front', 'rail', 0)[2], 8);
  expect(at('wall', 'gable', 1)[0]).toBeCloseTo(at('front', 'rail', 1)[0], 8);
});

it('alone with its plan it says how high the sheet is folded up', () => {
  const job = standing();
  const hidden = {
    ...job,
    views: job.views.map((view) => ({ ...view, hidden: view.id !== 'wall' && view.id !== 'plan' })),
  };
  const views = foldedViews({ job: hidden, derived: derive(hidden) }, { fold: 1, turn: 0, tip: 0 });
  const [wall, plan] = ['wall', 'plan'].map((id) => views.find(({ fitted }) => fitted.source.id === id)!);
  const top = Math.max(...wall!.rim.map((at) => applied(wall!.look, at)[1]));
  expect(top).toBeGreaterThan(900);
  for (const at of plan!.rim) expect(applied(plan!.look, at)[1]).toBeCloseTo(top, 6);
});

it('how far to the back a side stands follows from a place that it shares with the wall, wherever its own zero is', () => {
  const place: Vec3 = [650, 250, 400];
  const along = ((place[0] - FROM[0]) * 900 + (place[1] - FROM[1]) * 300) / LONG;
  const seenIn = (view: string, at: Vec) => ({ id: `knot-${view}`, view, at, sigma: CLICK });
  const job = changed(
    standing(),
    addFeature({
      id: 'knot',
      name: 'Knot',
      said: {},
      seen: [
        seenIn('front', drawnAt(FRONT, place)),
        seenIn('side', drawnAt(RIGHT, place)),
        seenIn('wall', onWall(along, place[2])),
      ],
    }),
  );
  // Of places the side shows but this one; its zero is a hand's breadth off.
  const parted: Job = {
    ...job,
    features: job.features.map((feature) => ({
      ...feature,
      seen: feature.seen.filter(({ view }) => view !== 'side' || feature.id === 'base' || feature.id === 'knot'),
    })),
    views: job.views.map((view) =>
      view.id === 'side'
        ? { ...view, datum: { ...view.datum, origin: [view.datum.origin[0] + 120, view.datum.origin[1]] } }
        : view,
    ),
  };
  const { arranged, views } = derive(parted);
  expect([arranged.isDoubted, arranged.stands.get('side')!.byZero]).toEqual([false, []]);
  const end = views.get('side')!.fit.toPlane(drawnAt(RIGHT, THING.end!));
  expect(toSpace(arranged.stands.get('side')!.pose, end)[1]).toBeCloseTo(THING.end![1], 0);
});

it('stood on another edge it shows nothing more of the ends of the one before, nor taken off', () => {
  const job = standing();
  const shows = (of: Job) =>
    of.features.filter(({ id, seen }) => id.startsWith('corner') && seen.some(({ view }) => view === 'wall'));
  const other = changed(job, setStandsOn('wall', { outline: 'walls', from: 'walls1' }));
  expect([shows(job).length, shows(other).length]).toEqual([2, 0]);
  expect(shows(changed(job, setStandsOn('wall', undefined)))).toEqual([]);
  // Between the ends of another it agrees again, whatever it was said to be before.
  const [x, y] = drawnAt(TOP, ON);
  const again = changed(
    other,
    standBetween('wall', [
      { id: 'corner1', name: 'Corner 1', seen: [{ id: 'n0', view: 'wall', at: onWall(0, 0), sigma: CLICK }] },
      {
        id: 'corner2',
        name: 'Corner 2',
        seen: [
          { id: 'n1', view: 'wall', at: onWall(LONG, 0), sigma: CLICK },
          { id: 'n2', view: 'plan', at: [x, y], sigma: CLICK },
        ],
      },
    ]),
  );
  const { arranged } = derive(again);
  expect([arranged.isDoubted, arranged.stands.has('wall')]).toEqual([false, true]);
});

it('by a level alone it does not stand: that says nothing of where along its edge', () => {
  const job = standing();
  const { arranged } = derive({
    ...job,
    features: job.features.map((feature) =>
      feature.along ? feature : { ...feature, seen: feature.seen.filter(({ view }) => view !== 'wall') },
    ),
  });
  expect([arranged.stands.has('wall'), arranged.apart.get('wall')?.why]).toEqual([false, 'shows-nothing']);
});

it('where it stood along its edge by a number, its ends say that now', () => {
  const job = beforeEnds(NOISELESS, setStandsOn('wall', { outline: 'walls', from: 'walls0', along: 250 }));
  const { standsOn } = wallIn(changed(job, standBetween('wall', between(job, NOISELESS))));
  expect(standsOn).toEqual({ outline: 'walls', from: 'walls0', ends: { from: 'corner0', to: 'corner1' } });
});

it('an end is the place that is shared there already, also where the corner was moved since', () => {
  const job = standing();
  const movedTo = (at: Vec): Job => ({
    ...job,
    outlines: job.outlines.map((outline) =>
      outline.id === 'walls' && outline.shape === 'chain'
        ? {
            ...outline,
            nodes: outline.nodes.map((node) =>
              node.id === 'walls1' ? { ...node, place: { kind: 'pointed' as const, at, sigma: CLICK } } : node,
            ),
          }
        : outline,
    ),
  });
  const next = { outline: 'walls', from: 'walls1' };
  expect(endsOfEdge(next, movedTo([900, 900]))![0].feature?.id).toBe('corner1');
  // Shared by hand, and of no other edge.
  const [x, y] = drawnAt(TOP, ON);
  const byHand = changed(
    job,
    addFeature({
      id: 'post',
      name: 'Post',
      said: {},
      seen: [{ id: 'p', view: 'plan', at: [x + 2, y - 2], sigma: CLICK }],
    }),
  );
  expect(endsOfEdge(next, byHand)![1]).toEqual({ feature: expect.objectContaining({ id: 'post' }), seen: undefined });
});

it('the next wall shares the corner at which this one ends', () => {
  const job = standing();
  const next = endsOfEdge({ outline: 'walls', from: 'walls1' }, job)!;
  expect(next.map(({ feature }) => feature?.id)).toEqual(['corner1', undefined]);
  expect(next.map(({ seen }) => seen?.view)).toEqual([undefined, 'plan']);
});

it('without one of its ends it stands on the edge by its zero again, and without the edge on none', () => {
  const job = standing();
  const without = changed(job, removeFeature('corner0'));
  expect(wallIn(without).standsOn).toEqual({ outline: 'walls', from: 'walls0' });
  expect(facingOf(wallIn(without), without.features)).toBeUndefined();
  expect(derive(without).arranged.stands.has('wall')).toBe(false);
  expect(wallIn(changed(job, removeOutlines(['walls']))).standsOn).toBeUndefined();
  // What it is said to show besides holds again.
  expect(facingOf({ ...wallIn(without), side: 'back' }, without.features)).toBe('back');
});

it('ends that were not pointed at, or that are gone, are none', () => {
  const job = beforeEnds(NOISELESS);
  expect(endsOfEdge({ outline: 'walls', from: 'nowhere' }, job)).toBeUndefined();
  expect(endsOfEdge({ outline: 'gone', from: 'walls0' }, job)).toBeUndefined();
  // Nothing goes on from the last corner of an open outline.
  expect(endsOfEdge({ outline: 'walls', from: 'walls2' }, job)).toBeUndefined();
  expect(changed(job, setSide('wall', 'left')).views.find(({ id }) => id === 'wall')!.standsOn).toBeDefined();
});
