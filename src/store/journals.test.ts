/** Journals as every version of the job document wrote them: jobs with evidence, outlines and openings, their last step undone. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { JOB_VERSION, renameJob } from '@/core/job';
import { openJob } from './own-desk';
import { keys } from './storage';
import { testCard, testDevice, testJob, testWindows } from './testing';

jest.mock('@react-native-async-storage/async-storage', () => ({ createAsyncStorage: () => ({}) }));
jest.mock('@/workers', () => ({ pictureWorker: {}, fileWorker: {} }));

interface Journal {
  readonly version: number;
  readonly snapshot: object;
  readonly head: object;
  readonly entries: readonly object[];
}

const FOLDER = join(__dirname, 'journals');
const journals = readdirSync(FOLDER).map((file) => JSON.parse(readFileSync(join(FOLDER, file), 'utf8')) as Journal);

/** A device on which an older version left a job. */
async function left({ snapshot, head, entries }: Journal) {
  const { storage, repository, device } = testDevice();
  await storage.commit({
    set: {
      [keys.snapshot('old')]: JSON.stringify(snapshot),
      [keys.head('old')]: JSON.stringify(head),
      [keys.card('old')]: JSON.stringify(testCard(testJob('old'))),
      [keys.draft('old')]: '{"name":"a tool that is gone"}',
      ...Object.fromEntries(entries.map((entry, i) => [keys.entry('old', i), JSON.stringify(entry)])),
    },
  });
  const open = async () => (await openJob('old', { storage, repository, surroundings: testWindows().newWindow() }))!;
  return { device, open };
}

it('there is one of every version before this', () =>
  expect(journals.map(({ version }) => version).sort((a, b) => a - b)).toEqual(
    Array.from({ length: JOB_VERSION - 1 }, (_, i) => i + 1),
  ));

it.each(journals.map((journal) => [journal.version, journal] as const))(
  'what version %i did and wrote comes back whole, and goes on as a job of now',
  async (version, journal) => {
    const { open } = await left(journal);
    const { jobs, opened, close } = await open();
    const { job } = jobs.getState();
    // The last step was undone: neither it nor what can be redone of it is there.
    expect([opened.isShortened, job.version, job.name, jobs.getState().history.entries]).toEqual([
      false,
      JOB_VERSION,
      'After',
      [],
    ]);
    const { evidence, points } = job.views[0]!;
    expect(evidence.length).toBeGreaterThanOrEqual(3);
    expect(evidence.flatMap(({ groups }) => groups.flat()).every((id) => points.some((point) => point.id === id))).toBe(
      true,
    );
    expect(job.outlines.length).toBeGreaterThanOrEqual(version === 2 || version === 3 ? 0 : 3);
    if (version === 7)
      expect(
        job.outlines.flatMap((outline) =>
          outline.shape === 'made' && 'openings' in outline.recipe ? outline.recipe.openings : [],
        ),
      ).toMatchObject([
        { id: 'door', corner: 'outer-0', way: 'on' },
        { id: 'window', corner: expect.any(String), way: 'back' },
      ]);

    if (version === 8)
      expect(job).toMatchObject({
        planes: [{ id: 'shed-view', liesOn: 'site' }, { id: 'site' }],
        guides: [{ plane: 'shed-view' }],
        parts: [{ plane: 'shed-view' }],
      });

    if (version === 14) expect(job.variants).toEqual([{ id: 'tops', side: 'top', gap: 300 }]);

    // What is done now is kept, and taken back to what the older version left.
    jobs.getState().run(renameJob('Now'));
    await jobs.getState().flush();
    await close();
    const again = await open();
    expect(again.jobs.getState().job).toEqual({ ...job, name: 'Now' });
    again.jobs.getState().undo();
    expect(again.jobs.getState().job).toEqual(job);
  },
);

it('an old journal with a change that is gone goes as far as it is whole, and says so', async () => {
  const { device, open } = await left(journals.find(({ version }) => version === 7)!);
  device.values.delete(keys.entry('old', 3));
  const { opened } = await open();
  expect(opened).toMatchObject({
    isShortened: true,
    history: { job: { name: 'Before', version: JOB_VERSION }, entries: [] },
  });
  expect(opened.history.job.outlines).toHaveLength(5);
});

it('entries that this version wrote onto a job that it had brought up, and not taken anew, still fit', async () => {
  const old = journals.find(({ version }) => version === 7)!;
  const { open } = await left({
    ...old,
    head: { cursor: 1, count: 1, snapshotAt: 0 },
    entries: [
      {
        name: { code: 'x', detail: {} },
        patches: [
          { op: 'replace', path: ['version'], value: JOB_VERSION },
          { op: 'replace', path: ['name'], value: 'Mixed' },
        ],
        inverse: [],
      },
    ],
  });
  expect((await open()).opened).toMatchObject({ isShortened: false, history: { job: { name: 'Mixed' } } });
});
