/** A bounded share of what `npm run fuzz` does for as long as one likes: none throws, none lets a number in that is none. What hangs runs into the time limit of its test. */
import './quiet';
import { randomFrom, spoilt } from './mutate';
import { KINDS, READERS, stuffOf } from './readers';
import { seedsOf } from './seeds';

const COUNT: Partial<Record<(typeof KINDS)[number], number>> = {
  job: 250,
  bundle: 150,
  solve: 120,
  dxf: 400,
  length: 20_000,
  angle: 20_000,
  world: 5000,
  geojson: 2000,
};

it.each(KINDS)(
  '%s: a whole one is read, spoilt ones are read or refused',
  (kind) => {
    const seeds = seedsOf(kind);
    for (const seed of seeds) READERS[kind](seed);
    const failures: string[] = [];
    for (let i = 0; i < (COUNT[kind] ?? 800); i++) {
      const random = randomFrom(1 + i);
      const input = spoilt(random, seeds[i % seeds.length]!, stuffOf(kind));
      try {
        READERS[kind](input);
      } catch (problem) {
        failures.push(
          `${kind} ${i}: ${problem instanceof Error ? `${problem.message} ${problem.stack?.split('\n')[1] ?? ''}` : String(problem)}`,
        );
      }
    }
    expect(failures.slice(0, 5)).toEqual([]);
  },
  60_000,
);
