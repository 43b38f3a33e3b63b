/** What a job cannot hold is seen before it is done, part by part as the whole would be. */
import {
  createJob,
  createView,
  addOutline,
  addSheet,
  isHoldable,
  readJob,
  renameJob,
  runCommand,
  startHistory,
  type Job,
  type Sheet,
} from '.';
import type { Chain } from '../outline';

const sheet: Sheet = {
  id: 's',
  name: 'Bench',
  picture: 'a'.repeat(64),
  mediaType: 'image/jpeg',
  bytes: 1,
  width: 4000,
  height: 3000,
  kind: 'photo',
  taken: {},
};
const chain = (id: string): Chain => ({
  shape: 'chain',
  id,
  layer: 'outline',
  plane: 'v',
  closed: true,
  nodes: [0, 1, 2].map((i) => ({ id: `n${i}`, place: { kind: 'pointed', at: [i, i * i], sigma: 1 }, smooth: false })),
  segments: [{ kind: 'line' }, { kind: 'line' }, { kind: 'line' }],
});
const whole: Job = [
  addSheet(sheet, createView('v', sheet)),
  ...Array.from({ length: 120 }, (_, i) => addOutline(chain(`c${i}`))),
].reduce((history, command) => runCommand(history, command), startHistory(createJob('j', 'Job', new Date(0)))).job;
const changedTo = (change: Partial<Job>): Job => ({ ...whole, ...change });

const CHANGES: readonly (readonly [string, Partial<Job>])[] = [
  ['another name', { name: 'Blade' }],
  ['no name', { name: '' }],
  ['a name of a thousand letters', { name: 'x'.repeat(1000) }],
  [
    'an answer as long as a letter',
    {
      asked: [
        { id: 'a', what: 'the post', answer: { value: 3, written: '3'.repeat(81) } } as unknown as NonNullable<
          Job['asked']
        >[number],
      ],
    },
  ],
  [
    'a view that lost its points',
    {
      views: whole.views.map((view) => ({
        ...view,
        evidence: [
          { id: 'e', kind: 'length' as const, groups: [['p', 'q']], said: {}, guess: false, role: 'use' as const },
        ],
      })),
    },
  ],
  [
    'more named regions than there may be',
    {
      regions: Array.from(
        { length: 2001 },
        (_, i) =>
          ({ id: `r${i}`, view: 'v', at: [0, 0], name: 'Room', kind: 'room' }) as unknown as Job['regions'][number],
      ),
    },
  ],
  ['a number that is none', { shortest: Number.NaN }],
  [
    'a place that is none',
    {
      outlines: [
        ...whole.outlines,
        {
          ...chain('x'),
          nodes: chain('x').nodes.with(0, {
            id: 'n0',
            place: { kind: 'pointed', at: [Infinity, 0], sigma: 1 },
            smooth: false,
          }),
        },
      ],
    },
  ],
  ['an outline on a layer that is gone', { layers: whole.layers.slice(1) }],
  ['no layers', { layers: [] }],
  ['one outline fewer', { outlines: whole.outlines.slice(1) }],
  ['a field that nobody knows', { made: 1 } as unknown as Partial<Job>],
];

it.each(CHANGES)('%s: as it would be read again', (_name, change) => {
  const after = changedTo(change);
  const isKnown = Object.keys(change).every((key) => key in whole || key === 'asked');
  expect(isHoldable(whole, after)).toBe(isKnown && readJob(JSON.parse(JSON.stringify(after))).ok);
});

it('looks at what was changed by commands', () => {
  const history = startHistory(whole);
  expect(isHoldable(whole, runCommand(history, renameJob('Gate')).job)).toBe(true);
  expect(isHoldable(whole, runCommand(history, renameJob('G'.repeat(300))).job)).toBe(false);
});

it('an old job full of nulls is refused, not thrown', () => {
  expect(readJob({ format: 'bryony-job', version: 1, views: [null] })).toMatchObject({
    ok: false,
    code: 'job-damaged',
  });
  expect(
    readJob({ format: 'bryony-job', version: 7, outlines: [null, { recipe: { openings: [null] } }] }),
  ).toMatchObject({ ok: false, code: 'job-damaged' });
});
