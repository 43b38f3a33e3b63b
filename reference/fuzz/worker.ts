/** Reads inputs one by one in a process of its own, so that one that hangs or takes too much memory ends the process and not the run. */
import './quiet';
import { writeSync } from 'node:fs';
import { randomFrom, spoilt } from './mutate';
import { READERS, stuffOf, type Kind } from './readers';
import { seedsOf } from './seeds';

const [kind, from, to] = [process.argv[2] as Kind, Number(process.argv[3]), Number(process.argv[4])];
const seeds = seedsOf(kind);
/** Written before anything else is done: what is only queued would be lost with a process that hangs. */
function say(what: object): void {
  let left = Buffer.from(`${JSON.stringify(what)}\n`);
  while (left.length > 0) {
    try {
      left = left.subarray(writeSync(1, left));
    } catch (problem) {
      // The reader has not kept up.
      if ((problem as NodeJS.ErrnoException).code !== 'EAGAIN') throw problem;
    }
  }
}
for (let i = from; i < to; i++) {
  const input = spoilt(randomFrom(i), seeds[i % seeds.length]!, stuffOf(kind));
  say({ begins: i });
  try {
    say({ ends: i, isRead: READERS[kind](input) });
  } catch (problem) {
    say({
      ends: i,
      fails:
        problem instanceof Error
          ? `${problem.message} ${problem.stack?.split('\n')[1]?.trim() ?? ''}`
          : String(problem),
    });
  }
}
