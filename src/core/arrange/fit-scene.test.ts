/** Views fitted together: as sure as can be at best, as sure as is said, and right about who is wrong. */
import fc from 'fast-check';
import type { Measured } from '../adjust';
import { OWN_PLANE, toPlane } from '../calibrate';
import type { Random } from '../basics';
import { createRandom } from '../calibrate/simulation';
import { DIRECTIONS, oppositeOf, showsAlong, type Side, type Vec3 } from '../space';
import {
  fitScene,
  isOpen,
  lyingByDatum,
  modelOf,
  standingByZero,
  type Facing,
  type SceneFeature,
  type Open,
  type Scene,
  type SceneEvidence,
  type SceneFit,
  type SceneView,
} from '.';
import { boundOf, isKnownIn, likeliest, spanOf } from './bound';
import {
  drawnAt,
  farthest,
  HEIGHT,
  randomWorld,
  simulatedScene,
  seenLength,
  WIDTH,
  type Drawn,
  type World,
} from './simulated';

const known = (figure: Measured | Open): Measured => {
  if (isOpen(figure)) throw new Error(`open: ${figure.open.join(' ')}`);
  return figure;
};
const fitted = (world: World<Facing>, random?: Random): SceneFit => {
  const fit = fitScene(simulatedScene(world, random));
  if (!fit.ok) throw new Error(fit.code);
  return fit.value;
};

/** With a size of its own for some of the views. */
const sized = <F extends Facing>(world: World<F>, which: readonly number[], sigma = 0.2): World<F> => ({
  ...world,
  drawn: world.drawn.map((view, i) => {
    const [from, to] = farthest(world, view.side);
    return which.includes(i) ? { ...view, sized: { from, to, sigma } } : view;
  }),
});

/** Sizes between the outermost points, along each direction: overall width, depth and height. */
function overall(world: World, sigma: number): SceneEvidence[] {
  return DIRECTIONS.map((along, axis) => {
    const names = Object.keys(world.thing).sort((a, b) => world.thing[a]![axis]! - world.thing[b]![axis]!);
    const [from, to] = [names[0]!, names.at(-1)!];
    return { kind: 'distance', id: along, from, to, along, mm: spanOf(world.thing, from, to, along), sigma };
  });
}

const SIDES3 = ['front', 'right', 'top'] as const;

/** A plan, and elevations that stand upright on the way from the farthest left to the farthest right of its points, and on from there. */
function onEdges(seed: number): World<Facing> {
  const world = randomWorld(createRandom(seed), 6, ['top', 'front', 'right']);
  const [from, to] = farthest(world, 'top');
  const [next] = Object.keys(world.thing)
    .filter((name) => name !== from && name !== to)
    .sort((a, b) => seenLength('top', world.thing, b, to) - seenLength('top', world.thing, a, to));
  const sides: readonly Facing[] = ['top', { from, to }, { from: to, to: next! }];
  return { ...world, drawn: world.drawn.map((view, i) => ({ ...view, side: sides[i]! })) };
}

const KINDS: Readonly<Record<string, (seed: number) => World<Facing>>> = {
  'one view has a size, two have none': (seed) => sized(randomWorld(createRandom(seed), 6, SIDES3), [0]),
  'each view has one of its own': (seed) =>
    sized(randomWorld(createRandom(seed), 5, ['front', 'left', 'bottom']), [0, 1, 2]),
  'no view has any, the overall sizes are said': (seed) => {
    const world = randomWorld(createRandom(seed), 7, SIDES3);
    return { ...world, evidence: overall(world, 0.3) };
  },
  'three corners are surveyed': (seed) => {
    const world = randomWorld(createRandom(seed), 7, SIDES3);
    return {
      ...world,
      features: (all) => all.map((feature, i) => (i < 3 ? { ...feature, mm: world.thing[feature.id]! } : feature)),
    };
  },
  'front, back and the two sides': (seed) =>
    sized(randomWorld(createRandom(seed), 6, ['front', 'back', 'left', 'right'], 0.6), [1]),
  'elevations without a size, on edges of a plan that has one': (seed) => sized(onEdges(seed), [0]),
  'a plan without a size, under an elevation that has one': (seed) => sized(onEdges(seed), [1]),
};

const ASKED = [
  ['p0', 'p1'],
  ['p2', 'p3'],
  ['p1', 'p4'],
] as const;

it.each(Object.keys(KINDS))('%s: what is said is what can be known at best', (kind) => {
  for (let seed = 1; seed <= 4; seed++) {
    const world = KINDS[kind]!(seed);
    const fit = fitted(world);
    const bound = boundOf(world, isKnownIn(simulatedScene(world).features), (thing) =>
      ASKED.map(([a, b]) => spanOf(thing, a, b)),
    );
    ASKED.forEach(([a, b], i) => {
      const { value, sigma } = known(fit.distance(a, b));
      expect(value).toBeCloseTo(spanOf(world.thing, a, b), 5);
      expect(Math.abs(sigma - bound[i]!)).toBeLessThan(0.001 * bound[i]! + 1e-9);
    });
  }
});

it.each(Object.keys(KINDS))('%s: what comes out is what is likeliest, all unknowns solved at once', (kind) => {
  for (let seed = 1; seed <= 2; seed++) {
    const world = KINDS[kind]!(seed);
    const scene = simulatedScene(world, createRandom(900 + seed));
    const fit = fitScene(scene);
    if (!fit.ok) throw new Error(fit.code);
    expect(fit.value.suspects).toEqual([]);
    const best = likeliest(world, scene, isKnownIn(scene.features));
    for (const [a, b] of ASKED) {
      const { value, sigma } = known(fit.value.distance(a, b));
      expect(Math.abs(value - spanOf(best, a, b))).toBeLessThan(1e-4 * sigma + 1e-7);
    }
  }
});

it('views that lie turned on their sheets, some nearly upright, are found as well', () => {
  for (let seed = 1; seed <= 24; seed++) {
    const random = createRandom(7 * seed);
    const bare = sized(randomWorld(random, 6, SIDES3), [seed % 3]);
    const world = { ...bare, drawn: bare.drawn.map((view) => ({ ...view, turn: 3 * (random.uniform() - 0.5) })) };
    const { value, sigma } = known(fitted(world, random).distance('p0', 'p1'));
    expect(Math.abs(value - spanOf(world.thing, 'p0', 'p1'))).toBeLessThan(4 * sigma);
  }
});

it('sizes lie within two sigma 93 to 97 times in 100, and nobody innocent is named', () => {
  let [within, all, named, pieces] = [0, 0, 0, 0];
  for (const kind of Object.keys(KINDS)) {
    for (let seed = 1; seed <= 60; seed++) {
      const world = KINDS[kind]!(seed);
      const fit = fitted(world, createRandom(10_000 + seed));
      named += fit.suspects.length;
      pieces += fit.diagnosis.groups.length;
      for (const [a, b] of ASKED) {
        const { value, sigma } = known(fit.distance(a, b));
        within += Math.abs(value - spanOf(world.thing, a, b)) <= 2 * sigma ? 1 : 0;
        all++;
      }
    }
  }
  expect(within / all).toBeGreaterThan(0.93);
  expect(within / all).toBeLessThan(0.975);
  expect(named / pieces).toBeLessThan(0.01);
});

it('of sizes in every view and overall, the one that is wrong is named, and no other', () => {
  const tally = { found: 0, innocent: 0 };
  const trials = 30;
  for (let seed = 1; seed <= trials; seed++) {
    const random = createRandom(500 + seed);
    const world = sized(randomWorld(createRandom(seed), 7, SIDES3), [0, 1, 2]);
    const scene = simulatedScene({ ...world, evidence: overall(world, 0.3) }, random);
    const wrong = DIRECTIONS[seed % 3]!;
    const off = (0.03 + 0.05 * random.uniform()) * (seed % 2 === 0 ? 1 : -1);
    const fit = fitScene({
      ...scene,
      evidence: scene.evidence.map((piece) =>
        piece.kind === 'distance' && piece.id === wrong ? { ...piece, mm: piece.mm * (1 + off) } : piece,
      ),
    });
    if (!fit.ok) throw new Error(fit.code);
    tally.found += fit.value.suspects.includes(wrong) ? 1 : 0;
    tally.innocent += fit.value.suspects.filter((id) => id !== wrong).length;
  }
  expect(tally.found / trials).toBeGreaterThan(0.97);
  expect(tally.innocent / trials).toBeLessThan(0.05);
});

it('a place that shows something else than was said is named as a tie', () => {
  const world = sized(randomWorld(createRandom(3), 7, SIDES3), [0, 1, 2]);
  const scene = simulatedScene(world, createRandom(7));
  const [front, ...others] = scene.views;
  const { at, sigma } = front!.points.p4!;
  const moved = { ...front!, points: { ...front!.points, p4: { at: [at[0] + 60, at[1] - 45] as const, sigma } } };
  const fit = fitScene({ ...scene, views: [moved, ...others] });
  if (!fit.ok) throw new Error(fit.code);
  expect(fit.value.suspects).toEqual(['tie:p4@front']);
  const { value, sigma: said } = known(fit.value.distance('p4', 'p1'));
  expect(Math.abs(value - spanOf(world.thing, 'p4', 'p1'))).toBeLessThan(3 * said);
});

/** Views of a thing of five points, of which one is said to be seen from the side opposite to its own. */
function turnedRoundIn(sides: readonly Side[], seed: number) {
  const random = createRandom(seed);
  const world = sized(randomWorld(random, 5, sides), [0, 2]);
  const scene = simulatedScene(world, random);
  const bad = scene.views[Math.floor(random.uniform() * sides.length)]!;
  const views = scene.views.map((view) => (view === bad ? { ...view, side: oppositeOf(view.side as Side) } : view));
  return { world, bad: bad.id, fit: fitScene({ ...scene, views }) };
}
const seenIn = (group: string) => group.split('@')[1];

it('of five views one that shows another side than was said is left out whole, and the others are as sure as without it', () => {
  const found = Array.from({ length: 9 }, (_, i) => {
    const { world, bad, fit } = turnedRoundIn(['front', 'back', 'left', 'right', 'top'], i + 1);
    if (!fit.ok || fit.value.suspectsKept) return 'open';
    const { suspects, distance } = fit.value;
    expect(suspects.map(seenIn)).toEqual(suspects.map(() => bad));
    const { value, sigma } = known(distance('p0', 'p1'));
    expect(Math.abs(value - spanOf(world.thing, 'p0', 'p1'))).toBeLessThan(4 * sigma);
    return suspects.length === Object.keys(world.thing).length ? 'whole' : 'part';
  });
  expect(found.filter((which) => which === 'whole').length).toBeGreaterThanOrEqual(5);
});

it('of three views any of which may be the one, no innocent one is left out whole', () => {
  const open = Array.from({ length: 6 }, (_, i) => {
    const { world, bad, fit } = turnedRoundIn(['front', 'right', 'top'], i + 8);
    const { suspects, suspectsKept } = fit.ok ? fit.value : { suspects: [], suspectsKept: true };
    const seenOdd = (id: string) => suspects.filter((group) => seenIn(group) === id).length;
    const whole = world.drawn.filter(({ id }) => !suspectsKept && seenOdd(id) === Object.keys(world.thing).length);
    expect(whole.filter(({ id }) => id !== bad)).toEqual([]);
    return suspectsKept;
  });
  expect(open).toContain(true);
});

it('two drawings that each state a width count by their weights (weighted mean of two measured lengths, as in any text on adjustment)', () => {
  const world: World = {
    thing: { l: [0, 0, 0], r: [820, 0, 0], t: [0, 0, 500], d: [0, 300, 0] },
    drawn: [
      { id: 'front', side: 'front', scale: 0.4, turn: 0, zero: [400, 2000], sized: { from: 'l', to: 'r', sigma: 0.5 } },
      { id: 'top', side: 'top', scale: 0.4, turn: 0, zero: [400, 2000], sized: { from: 'l', to: 'r', sigma: 1 } },
    ],
    click: 1e-4,
  };
  const scene = simulatedScene(world);
  const views = scene.views.map((view) => ({
    ...view,
    evidence: view.evidence.map((piece) => ({ ...piece, mm: view.id === 'front' ? 820 : 821 }) as typeof piece),
  }));
  const fit = fitScene({ ...scene, views });
  if (!fit.ok) throw new Error(fit.code);
  const { value, sigma } = known(fit.value.distance('l', 'r'));
  // (820 / 0.25 + 821 / 1) / (1 / 0.25 + 1 / 1) and 1 / √5.
  expect(value).toBeCloseTo(820.2, 4);
  expect(sigma).toBeCloseTo(1 / Math.sqrt(5), 4);
  const grown = fit.value.stands.map((stand) => stand.grown!);
  expect(grown[0]).toBeCloseTo(820.2 / 820 - 1, 7);
  expect(grown[1]).toBeCloseTo(820.2 / 821 - 1, 7);
});

it('a wall that is stated in its plan and in its elevation counts by their weights too (the same weighted mean), and heights in it follow', () => {
  const world: World<Facing> = {
    thing: { l: [100, 50, 0], r: [700, 500, 0], t: [400, 275, 500] },
    drawn: [
      { id: 'top', side: 'top', scale: 0.4, turn: 0, zero: [400, 2000], sized: { from: 'l', to: 'r', sigma: 1 } },
      {
        id: 'wall',
        side: { from: 'l', to: 'r' },
        scale: 0.4,
        turn: 0,
        zero: [400, 2000],
        sized: { from: 'l', to: 'r', sigma: 0.5 },
      },
    ],
    click: 1e-4,
  };
  const scene = simulatedScene(world);
  // Three, four, five: the wall is 750 long as it is drawn.
  const views = scene.views.map((view) => ({
    ...view,
    evidence: view.evidence.map((piece) => ({ ...piece, mm: view.id === 'wall' ? 750 : 751 }) as typeof piece),
  }));
  const fit = fitScene({ ...scene, views });
  if (!fit.ok) throw new Error(fit.code);
  const long = known(fit.value.distance('l', 'r'));
  expect(long.value).toBeCloseTo(750.2, 4);
  expect(long.sigma).toBeCloseTo(1 / Math.sqrt(5), 4);
  const high = known(fit.value.distance('l', 't', 'up'));
  expect(high.value).toBeCloseTo((500 * 750.2) / 750, 4);
  expect(high.sigma).toBeCloseTo(500 / 750 / Math.sqrt(5), 4);
});

it('shared lines carry a scale: a side view takes its own from base and top of the front', () => {
  const lines = {
    base: [0, 0, 0],
    top: [0, 0, 318],
    near: [0, 0, 0],
    far: [0, 140, 0],
    left: [0, 0, 0],
    right: [600, 0, 0],
  } as const;
  const world: World = {
    thing: lines,
    drawn: [
      {
        id: 'front',
        side: 'front',
        scale: 0.25,
        turn: 0,
        zero: [500, 2000],
        sized: { from: 'base', to: 'top', sigma: 0.1 },
      },
      { id: 'side', side: 'right', scale: 0.37, turn: 0, zero: [900, 2100] },
    ],
    click: 0.5,
    features: (all) =>
      all.map((feature) => ({
        ...feature,
        only:
          feature.id === 'base' || feature.id === 'top'
            ? 'up'
            : feature.id === 'near' || feature.id === 'far'
              ? 'deep'
              : 'across',
        seen: feature.seen.filter(
          ({ view }) => view === (feature.id === 'near' || feature.id === 'far' ? 'side' : view),
        ),
      })) as SceneFeature[],
  };
  const scene = simulatedScene(world);
  // Each view lies level: nothing else says how it is turned.
  const level = scene.views.map((view, i) => ({
    ...view,
    points: {
      ...view.points,
      h1: { at: [200, 2200] as const, sigma: 0.5 },
      h2: { at: [2800, 2200] as const, sigma: 0.5 },
    },
    evidence: [...view.evidence, { id: `level${i}`, kind: 'level' as const, line: ['h1', 'h2'] as const, degrees: 0 }],
  }));
  const fit = fitScene({ ...scene, views: level, features: scene.features.filter(({ only }) => only !== 'across') });
  if (!fit.ok) throw new Error(fit.code);
  const { value, sigma } = known(fit.value.distance('near', 'far'));
  expect(value).toBeCloseTo(140, 4);
  // 318 ±0.1 mm is what lies between the lines, however they were pointed at in the front; the side adds two clicks of half a pixel there, and two on its own 140 mm.
  const clicks = 0.37 * 0.5 * Math.SQRT2;
  expect(sigma).toBeCloseTo(Math.hypot((140 / 318) * Math.hypot(0.1, clicks), clicks), 3);
});

it('a box, each of whose sides is pointed at once in every view, gives views of whatever scale and place theirs', () => {
  const size: Vec3 = [1500, 580, 850];
  /** A place on a side of the box, anywhere along it. */
  const onSide = (axis: number, end: 0 | 1, share: number) =>
    size.map((far, k) => (k === axis ? end * far : share * far)) as unknown as Vec3;
  const lines = DIRECTIONS.flatMap((only, axis) =>
    ([0, 1] as const).map((end) => ({ id: `${only}${end}`, only, axis, end })),
  );
  const boxSeenAs = (drawn: readonly Drawn[], share: number): Scene => ({
    views: drawn.map(({ id, side, ...lies }): SceneView =>
      lyingByDatum({
        id,
        side,
        picture: { width: WIDTH, height: HEIGHT, kind: 'scan' },
        model: 'similarity',
        lens: 'none',
        evidence: [],
        lift: { mm: 0, sigma: 1 },
        datum: { origin: [0, HEIGHT], direction: 0 },
        points: Object.fromEntries(
          lines.map((line) => [
            line.id,
            { at: drawnAt({ side, ...lies }, onSide(line.axis, line.end, share)), sigma: 1 },
          ]),
        ),
      }),
    ),
    features: lines.map(({ id, only }): SceneFeature => ({
      id,
      only,
      seen: drawn.filter(({ side }) => showsAlong(side, only)).map((view) => ({ view: view.id, points: [id] })),
    })),
    evidence: DIRECTIONS.map((along, axis): SceneEvidence => ({
      kind: 'distance',
      id: along,
      from: `${along}0`,
      to: `${along}1`,
      along,
      mm: size[axis]!,
      sigma: 0.15,
    })),
  });
  const scale = fc.double({ min: 0.3, max: 3, noNaN: true });
  const at = fc.integer({ min: 0, max: 4000 });
  fc.assert(
    fc.property(fc.tuple(scale, scale, scale), fc.tuple(at, at, at), (scales, places) => {
      const drawn = SIDES3.map((side, i): Drawn => ({
        id: side,
        side,
        scale: scales[i]!,
        turn: 0,
        zero: [places[i]! - 500, 3000 - places[i]!],
      }));
      const fit = fitScene(standingByZero(boxSeenAs(drawn, 0.2)).scene);
      if (!fit.ok) throw new Error(fit.code);
      for (const { view, numbers } of fit.value.stands) {
        const map = modelOf(boxSeenAs(drawn, 0.2).views.find(({ id }) => id === view)!).mapAt(numbers, OWN_PLANE);
        const perPixel = (toPlane(map, [1000, 0])[0] - toPlane(map, [0, 0])[0]) / 1000;
        expect(perPixel / drawn.find(({ id }) => id === view)!.scale).toBeCloseTo(1, 5);
      }
    }),
    { seed: 4, numRuns: 60 },
  );
});
