import { readFileSync } from 'node:fs';
import { readJob, runCommand, setDatum, startHistory, type Job } from '../job';
import { createDeriver, datumTurned, findAskew, measureExtent, outlinesLeaving } from '.';

const finished = readJob(JSON.parse(readFileSync('public/demo/blade-finished.json', 'utf8')));
if (!finished.ok) throw new Error(finished.code);
const truth = JSON.parse(readFileSync('demo/truth/blade.json', 'utf8')) as { blade: { width: number; depth: number } };

function extentOf(job: Job) {
  const view = job.views[0]!;
  const derived = createDeriver()(job);
  return measureExtent(outlinesLeaving(job, { plane: view.plane }), { job, derived }, derived.shapes)!;
}

it('the finished blade is as large as it is in truth, within what is said', () => {
  const { width, height, own } = extentOf(finished.value);
  const [along, across] = own ? [own.along, own.across] : [width, height];
  expect(Math.abs(along.value - truth.blade.width)).toBeLessThan(3 * along.sigma);
  expect(Math.abs(across.value - truth.blade.depth)).toBeLessThan(3 * across.sigma);
  expect(along.sigma).toBeLessThan(2);
});

it('lying askew it is as large along its own longest edge, though not level and upright', () => {
  const view = finished.value.views[0]!;
  const before = extentOf(finished.value);
  const turned = runCommand(
    startHistory(finished.value),
    setDatum(view.id, { ...view.datum, direction: view.datum.direction + 0.35 }),
  ).job;
  const after = extentOf(turned);
  const [long, wide] = before.own ? [before.own.along, before.own.across] : [before.width, before.height];
  expect(Math.abs(after.own!.angle)).toBeGreaterThan(0.1);
  expect(after.own!.along.value).toBeCloseTo(long.value, 3);
  expect(after.own!.across.value).toBeCloseTo(wide.value, 3);
  expect(Math.abs(after.height.value - wide.value)).toBeGreaterThan(10);
});

it.each([0.35, -0.2, 0.03])(
  'askew by %d, level is laid along its longest edge: then it lies straight, and is as large as before',
  (by) => {
    const view = finished.value.views[0]!;
    const read = (job: Job) => {
      const derived = createDeriver()(job);
      return {
        askew: findAskew(job.outlines, { job, derived }, derived.shapes),
        fitted: derived.views.get(view.id)!,
      };
    };
    const turned = runCommand(
      startHistory(finished.value),
      setDatum(view.id, { ...view.datum, direction: view.datum.direction + by }),
    ).job;
    const { askew, fitted } = read(turned);
    expect(Math.abs(askew!.value)).toBeGreaterThan(3 * askew!.sigma);
    const straight = runCommand(startHistory(turned), setDatum(view.id, datumTurned(fitted, askew!.value))).job;
    expect(read(straight).askew).toBeUndefined();
    const [before, after] = [extentOf(turned), extentOf(straight)];
    expect(after.own).toBeUndefined();
    expect([after.width.value, after.height.value].sort()).toEqual(
      [before.own!.along.value, before.own!.across.value].sort().map((size) => expect.closeTo(size, 1)),
    );
  },
);

it('nothing has no size', () => {
  const derived = createDeriver()(finished.value);
  expect(measureExtent([], { job: finished.value, derived }, derived.shapes)).toBeUndefined();
});
