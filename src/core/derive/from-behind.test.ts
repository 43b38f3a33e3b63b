/** Two views of one sheet that share what is known of it, one of them seen from behind: left and right are exchanged, and all that is uncertain is uncertain once. */
import { fitSigma, measuredPlace } from '../calibrate';
import type { Vec } from '../geometry';
import {
  addEvidence,
  addFeature,
  addSheet,
  createView,
  cutView,
  mirrorView,
  runCommand,
  setJoins,
  setSide,
  startHistory,
  type Command,
  type Job,
} from '../job';
import { jobOf, scanOf } from '../job/for-tests';
import { createDeriver } from '.';

const sheet = { ...scanOf(3000, 2000), id: 's' };
const sees = (view: string, name: string, at: Vec) => ({ id: `${name}-${view}`, view, at, sigma: 1 });
const ZERO: Readonly<Record<string, Vec>> = { front: [200, 1900], rear: [1700, 1880] };

/** A line that lies level in both, so many px above their zeros. */
const level = (name: string, above: number): Command =>
  addFeature({
    id: name,
    name,
    along: 'up',
    said: {},
    seen: Object.entries(ZERO).map(([view, [x, y]]) => sees(view, name, [x + 300, y - above])),
  });

const job = jobOf([
  addSheet(sheet, { ...createView('front', sheet), datum: { origin: ZERO.front!, direction: 0 } }),
  addEvidence(
    'front',
    {
      id: 'e',
      kind: 'length',
      groups: [['p', 'q']],
      said: { length: { value: 400, written: '400' } },
      plusMinus: 2,
      guess: false,
      role: 'use',
    },
    [
      { id: 'p', at: [300, 1000], sigma: 0.5 },
      { id: 'q', at: [1300, 1010], sigma: 0.5 },
    ],
  ),
  cutView({ ...createView('rear', sheet), shares: 'front', datum: { origin: ZERO.rear!, direction: 0 } }),
  setSide('front', 'front'),
  setSide('rear', 'back'),
  level('base', 0),
  level('rail', 900),
]);
const run = (...commands: readonly Command[]): Job => commands.reduce(runCommand, startHistory(job)).job;
const together = [setJoins('front', true), setJoins('rear', true)];

it.each([
  ['by themselves', []],
  ['fitted together', together],
] as const)('%s: what it shows lies the other way round, as large and as high', (_, joined) => {
  const [plain, behind] = [run(...joined), run(mirrorView('rear'), ...joined)].map(
    (of) => createDeriver()(of).views.get('rear')!.fit,
  );
  for (const at of [
    [1700, 1880],
    [2400, 1500],
    [900, 300],
  ] as const) {
    const [[x, y], [u, v]] = [plain!.toPlane(at), behind!.toPlane(at)];
    expect([u, v]).toEqual([expect.closeTo(-x, 6), expect.closeTo(y, 6)]);
    expect(behind!.toSheet([u, v])).toEqual(at.map((px) => expect.closeTo(px, 6) as number));
    const measured = measuredPlace(behind!, { at, sigma: 1, height: 0 });
    expect(measured.map(({ value }) => value)).toEqual([expect.closeTo(u, 6), expect.closeTo(v, 6)]);
  }
});

it('turned round and back it is seen so each time', () => {
  const derive = createDeriver();
  const way = (of: Job) => {
    const { toPlane } = derive(of).views.get('rear')!.fit;
    return toPlane([1700, 500])[1] - toPlane([1700, 1500])[1];
  };
  // Its zero line stays what is level: from behind what is over it lies under it.
  const behind = { ...job, views: job.views.map((view) => (view.id === 'rear' ? { ...view, mirrored: true } : view)) };
  const first = way(job);
  expect([way(behind), way(job)]).toEqual([expect.closeTo(-first, 6), first]);
});

it('by themselves they stand on one fit: its doubts are counted once', () => {
  const { views } = createDeriver()(run(mirrorView('rear')));
  expect(views.get('rear')!.fit.covariance).toBe(views.get('front')!.fit.covariance);
  expect(views.get('rear')!.fit.values).toBe(views.get('front')!.fit.values);
});

it('fitted together, one size on the sheet is one piece of evidence, not two', () => {
  const sigmasOf = (of: Job) => [...createDeriver()(of).views.values()].map(({ fit }) => fit.scaled && fitSigma(fit));
  const [plain, behind] = [sigmasOf(run(...together)), sigmasOf(run(mirrorView('rear'), ...together))];
  const { scene } = createDeriver()(run(mirrorView('rear'), ...together)).arranged;
  expect(scene!.views.map(({ evidence }) => evidence.some(({ id }) => id === 'e'))).toEqual([true, false]);
  behind.forEach((sigma, i) => expect(sigma).toBeCloseTo(plain[i] as number, 6));
});
