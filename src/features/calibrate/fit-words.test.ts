/** What is said of a fit: where its doubt comes from, and what one is told to do about it, by what is known. */
import { readFileSync } from 'node:fs';
import { createDeriver, type FittedView } from '@/core/derive';
import { readJob, type EvidenceKind, type Job } from '@/core/job';
import { causeInWords, fitInWords } from './fit-words';

const UNITS = { style: 'mm', denominator: 16 } as const;
const read = readJob(JSON.parse(readFileSync('public/demo/blade-finished.json', 'utf8')));
if (!read.ok) throw new Error('the demo is not read');
const blade: Job = read.value;

/** The finished blade with evidence of some kinds only. */
function fittedWith(kinds: readonly EvidenceKind[]): FittedView {
  const [view] = blade.views;
  const evidence = view!.evidence.filter(({ kind, role }) => role === 'use' && kinds.includes(kind));
  return createDeriver()({ ...blade, views: [{ ...view!, evidence }] }).views.get(view!.id)!;
}
const originOf = ({ fit }: FittedView, part: string) => fit.parts.find((one) => one.part === part)?.from;

it('with a length alone nothing shows the tilt, and a rectangle settles it', () => {
  const fitted = fittedWith(['length']);
  expect(originOf(fitted, 'tilt')).toBe('assumed');
  expect(causeInWords(fitted)).toBe(
    'the tilt, which nothing here shows. A second length across the first, or a rectangle, settles it.',
  );
});

it('with a card that lies to one side the tilt is seen in part, and nobody is told to point at what is there already', () => {
  const fitted = fittedWith(['length', 'rectangle', 'straight']);
  expect(originOf(fitted, 'tilt')).toBe('partly');
  const said = fitInWords(fitted, UNITS).join(' ');
  expect(said).toContain('comes from the tilt, which is seen only in part.');
  expect(said).not.toContain('nothing here');
  expect(said).not.toContain('or a rectangle');
});

it.each<[readonly EvidenceKind[], string]>([
  [['rectangle'], 'the tilt, which is seen only in part'],
  [['rectangle', 'straight'], 'the tilt, which is seen only in part'],
  [['length', 'straight'], 'the tilt, which nothing here shows'],
])('by %j most of it comes from %s', (kinds, from) => {
  expect(causeInWords(fittedWith(kinds))).toContain(`${from}. A `);
});
