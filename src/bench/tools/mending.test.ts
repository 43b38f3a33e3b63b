import { mendAll, type Check } from '@/core/derive';
import { runCommand } from '@/core/job';
import { checkShapes } from '@/core/outline';
import { startTool } from '.';
import { HandBench } from './bench-for-tests';

const LIMITS = { shortest: 0.5, touching: 0.001 };
let made = 0;
const newId = () => `mended${made++}`;
const check: Check = async (shapes, limits) => checkShapes(shapes, limits);

it('mends what meets, and leaves alone what is far apart', async () => {
  const bench = new HandBench('chain')
    .set([100, 100], [300, 100])
    .give({ kind: 'finish' })
    .set([300, 100], [300, 300])
    .give({ kind: 'finish' })
    .set([600, 300], [800, 300])
    .give({ kind: 'finish' });
  const mended = await mendAll(bench.history.job, 'v', LIMITS, { check, newId });
  expect(mended?.count).toBe(1);
  const after = runCommand(bench.history, mended!.command);
  expect(after.job.outlines).toHaveLength(2);
  expect(after.entries.length).toBe(bench.history.entries.length + 1);
  expect(await mendAll(after.job, 'v', LIMITS, { check, newId })).toBeUndefined();
  expect(await mendAll(bench.history.job, 'v', LIMITS, { check: async () => undefined, newId })).toBeUndefined();
});

it('makes a kink tangent, and takes a doubled line away', async () => {
  const bench = new HandBench('chain').set([100, 500], [400, 500]);
  bench.set_({ kind: 'arc' }).set([540, 553], [600, 700]).give({ kind: 'finish' });
  bench.tool = startTool('chain');
  bench.set([1000, 100], [1200, 100]).give({ kind: 'finish' }).set([1000, 100], [1200, 100]).give({ kind: 'finish' });
  const mended = (await mendAll(bench.history.job, 'v', LIMITS, { check, newId }))!;
  const { job } = runCommand(bench.history, mended.command);
  expect(job.outlines).toHaveLength(2);
  expect(job.relations.map(({ kind }) => kind)).toEqual(['tangent']);
});

it('joins many ends that meet, in rounds', async () => {
  const bench = new HandBench('chain');
  for (let i = 0; i < 9; i++) bench.set([100 + 100 * i, 100], [200 + 100 * i, 100 + 5 * i]).give({ kind: 'finish' });
  const ends = bench.history.job.outlines.length;
  expect(ends).toBe(9);
  const mended = (await mendAll(bench.history.job, 'v', { shortest: 50, touching: 0.001 }, { check, newId }))!;
  const { job } = runCommand(bench.history, mended.command);
  expect(job.outlines.length).toBeLessThan(ends);
  expect(runCommand(bench.history, mended.command).entries.length).toBe(bench.history.entries.length + 1);
});
