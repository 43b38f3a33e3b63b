import fc from 'fast-check';
import { drawnAt } from '@/core/arrange/simulated';
import { createDeriver, placedView } from '@/core/derive';
import { drawn, NOISELESS, RIGHT, sharedBy, shown, sized, THING } from '@/core/derive/bench-for-tests';
import { distance, type Vec } from '@/core/geometry';
import {
  addPlacedSheet,
  addSheet,
  createJob,
  createView,
  runCommand,
  setHidden,
  setLookOnly,
  startHistory,
  turnView,
  type Job,
  type Sheet,
} from '@/core/job';
import { changed, jobOf } from '@/core/job/for-tests';
import { layingBy, squaredUp, turned } from './laying';
import { laidUnder, listOthers } from './others';

const sheetOf = (id: string): Sheet => ({
  id,
  name: id,
  picture: 'a'.repeat(64),
  mediaType: 'image/png',
  bytes: 1,
  width: 2000,
  height: 1000,
  kind: 'scan',
  taken: {},
});

/** Three pictures of ground: two beside each other by their world files, 2 and 5 cm to a pixel, and one that lies nowhere. */
function threeViews(): Job {
  const maps = { left: [0.02, 0, 0, -0.02, 0, 40], right: [0.05, 0, 0, -0.05, 30, 45] } as const;
  let history = startHistory(createJob('j', 'Job', new Date(0)));
  for (const id of ['left', 'right', 'nowhere'] as const) {
    const [sheet, plain] = [sheetOf(id), createView(`${id}-view`, sheetOf(id))];
    const placed = id === 'nowhere' ? undefined : placedView(plain, sheet, { map: maps[id] }, history.job.site);
    if (placed && !placed.ok) throw new Error(placed.code);
    history = runCommand(
      history,
      placed ? addPlacedSheet(sheet, placed.value.view, placed.value.site) : addSheet(sheet, plain),
    );
  }
  return history.job;
}

const derivedOf = (job: Job) => createDeriver()(job);
const somePlace = fc.tuple(
  fc.double({ min: 0, max: 2000, noNaN: true }),
  fc.double({ min: 0, max: 1000, noNaN: true }),
);

it('others are those on the same plane that have a place on it and are shown', () => {
  const job = threeViews();
  const namesUnder = (of: Job, id: string) => {
    const derived = derivedOf(of);
    return listOthers(derived, derived.views.get(id)!).map(({ fitted: { view } }) => view.id);
  };
  expect([namesUnder(job, 'left-view'), namesUnder(job, 'right-view'), namesUnder(job, 'nowhere-view')]).toEqual([
    ['right-view'],
    ['left-view'],
    [],
  ]);
  expect(namesUnder(changed(job, setHidden('right-view', true)), 'left-view')).toEqual([]);
  expect(namesUnder(changed(job, setLookOnly('right-view', true)), 'left-view')).toEqual([]);
  // To scale, but on a plane of its own.
  expect(
    namesUnder(
      {
        ...job,
        planes: job.planes.map((plane) => (plane.id === 'right-view' ? { ...plane, liesOn: 'nowhere-view' } : plane)),
      },
      'left-view',
    ),
  ).toEqual([]);
});

it('each place of another picture lies where it is on the plane, however this one lies on the bench', () => {
  const derived = derivedOf(changed(threeViews(), turnView('left-view', 0.3)));
  const own = derived.views.get('left-view')!;
  const there = listOthers(derived, own)[0]!;
  const other = there.fitted;
  for (const laid of [undefined, turned(own), squaredUp(own)]) {
    const under = layingBy(laidUnder(there, own, { laid }));
    const toBench = laid ? layingBy(laid).toBench : (place: Vec) => place;
    fc.assert(
      fc.property(somePlace, (place) => {
        const bench = under.toBench(place);
        expect(distance(bench, toBench(own.fit.toSheet(other.fit.toPlane(place))))).toBeLessThan(1e-6);
        expect(distance(under.toSheet(bench), place)).toBeLessThan(1e-6);
      }),
    );
  }
  // A metre east of the left picture's corner is 50 px in it, and 20 px of the right one.
  const under = layingBy(laidUnder(there, own, {}));
  expect(distance(under.toBench([20, 0]), under.toBench([0, 0]))).toBeCloseTo(50, 1);
});

it('what shows the same side of the thing lies where the same of it is, and what shows another does not', () => {
  const [front, sketch] = [drawn('front', 'front'), drawn('sketch', 'front', { scale: 0.8, zero: [420, 1800] })];
  const seen = [front, sketch, RIGHT];
  const derived = derivedOf(
    jobOf([
      ...seen.flatMap(shown),
      ...seen.map((view) => sized(view, 'foot', 'back', 0.5, NOISELESS)),
      sharedBy(seen, 'base', ['foot', 'end'], NOISELESS, 'up'),
      sharedBy([front, sketch], 'left', ['foot'], NOISELESS, 'across'),
    ]),
  );
  const own = derived.views.get('front')!;
  const others = listOthers(derived, own);
  expect(others.map(({ fitted: { view } }) => view.id)).toEqual(['sketch']);
  const under = layingBy(laidUnder(others[0]!, own, {}));
  for (const point of Object.values(THING)) {
    const [there, here] = [drawnAt(sketch, point), drawnAt(front, point)];
    expect(distance(under.toBench(there), here)).toBeLessThan(2);
    expect(distance(under.toSheet(under.toBench(there)), there)).toBeLessThan(1e-6);
  }
});
