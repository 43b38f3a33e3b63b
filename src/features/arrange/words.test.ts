/** What is said of views together, of the demo in which a printed depth is wrong. */
import { nameForFeature } from '@/ui/feature-words';
import { readFileSync } from 'node:fs';
import { createDeriver } from '@/core/derive';
import { readJob, runCommand, setJoins, setSide, startHistory, type Command, type Job } from '@/core/job';
import { seenInWords, whereInWords } from './shared-words';
import { apartInWords, grownInWords, oddOnes, standingInWords } from './together-words';
import { sidesBySheet } from './proposed-sides';

const read = readJob(JSON.parse(readFileSync('public/demo/bench-views.json', 'utf8')));
if (!read.ok) throw new Error(read.code);
const demo = read.value;
const after = (...commands: readonly Command[]): Job => commands.reduce(runCommand, startHistory(demo)).job;
const derive = (job: Job) => createDeriver()(job).arranged;
const arranged = derive(demo);

it('the wrong size is said with what it comes to, and nothing else is blamed', () => {
  expect(oddOnes(demo, arranged, demo.units)).toEqual([
    expect.stringMatching(
      /^From Front edge to Rear edge is said to be 560, and comes to 58\d mm ±\d+(\.\d)?\. Read that size again, or hold it back\.$/,
    ),
  ]);
});

it('where things lie is said along each direction that is known, and that nothing tells it', () => {
  const seat = demo.features.find(({ id }) => id === 'seat')!;
  expect(whereInWords(seat, arranged, demo.units)).toMatch(/^up 4(39|40)(\.\d)? mm ±\d(\.\d)?$/);
  expect(whereInWords({ ...seat, id: 'nowhere' }, arranged, demo.units)).toBe('nothing tells yet where it lies');
  expect(seenInWords('Side', 2, arranged.stands.get('bench-side'), 'seat', demo.units)).toMatch(
    /^Seen in Side, 2 places, off by \d\.\d\d mm at most$/,
  );
  expect(seenInWords('Top', 1, undefined, 'seat', demo.units)).toBe('Seen in Top');
});

it('how a view stands: what it leaves over, and what joining does to its scale', () => {
  const [says, ...more] = standingInWords(arranged.stands.get('bench-front')!, demo.units);
  expect(says).toMatch(/^What it shows lies within \d\.\d\d mm of where all have it\.$/);
  expect(more).toEqual([]);
  const grown = arranged.grown.get('bench-front')!;
  expect(grownInWords(grown, true)).toMatch(
    /^All together make it 0\.0\d % (larger|smaller), within its own plus-minus/,
  );
  expect(grownInWords({ by: -0.04, sigma: 0.001 }, false)).toBe(
    'Joining would make it 4.00 % smaller, more than its own plus-minus of ±0.20 %.',
  );
});

it('a view that does not stand says why', () => {
  const apart = derive(after(setJoins('bench-side', false), setSide('bench-side', 'section'))).apart.get('bench-side');
  expect(apartInWords(apart?.why)).toBe('Say which side it shows, under Sides.');
  const alone = { ...demo, features: demo.features.filter(({ along }) => along === 'up') };
  expect(apartInWords(derive(alone).apart.get('bench-top')?.why)).toBe(
    'It shows nothing shared yet. Point at a shared line in it.',
  );
});

it('sides are proposed by how the views lie on their sheet', () => {
  const sides = (projection: 'first' | 'third') =>
    Object.fromEntries(sidesBySheet(demo, projection).map(({ view, side }) => [view, side]));
  expect(sides('third')).toEqual({ 'bench-front': 'front', 'bench-side': 'right', 'bench-top': 'top' });
  expect(sides('first')).toEqual({ 'bench-front': 'front', 'bench-side': 'left', 'bench-top': 'bottom' });
  expect(sidesBySheet({ views: demo.views.map(({ frame: _frame, ...view }) => view) }, 'third')).toEqual([]);
});

it('only the first line along a direction is called as that most often is, whatever the others are called', () => {
  const ground = { name: 'Ground', along: 'up' } as const;
  expect(nameForFeature('up', [])).toBe('Base line');
  expect(nameForFeature('up', [ground])).toBe('Line 2');
  expect(nameForFeature('across', [ground, { name: 'Centre line', along: 'up' }])).toBe('Line 2');
  expect(nameForFeature(undefined, [{ name: 'Place 1' }])).toBe('Place 2');
});
