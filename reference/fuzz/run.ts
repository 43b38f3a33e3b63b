/**
 * Spoils files of every kind and reads them, for as long as one likes: npm run fuzz -- [inputs of each kind] [first seed] [kind]. What throws, hangs for 5 s of processor time, takes more than 1 GB or lets a number in that is none is
 * written to test-results/fuzz, with its seed in its name.
 */
import { fork } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { createInterface } from 'node:readline';
import { randomFrom, spoilt } from './mutate';
import { KINDS, stuffOf, type Kind } from './readers';
import { seedsOf } from './seeds';

const [count, first] = [Number(process.argv[2] ?? 10_000), Number(process.argv[3] ?? 1)];
const kinds = KINDS.filter((kind) => process.argv[4] === undefined || kind === process.argv[4]);
const FOLDER = 'test-results/fuzz';
const LONGEST_MS = 5000;
const MOST_MB = 1024;

interface Said {
  readonly begins?: number;
  readonly ends?: number;
  readonly isRead?: boolean;
  readonly fails?: string;
}

/** Hundredths of a second are what Linux counts in (proc(5): utime and stime are the 14th and 15th fields). Without it the clock has to do. */
function processorMs(pid: number): number {
  try {
    const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ');
    return 10 * (Number(fields[11]) + Number(fields[12]));
  } catch {
    return performance.now();
  }
}

interface Tally {
  at: number;
  read: number;
  slowest: number;
  failures: number;
}

function report(kind: Kind, seed: number, why: string, tally: Tally): void {
  tally.failures++;
  const seeds = seedsOf(kind);
  mkdirSync(FOLDER, { recursive: true });
  writeFileSync(`${FOLDER}/${kind}-${seed}`, spoilt(randomFrom(seed), seeds[seed % seeds.length]!, stuffOf(kind)));
  console.log(`${kind} ${seed}: ${why}`);
}

/** One process, until it is through or an input ends it; the tally says where the next one begins. */
function runProcess(kind: Kind, tally: Tally): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = fork(path.join(__dirname, 'worker.ts'), [kind, String(tally.at), String(first + count)], {
      execArgv: ['--import', 'tsx', `--max-old-space-size=${MOST_MB}`],
      silent: true,
    });
    let began: number | undefined;
    let why = 'ended by itself, out of memory perhaps';
    const watch = setInterval(() => {
      if (began === undefined || processorMs(child.pid!) - began < LONGEST_MS) return;
      why = `hangs for more than ${LONGEST_MS / 1000} s`;
      child.kill('SIGKILL');
    }, 250);
    createInterface({ input: child.stdout! }).on('line', (line) => {
      const { begins, ends, isRead, fails } = line.startsWith('{') ? (JSON.parse(line) as Said) : {};
      if (begins !== undefined) [began, tally.at] = [processorMs(child.pid!), begins];
      if (ends === undefined) return;
      tally.slowest = Math.max(tally.slowest, processorMs(child.pid!) - began!);
      began = undefined;
      if (isRead) tally.read++;
      if (fails) report(kind, ends, fails, tally);
      tally.at = ends + 1;
    });
    child.on('close', () => {
      clearInterval(watch);
      if (tally.at >= first + count) return resolve();
      if (began === undefined) return reject(new Error('the reading process does not start'));
      report(kind, tally.at++, why, tally);
      resolve();
    });
  });
}

async function run(): Promise<void> {
  let failures = 0;
  for (const kind of kinds) {
    const tally: Tally = { at: first, read: 0, slowest: 0, failures: 0 };
    while (tally.at < first + count) await runProcess(kind, tally);
    console.log(
      `${kind}: ${count} inputs, ${tally.read} of them read, the others refused; the slowest took ${Math.round(tally.slowest)} ms of the processor; ${tally.failures} failed`,
    );
    failures += tally.failures;
  }
  process.exitCode = failures === 0 ? 0 : 1;
}

void run();
