/** A box of typed sizes, pointed at in two views that have no size of their own: it gives them their scale. */
import { createDeriver } from '@/core/derive';
import {
  addSheet,
  createView,
  runCommand,
  seeFeature,
  setJoins,
  setSide,
  type Command,
  type History,
  type Job,
} from '@/core/job';
import { jobOf, scanOf } from '@/core/job/for-tests';
import { parseSize } from '@/core/units';
import { startHistory, undo } from '@/core/job';
import { boxFirst, type BoxSizes } from './box-first';

const typed = (written: string) => {
  const size = parseSize(written, 'mm');
  if (!size.ok) throw new Error(size.code);
  return { written, size: size.value };
};
const countingIds = () => {
  let made = 0;
  return () => `new${made++}`;
};
const after = (job: Job, ...commands: readonly Command[]) => commands.reduce(runCommand, startHistory(job));
const viewOf = (id: string) => {
  const sheet = { ...scanOf(3000, 2000), id, name: id };
  return addSheet(sheet, { ...createView(id, sheet), model: 'similarity', lens: 'none' });
};
const begun = (sizes: BoxSizes, of = '', job = jobOf([viewOf('front'), setSide('front', 'front')])): History => {
  const command = boxFirst(
    sizes,
    of,
    job.features.map(({ name }) => name),
    countingIds(),
  );
  return after(job, ...(command ? [command] : []));
};

it('each typed size is two lines and what lies between them; what is not typed is not there', () => {
  const { job, entries } = begun({ across: typed('1500 ± 4'), up: typed('about 850') }, ' the arms ');
  expect(job.features.map(({ name, along, seen }) => [name, along, seen])).toEqual([
    ['Left side (the arms)', 'across', []],
    ['Right side (the arms)', 'across', []],
    ['Underside (the arms)', 'up', []],
    ['Top (the arms)', 'up', []],
  ]);
  const [left, right, under, top] = job.features.map(({ id }) => id);
  expect(job.spans).toMatchObject([
    { from: left, to: right, said: { value: 1500, written: '1500 ± 4' }, plusMinus: 4, guess: false, role: 'use' },
    { from: under, to: top, said: { value: 850 }, guess: true },
  ]);
  expect(entries).toHaveLength(1);
  expect(undo(begun({ deep: typed('580') })).job.features).toEqual([]);
  expect(begun({}).entries).toEqual([]);
});

it('a second box of the same has names of its own', () => {
  const { job } = begun({ up: typed('850') });
  const next = boxFirst(
    { up: typed('440') },
    '',
    job.features.map(({ name }) => name),
    () => `other${Math.random()}`,
  )!;
  expect(after(job, next).job.features.map(({ name }) => name)).toEqual(['Underside', 'Top', 'Underside 2', 'Top 2']);
});

it('views without a size of their own are fitted into it', () => {
  const sides = [viewOf('front'), viewOf('top'), setSide('front', 'front'), setSide('top', 'top')];
  const { job } = begun({ across: typed('1500'), deep: typed('580'), up: typed('850') }, '', jobOf(sides));
  const seen: readonly (readonly [string, string, readonly [number, number]])[] = [
    // Half a millimetre a pixel in the front, and two thirds in the top.
    ['Left side', 'front', [0, 500]],
    ['Right side', 'front', [3000, 500]],
    ['Underside', 'front', [300, 1800]],
    ['Top', 'front', [300, 100]],
    ['Left side', 'top', [100, 500]],
    ['Right side', 'top', [2350, 500]],
    ['Front face', 'top', [300, 1400]],
    ['Back face', 'top', [300, 530]],
  ];
  const pointed = seen.map(([name, view, at], i) =>
    seeFeature(job.features.find((feature) => feature.name === name)!.id, { id: `s${i}`, view, at, sigma: 1 }),
  );
  const { views, arranged } = createDeriver()(
    after(job, ...pointed, setJoins('front', true), setJoins('top', true)).job,
  );
  const perPixel = (view: string) => {
    const { fit } = views.get(view)!;
    const [a, b] = [fit.toPlane([500, 900]), fit.toPlane([1500, 900])];
    return Math.hypot(b[0] - a[0], b[1] - a[1]) / 1000;
  };
  expect(perPixel('front')).toBeCloseTo(0.5, 3);
  expect(perPixel('top')).toBeCloseTo(2 / 3, 2);
  expect([...arranged.spans.values()].every(({ suspect }) => !suspect)).toBe(true);
});
