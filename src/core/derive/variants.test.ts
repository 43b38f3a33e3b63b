/** Alternatives of one thing: side by side on one base line, over each other, moved out of the way, and measured against each other. */
import fc from 'fast-check';
import { drawnAt, type Drawn } from '../arrange/simulated';
import { createRandom } from '../calibrate/simulation';
import { applied, boxAround, distance, type Vec } from '../geometry';
import { addOutline, layBeside, setHidden, setStandOff, type Command, type Job } from '../job';
import { jobOf } from '../job/for-tests';
import type { Vec3 } from '../space';
import { CLICK, drawn, joining, NOISELESS, RIGHT, sharedBy, shown, sized, THING } from './bench-for-tests';
import { compareVariants, createDeriver, foldedViews, listVariants, ontoVariant, type Folding } from '.';
import { shiftsSideBySide } from './variants';

/** Three sketches of a front, each at its own scale and a little askew. */
const PLAIN = drawn('plain', 'front');
const WIDE = drawn('wide', 'front', { scale: 0.75, turn: -0.008, zero: [420, 1800] });
const TALL = drawn('tall', 'front', { scale: 0.5, turn: 0.006, zero: [250, 2300] });
const SKETCHES = [PLAIN, WIDE, TALL];
const LAID: Folding = { fold: 0, turn: 0, tip: 0 };

const job = (more: readonly Command[] = [], noise = NOISELESS): Job =>
  jobOf([
    ...[...SKETCHES, RIGHT].flatMap(shown),
    ...[...SKETCHES, RIGHT].map((view) => sized(view, 'foot', 'back', 0.5, noise)),
    sharedBy([...SKETCHES, RIGHT], 'base', ['foot', 'end'], noise, 'up'),
    sharedBy(SKETCHES, 'left', ['foot'], noise, 'across'),
    sharedBy(SKETCHES, 'top', ['back'], noise, 'up'),
    ...more,
  ]);
const derive = (of: Job) => ({ job: of, derived: createDeriver()(of) });

/** What each view takes up as one looks at them, and where a place of the thing is in it. */
function lookAt(of: Job, folding = LAID) {
  const views = foldedViews(derive(of), folding);
  const found = (id: string) => views.find(({ fitted }) => fitted.source.id === id)!;
  return {
    ids: views.map(({ fitted }) => fitted.source.id),
    box: (id: string) => boxAround(found(id).rim.map((at) => applied(found(id).look, at))),
    at: (view: Drawn, name: string): Vec =>
      applied(found(view.id).look, found(view.id).fitted.fit.toPlane(drawnAt(view, THING[name]!))),
  };
}

it('views of one side are variants of it', () => {
  const [variants, ...others] = listVariants(derive(job()));
  expect(others).toEqual([]);
  expect([variants!.side, variants!.views.map(({ source }) => source.id)]).toEqual([
    'front',
    ['plain', 'wide', 'tall'],
  ]);
});

it('laid over each other, what is the same place lies in the same place', () => {
  const { derived } = derive(job());
  const placeIn = (view: Drawn, point: Vec3) => derived.views.get(view.id)!.fit.toPlane(drawnAt(view, point));
  for (const from of SKETCHES)
    for (const to of SKETCHES) {
      const [its, own] = [from, to].map(({ id }) => derived.arranged.stands.get(id)!);
      const [onto, back] = [ontoVariant(its!, own!), ontoVariant(own!, its!)];
      for (const point of Object.values(THING)) {
        const at = placeIn(from, point);
        // A sketch that lies askew is pulled that much to lying level.
        expect(distance(applied(onto, at), placeIn(to, point))).toBeLessThan(4);
        expect(distance(applied(back, applied(onto, at)), at)).toBeLessThan(1e-9);
      }
    }
});

it('side by side they keep their gap and their base line, and push aside what lies beside them', () => {
  const row = lookAt(job([layBeside({ id: 'fronts', side: 'front', gap: 250 })]));
  const [plain, wide, tall] = SKETCHES.map(({ id }) => row.box(id));
  expect(wide!.min[0] - plain!.max[0]).toBeCloseTo(250, 6);
  expect(tall!.min[0] - wide!.max[0]).toBeCloseTo(250, 6);
  expect(row.box(RIGHT.id).min[0]).toBeCloseTo(tall!.max[0], 6);
  const over = lookAt(job());
  for (const view of SKETCHES) {
    expect(row.at(view, 'foot')[1]).toBeCloseTo(over.at(view, 'foot')[1], 6);
    expect(distance(over.at(view, 'foot'), over.at(PLAIN, 'foot'))).toBeLessThan(1);
  }
  expect(row.at(PLAIN, 'foot')).toEqual(over.at(PLAIN, 'foot'));
  // What is hidden is not there, and those after it come nearer.
  const two = lookAt(job([layBeside({ id: 'fronts', side: 'front', gap: 250 }), setHidden('wide', true)]));
  expect(two.ids).not.toContain('wide');
  expect(two.box('tall').min[0] - two.box('plain').max[0]).toBeCloseTo(250, 6);
});

it('rows of any widths and gaps keep them', () =>
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: -5000, max: 5000 }), fc.integer({ min: 0, max: 4000 })), { minLength: 1 }),
      fc.integer({ min: -300, max: 3000 }),
      (spans, gap) => {
        const boxes = spans.map(([from, wide]) => ({ min: [from, 0] as Vec, max: [from + wide, 9] as Vec }));
        const shifts = shiftsSideBySide(boxes, gap);
        expect(shifts[0]).toBe(0);
        boxes
          .slice(1)
          .forEach(({ min }, i) => expect(min[0] + shifts[i + 1]! - (boxes[i]!.max[0] + shifts[i]!)).toBe(gap));
      },
    ),
  ));

it('a view that is moved out of the way goes just so far, and nothing of it changes but how it is looked at', () => {
  const off = { right: 300, up: -120, out: 900 };
  const [there, away] = [job(), job([setStandOff('wide', off)])];
  const [before, after] = [lookAt(there), lookAt(away)];
  for (const name of Object.keys(THING)) {
    const [from, to] = [before.at(WIDE, name), after.at(WIDE, name)];
    expect([to[0] - from[0], to[1] - from[1]]).toEqual([expect.closeTo(300, 6), expect.closeTo(-120, 6)]);
    expect(after.at(PLAIN, name)).toEqual(before.at(PLAIN, name));
  }
  // Seen from the right, what comes out of a front goes to the left.
  const beside: Folding = { fold: 0, turn: Math.PI / 2, tip: 0 };
  expect(lookAt(away, beside).at(WIDE, 'foot')[0] - lookAt(there, beside).at(WIDE, 'foot')[0]).toBeCloseTo(-900, 6);
  const [stood, standing] = [derive(away), derive(there)].map(({ derived }) => derived.arranged.stands.get('wide'));
  expect(stood).toEqual(standing);
  expect(lookAt(job([setStandOff('wide', off), setStandOff('wide', undefined)])).at(WIDE, 'foot')).toEqual(
    before.at(WIDE, 'foot'),
  );
});

/** A kite as high as the thing and `wider`: each of its corners is the one that is outermost. mm */
const kite = (view: Drawn, wider: number, noise: () => number): Command =>
  addOutline({
    shape: 'chain',
    id: `${view.id}-kite`,
    layer: 'outline',
    plane: view.id,
    closed: true,
    nodes: (
      [
        [700, 0],
        [1400 + wider, 300],
        [650, 860],
        [0, 500],
      ] as const
    ).map(([across, up], i) => {
      const [x, y] = drawnAt(view, [across, 0, up]);
      const at: Vec = [x + CLICK * noise(), y + CLICK * noise()];
      return { id: `${view.id}-${i}`, place: { kind: 'pointed', at, sigma: CLICK }, smooth: false };
    }),
    segments: Array.from({ length: 4 }, () => ({ kind: 'line' as const })),
  });

it('nothing to compare is said as nothing', () => {
  const drawnInOne = derive(job([kite(PLAIN, 0, NOISELESS)]));
  const [plain, wide] = [PLAIN, WIDE].map(({ id }) => drawnInOne.derived.views.get(id)!);
  expect(compareVariants(plain!, wide!, drawnInOne)).toBeUndefined();
  const both = derive(job([kite(PLAIN, 0, NOISELESS), kite(WIDE, 90, NOISELESS)]));
  const read = compareVariants(both.derived.views.get('plain')!, both.derived.views.get('wide')!, both)!;
  expect(read.more.width.value).toBeCloseTo(90, 0);
  expect(read.more.height.value).toBeCloseTo(0, 0);
});

it.each([
  ['each by its own fit', []],
  ['in one fit', joining(PLAIN, WIDE)],
])('by how much one is wider is wrong as far as it says: %s', (_, joined) => {
  const trials = 60;
  const misses = Array.from({ length: trials }, (__, trial) => {
    const noise = createRandom(400 + trial).normal;
    const traced = derive(job([...joined, kite(PLAIN, 0, noise), kite(WIDE, 90, noise)], noise));
    const [plain, wide] = [PLAIN, WIDE].map(({ id }) => traced.derived.views.get(id)!);
    const { width } = compareVariants(plain!, wide!, traced)!.more;
    return (width.value - 90) / width.sigma;
  });
  // The spread of so many trials is known to 9 %.
  const spread = Math.sqrt(misses.reduce((sum, miss) => sum + miss * miss, 0) / trials);
  expect(spread).toBeGreaterThan(0.82);
  expect(spread).toBeLessThan(1.2);
});
