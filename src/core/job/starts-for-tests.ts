/** For tests only: jobs that commands are done to. */
import { readFileSync } from 'node:fs';
import * as commands from '.';
import { createJob, readJob, runCommand, startHistory, type Command, type Job } from '.';

const demo = (name: string): Job => {
  const read = readJob(JSON.parse(readFileSync(`public/demo/${name}.json`, 'utf8')));
  if (!read.ok) throw new Error(`${name}: ${read.code}`);
  return read.value;
};

const onSite = (job: Job): readonly Command[] => [
  commands.addReference({
    id: 'plan-of-site',
    name: 'Site',
    file: 'd'.repeat(64),
    bytes: 9,
    format: 'dxf',
    plane: commands.SITE,
    shown: true,
    hiddenLayers: [],
  }),
  ...job.outlines
    .slice(0, 1)
    .map(({ plane }) =>
      commands.setOnPlane({ id: 'set', plane: commands.SITE, of: plane, holds: [], put: { at: [0, 0], turn: 0 } }, []),
    ),
];

const sharedBy = (job: Job): readonly Command[] => [
  ...['base', 'top'].map((id, i) =>
    commands.addFeature({
      id,
      name: id,
      along: 'up',
      said: {},
      seen: [0, 1].map((k) => ({
        id: `${id}${k}`,
        view: job.views[0]!.id,
        at: [50 + 900 * k, 900 - 400 * i],
        sigma: 1,
      })),
    }),
  ),
  commands.addSpan({
    id: 'rise',
    from: 'base',
    to: 'top',
    said: { value: 800, written: '800' },
    guess: false,
    role: 'use',
  }),
];

const madeOf = (job: Job): readonly Command[] =>
  job.outlines.slice(0, 1).map(({ id, plane, layer }) =>
    commands.addMade(
      {
        shape: 'made',
        id: 'beside',
        layer,
        plane,
        recipe: { kind: 'offset', of: [id], by: 2, both: false, corners: 'round' },
      },
      false,
    ),
  );

const lookedAt = (job: Job): readonly Command[] => [
  commands.addLook({ id: 'corner', name: 'Corner', fold: 1, turn: 0.6, tip: 0.4 }),
  commands.layBeside({ id: 'fronts', side: 'front', gap: 100 }),
  ...job.outlines
    .slice(0, 1)
    .map(({ id, plane }) => commands.putSetback({ id: 'keep', plane, on: [{ outline: id }], mm: 900 })),
  ...job.outlines
    .slice(0, 1)
    .map(({ id }) =>
      commands.setStandsOn(job.views[0]!.id, { outline: id, from: 'corner', ends: { from: 'base', to: 'top' } }),
    ),
  commands.addRegion({ id: 'bay', plane: job.views[0]!.plane, name: 'Bay', at: [500, 500], kind: 'room' }),
  commands.standByEye({
    id: 'leaf',
    plane: job.planes[0]!.id,
    thing: 'door',
    from: 'standing',
    at: { kind: 'pointed', at: [300, 300], sigma: 2 },
    turn: 0,
  }),
];

/** With two lines that its first view shows, and how far they are said to lie apart; its first drawing set on a plan of a site; a look, variants, something stood there. */
const withSharedLines = (job: Job): Job =>
  [...onSite(job), ...sharedBy(job), ...madeOf(job), ...lookedAt(job)].reduce(runCommand, startHistory(job)).job;

/** A new job, and demos to which everything was added that they lack. */
export const STARTS = [
  createJob('j', 'Job', new Date(0)),
  ...['shed', 'nest-half', 'hanger', 'blade-finished', 'blade-drawn', 'can'].map((name) => withSharedLines(demo(name))),
  demo('trowel'),
];
