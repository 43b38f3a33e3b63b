/** Things stood in a view to judge it by eye, as a hand does it. */
import { runCommand, setSide } from '@/core/job';
import { HandBench } from './bench-for-tests';
import { toolOf } from '.';

const benchOf = () => new HandBench('byEye');
const stoodOn = (bench: HandBench) =>
  bench.history.job.byEye.map(({ thing, from, at: { at } }) => [thing, from, ...at]);

it('goes where it is pointed: first there, then elsewhere, then nudged', () => {
  const bench = benchOf();
  bench.give({ kind: 'set', aim: bench.aim(300, 900) });
  expect(stoodOn(bench)).toEqual([['door', 'standing', 300, 900]]);
  bench.give({ kind: 'set', aim: bench.aim(700, 880) });
  bench.give({ kind: 'nudge', by: [2, -1], sigma: 0.4 });
  expect(stoodOn(bench)).toEqual([['door', 'standing', 702, 879]]);
});

it('something else stands beside it, and either is chosen by its foot', () => {
  const bench = benchOf();
  bench.give({ kind: 'set', aim: bench.aim(300, 900) }, { kind: 'cancel' });
  bench.give({ kind: 'set', aim: bench.aim(900, 900) });
  const [first, second] = bench.history.job.byEye.map(({ id }) => id);
  expect(bench.tool.state).toMatchObject({ chosen: second });
  bench.give({ kind: 'set', aim: bench.aim(303, 902) });
  expect(bench.tool.state).toMatchObject({ chosen: first });
  expect(stoodOn(bench)).toEqual([
    ['door', 'standing', 300, 900],
    ['door', 'standing', 900, 900],
  ]);
});

it('is seen from above in a plan', () => {
  const bench = benchOf();
  bench.history = runCommand(bench.history, setSide('v', 'top'));
  bench.give({ kind: 'set', aim: bench.aim(300, 900) });
  expect(stoodOn(bench)).toEqual([['door', 'above', 300, 900]]);
});

it('says why not while there is no scale', () => {
  const bench = new HandBench('byEye', false);
  bench.give({ kind: 'set', aim: bench.aim(300, 900) });
  expect([bench.said, stoodOn(bench)]).toEqual([['by-eye-needs-scale'], []]);
  expect(toolOf(bench.tool).setsNoPoint?.(bench.tool.state)).toBe(true);
});
