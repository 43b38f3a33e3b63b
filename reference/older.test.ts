import { readFileSync } from 'node:fs';
import { readJob, type Job } from '../src/core/job';
import { tellJob, type ToldOfJob } from './older/told';

/** Jobs as every version wrote them, and what they came to when version 8 was the newest; their files as they were written last, of which no number differs from what was written then by more than 3·10⁻⁷ mm. Drawings
 * of photographs whose places relations hold were recorded anew when edges of things came to be known to 0.04 mm only, which weighs free places and caught ones otherwise: they moved by up to 3 µm. So was
 * the plus-minus of what lies beside outlines of which sizes are said: those tell of the fit, which was not counted before (a third less at most). */
const jobs = JSON.parse(readFileSync('reference/older/jobs.json', 'utf8')) as readonly Job[];
const told = JSON.parse(readFileSync('reference/older/told.json', 'utf8')) as readonly ToldOfJob[];

/** Of a figure: relative, and in mm where it is about nothing. A search has settled when it moves by less than a hundred thousandth of a sigma. */
const SAME = 1e-7;
/** Of a plus-minus, and the share of it that is the hand's: version 8 took slopes along single unknowns, off what relations say, which is up to 2.3 % off on a bent bar. */
const AS_DOUBTFUL = 0.03;
/** What rounding leaves of a figure that nothing moves, mm². */
const ROUNDING = 1e-7;
const toleranceOf = (name: string, was: number) =>
  /±|pointed/.test(name) ? ROUNDING + AS_DOUBTFUL * Math.abs(was) : SAME * (1 + Math.abs(was));

it.each(jobs.map((job, i) => [job.version as number, job.id, job, told[i]!] as const))(
  'a job of version %i (%s) opens and comes to the same figures and files',
  (_, __, json, before) => {
    const read = readJob(json);
    if (!read.ok) throw new Error(`${read.code} ${JSON.stringify(read.detail)}`);
    const now = tellJob(read.value);
    expect(Object.keys(now.numbers)).toEqual(Object.keys(before.numbers));
    const moved = Object.entries(before.numbers).filter(
      ([name, was]) => !(Math.abs(now.numbers[name]! - was) <= toleranceOf(name, was)),
    );
    expect(moved).toEqual([]);
    expect(now.files).toEqual(before.files);
  },
);

it('every version is there', () => {
  const versions = new Set(jobs.map(({ version }) => version as number));
  expect([...versions]).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16]);
});
