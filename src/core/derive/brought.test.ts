/** What is brought in from another job: whole, under names of its own, and where it belongs by what both jobs name. */
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { drawnAt, type Drawn } from '../arrange/simulated';
import {
  addFeature,
  addLayer,
  addOutline,
  bringPart,
  listMatching,
  partOfJob,
  readJob,
  runCommand,
  startHistory,
  undo,
  withNewIds,
  type Job,
} from '../job';
import { jobOf } from '../job/for-tests';
import { STARTS } from '../job/starts-for-tests';
import { writeDxf } from '../formats';
import { distance3, fromSpace, toSpace } from '../space';
import { FRONT, joining, NOISELESS, RIGHT, sharedBy, shown, sized, THING, TOP, zero } from './bench-for-tests';
import { createDeriver, drawingOf } from '.';

const counting = (prefix: string) => {
  let count = 0;
  return () => `${prefix}${count++}`;
};
const brought = (into: Job, from: Job, views = from.views.map(({ id }) => id), prefix = 'new') =>
  runCommand(startHistory(into), bringPart(withNewIds(partOfJob(from, views), counting(prefix))));
const idsOf = (value: unknown): readonly string[] =>
  typeof value !== 'object' || value === null
    ? []
    : Object.entries(value).flatMap(([key, item]) => (key === 'id' && typeof item === 'string' ? [item] : idsOf(item)));

it('under other ids a job is the same job', () => {
  for (const job of STARTS) {
    const there = withNewIds(job, counting('other'));
    const back = new Map(idsOf(there).map((id, i) => [id, idsOf(job)[i]!]));
    expect([
      job.name,
      readJob(there).ok,
      idsOf(there).filter((id) => id !== 'site' && idsOf(job).includes(id)),
    ]).toEqual([job.name, true, []]);
    // With the old ids in their places again nothing is another.
    const text = JSON.stringify(there).replace(/"other\d+"/g, (id) => JSON.stringify(back.get(id.slice(1, -1))));
    expect(JSON.parse(text)).toEqual(JSON.parse(JSON.stringify(job)));
  }
});

it('a layer lies at its own level, and rises to its own', () => {
  const level = (id: string) => addFeature({ id, name: id, along: 'up', said: { up: zero }, seen: [] });
  const storey = { id: 'storey', name: 'Storey', color: 'ink', show: true, lock: false } as const;
  const house = jobOf([
    ...shown(TOP),
    level('floor'),
    level('eaves'),
    addLayer({ ...storey, liesAt: 'floor', risesTo: 'eaves' }),
    addOutline({
      shape: 'circle',
      id: 'post',
      plane: TOP.id,
      layer: 'storey',
      by: {
        kind: 'rim',
        centre: { kind: 'pointed', at: [500, 500], sigma: 1 },
        rim: { kind: 'pointed', at: [560, 500], sigma: 1 },
      },
    }),
  ]);
  const { features, layers } = withNewIds(house, counting('other'));
  const [floor, eaves] = ['floor', 'eaves'].map((name) => features.find((feature) => feature.name === name)!.id);
  expect(layers.find(({ name }) => name === 'Storey')).toMatchObject({ liesAt: floor, risesTo: eaves });
  // Brought into another job they are there, though no view shows them.
  const there = brought(jobOf(shown(FRONT)), house).job;
  const ids = there.features.map(({ id }) => id);
  const own = there.layers.find(({ name }) => name === 'Storey')!;
  expect([ids.includes(own.liesAt!), ids.includes(own.risesTo!)]).toEqual([true, true]);
});

it('the centre of a circle is its centre, also where something else has that name', () => {
  const blade = STARTS.find(({ id }) => id === 'blade-drawn')!;
  const named = JSON.parse(JSON.stringify(blade).replaceAll('"blade-part"', '"centre"')) as Job;
  const ends = withNewIds(named, counting('other')).dimensions.flatMap(({ on }) => on.map(({ node }) => node));
  expect(ends.filter((node) => node === 'centre')).toHaveLength(2);
});

/** Every word that a job says by a field of few words, wherever that is. */
const WORDS = [
  ...new Set(
    [
      readFileSync('src/core/job/schema.ts', 'utf8'),
      ...['recipe', 'region', 'feature', 'by-eye', 'siting', 'variants', 'evidence', 'cleaning'].map((name) =>
        readFileSync(`src/core/job/${name}.ts`, 'utf8'),
      ),
    ]
      .join('')
      .match(/'[a-z-]+'/g)!
      .map((word) => word.slice(1, -1)),
  ),
];

it('also where ids are words that say something elsewhere', () => {
  expect(WORDS).toEqual(expect.arrayContaining(['left', 'right', 'standing', 'line', 'pointed', 'start']));
  for (const job of STARTS)
    for (const first of [0, 17, 40]) {
      let at = first;
      const worded = withNewIds(job, () => WORDS[at++ % WORDS.length] + (at > WORDS.length + first ? String(at) : ''));
      const read = readJob(worded);
      expect([job.name, read.ok || read]).toEqual([job.name, true]);
      const there = readJob(withNewIds(worded, counting('other')));
      expect([job.name, there.ok || there]).toEqual([job.name, true]);
    }
});

it('any views of any job come into any other, twice too: it can be read, and all of it is taken back by one step', () => {
  let count = 0;
  fc.assert(
    fc.property(
      fc.constantFrom(...STARTS),
      fc.constantFrom(...STARTS),
      fc.infiniteStream(fc.boolean()),
      (into, from, chosen) => {
        const views = from.views.filter(() => chosen.next().value).map(({ id }) => id);
        const once = brought(into, from, views);
        const twice = runCommand(once, bringPart(withNewIds(partOfJob(from, views), counting('again'))));
        const read = readJob(JSON.parse(JSON.stringify(twice.job)));
        expect([into.name, from.name, read.ok || read]).toEqual([into.name, from.name, true]);
        const names = twice.job.views.slice(into.views.length).map(({ name }) => name);
        expect(new Set(names).size).toBe(names.length);
        expect(twice.job.views.length).toBe(into.views.length + 2 * partOfJob(from, views).views.length);
        expect(undo(undo(twice)).job).toEqual(into);
        count += views.length;
      },
    ),
    { numRuns: 60, seed: 3 },
  );
  expect(count).toBeGreaterThan(20);
});

const outlined = (view: Drawn) =>
  addOutline({
    shape: 'chain',
    id: `${view.id}-line`,
    layer: 'outline',
    plane: view.id,
    closed: false,
    nodes: ['seat', 'back'].map((name) => ({
      id: `${view.id}-${name}`,
      place: { kind: 'pointed', at: drawnAt(view, THING[name]!), sigma: 1 },
      smooth: false,
    })),
    segments: [{ kind: 'line' }],
  });
const ours = jobOf([
  ...[FRONT, TOP].flatMap(shown),
  ...[FRONT, TOP].map((view) => sized(view, 'foot', 'end', 0.5, NOISELESS)),
  sharedBy([FRONT, TOP], 'Base line', ['foot', 'end'], NOISELESS, 'up', { said: { up: zero } }),
  sharedBy([FRONT, TOP], 'Corner', ['foot'], NOISELESS, undefined, { said: { across: zero, deep: zero } }),
  ...joining(FRONT, TOP),
]);
/** Of the other job zero lies elsewhere: a metre higher, 300 mm deeper. */
const theirs = jobOf([
  ...shown(RIGHT),
  sized(RIGHT, 'foot', 'back', 0.5, NOISELESS),
  sharedBy([RIGHT], ' base LINE', ['foot', 'end'], NOISELESS, 'up', {
    said: { up: { value: -1000, written: '-1000' } },
  }),
  sharedBy([RIGHT], 'Corner', ['foot'], NOISELESS, undefined, { said: { deep: { value: -300, written: '-300' } } }),
  sharedBy([RIGHT], 'Back', ['back'], NOISELESS, undefined, { said: { up: { value: -140, written: '-140' } } }),
  outlined(RIGHT),
]);

it('stands where it is on the thing by what both jobs name, and moves nothing', () => {
  const { job } = brought(ours, joining(RIGHT).reduce(runCommand, startHistory(theirs)).job);
  const [before, after] = [createDeriver()(ours), createDeriver()(job)];
  const view = job.views.at(-1)!;
  const { pose } = after.arranged.stands.get(view.id)!;
  for (const point of Object.values(THING)) {
    const at = toSpace(pose, after.views.get(view.id)!.fit.toPlane(drawnAt(RIGHT, point)));
    // A view that lies askew is pulled that much to lying level.
    expect(distance3(at, toSpace(pose, fromSpace(pose, point).at))).toBeLessThan(3);
  }
  for (const { id } of [FRONT, TOP]) {
    const [was, is] = [before, after].map(({ views }) => views.get(id)!.fit.toPlane([1000, 1200]));
    expect(is).toEqual(was);
  }
  expect(job.features.map(({ name }) => name)).toEqual(['Base line', 'Corner', 'Back']);
  expect(listMatching(ours, theirs).map(([own]) => own.name)).toEqual(['Base line', 'Corner']);
  // What was typed there is of another zero, and it joins no fit by itself.
  expect(job.features.map(({ said }) => said)).toEqual([...ours.features.map(({ said }) => said), {}]);
  expect(view.joins).toBeUndefined();
  expect(job.layers).toEqual(ours.layers);
  const again = brought(job, theirs, undefined, 'again').job;
  expect(again.views.map(({ name }) => name)).toEqual(['front', 'plan', 'side', 'side, Job']);
  expect(brought(again, theirs, undefined, 'once more').job.views.at(-1)!.name).toBe('side, Job 2');
});

it('what is drawn is as it was there, and leaves as the same file', () => {
  const { job } = brought(ours, theirs);
  const fileOf = (of: Job, plane: string) => {
    const drawing = drawingOf(of, createDeriver()(of), { plane });
    return drawing.ok ? writeDxf(drawing.value, 'mm') : drawing.code;
  };
  expect(fileOf(job, job.views.at(-1)!.plane)).toBe(fileOf(theirs, RIGHT.id));
});

it('without anything of one name the coordinates that were typed stay, and zero is taken to be zero', () => {
  const renamed = {
    ...theirs,
    features: theirs.features.map((feature) => ({ ...feature, name: `their ${feature.name}` })),
  };
  const { job } = brought(ours, renamed);
  expect(job.features.slice(2).map(({ said }) => said)).toEqual(renamed.features.map(({ said }) => said));
});
