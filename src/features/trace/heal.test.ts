import { Bench } from '@/bench/tools/bench-for-tests';
import { startTool } from '@/bench/tools';
import { runCommand } from '@/core/job';
import { mendAll } from './heal';

const LIMITS = { shortest: 0.5, touching: 0.001 };

it('mends what meets, and leaves alone what is far apart', () => {
  const bench = new Bench('chain').set([100, 100], [300, 100]).give({ kind: 'finish' }).set([300, 100], [300, 300]).give({ kind: 'finish' }).set([600, 300], [800, 300]).give({ kind: 'finish' });
  const mended = mendAll(bench.history.job, 'v', LIMITS);
  expect(mended?.count).toBe(1);
  const after = runCommand(bench.history, mended!.command);
  expect(after.job.outlines).toHaveLength(2);
  expect(after.entries.length).toBe(bench.history.entries.length + 1);
  expect(mendAll(after.job, 'v', LIMITS)).toBeUndefined();
});

it('makes a kink tangent, and takes a doubled line away', () => {
  const bench = new Bench('chain').set([100, 500], [400, 500]);
  bench.set_({ kind: 'arc' }).set([540, 553], [600, 700]).give({ kind: 'finish' });
  bench.tool = startTool('chain');
  bench.set([1000, 100], [1200, 100]).give({ kind: 'finish' }).set([1000, 100], [1200, 100]).give({ kind: 'finish' });
  const mended = mendAll(bench.history.job, 'v', LIMITS)!;
  const { job } = runCommand(bench.history, mended.command);
  expect(job.outlines).toHaveLength(2);
  expect(job.relations.map(({ kind }) => kind)).toEqual(['tangent']);
});
