import { current, produce, type Draft } from 'immer';
import { firstFree } from '../basics';
import { CENTRE } from '../outline';
import { command, draft, type Command } from './command';
import type { Feature } from './feature';
import { takeOut, type Name } from './kinds';
import { SITE } from './reference';
import type { Job } from './schema';
import { removeView } from './view-commands';

/**
 * Views of a job with all that belongs to them alone: their sheets, what is known of them, what is drawn and said on their planes, and the shared lines and places that they show. What lies on a map, and how all is looked at, stays
 * behind. None of them takes part in a fit of several.
 */
export function partOfJob(job: Job, views: readonly string[]): Job {
  return produce(job, (part) => {
    for (const { id } of job.views) if (!views.includes(id)) removeView(id).apply(part);
    takeOut(part, listLeftBehind(current(part) as Job));
    for (const view of part.views) delete view.joins;
    for (const plane of part.planes) if (plane.liesOn === SITE) delete plane.liesOn;
    delete part.site;
    delete part.asked;
  });
}

const named = (list: Name['list'], entities: readonly { readonly id: string }[]): readonly Name[] =>
  entities.map(({ id }) => ({ list, id }));

function listLeftBehind({
  references,
  looks,
  variants,
  planes,
  views,
  layers,
  outlines,
  features,
}: Job): readonly Name[] {
  const shown = new Set(views.map(({ plane }) => plane));
  const drawnOn = new Set(outlines.map(({ layer }) => layer));
  const liesAt = new Set([
    ...views.map(({ liesAt }) => liesAt),
    ...layers.flatMap(({ liesAt, risesTo }) => [liesAt, risesTo]),
  ]);
  return [
    ...named('references', references),
    ...named('looks', looks),
    ...named('variants', variants),
    ...named(
      'planes',
      planes.filter(({ id }) => !shown.has(id)),
    ),
    // There is always one.
    ...named(
      'layers',
      layers.filter(({ id }, i) => i > 0 && !drawnOn.has(id)),
    ),
    ...named(
      'features',
      features.filter(({ id, seen }) => seen.length === 0 && !liesAt.has(id)),
    ),
  ];
}

/** Where a job holds ids, by the names of its fields. */
const HOLD_IDS: ReadonlySet<string> = new Set(
  'id sheet plane layer outline node segment view guide siting of from to groups shares liesAt risesTo liesOn corner mirrored read'.split(
    ' ',
  ),
);
/** Fields of such a name that say something else there. */
const SAY_ELSE: ReadonlySet<string> = new Set(['hung to', 'byEye from']);
/** Fields that name nodes. The centre of a circle is one that every circle has, under the same name. */
const NAME_NODES: ReadonlySet<string> = new Set(['nodes id', 'standsOn from']);
const isNode = (key: string, within: string) =>
  key === 'node' || key === 'segment' || key === 'corner' || NAME_NODES.has(`${within} ${key}`);

/** Whether a text is the id of something of this job alone. */
const isOwnId = (key: string, value: string, within: string) =>
  HOLD_IDS.has(key) &&
  !SAY_ELSE.has(`${within} ${key}`) &&
  value !== SITE &&
  !(value === CENTRE && isNode(key, within));

/** A job in which everything has another id. What has one id in several lists, as a view and its plane, has one in all of them again. */
export function withNewIds(job: Job, newId: () => string): Job {
  const ids = new Map<string, string>();
  walk(job, (key, value, within) => {
    if (key === 'id' && isOwnId(key, value, within) && !ids.has(value)) ids.set(value, newId());
    return value;
  });
  return renamed(job, ids);
}

const renamed = (job: Job, ids: ReadonlyMap<string, string>): Job =>
  walk(job, (key, value, within) => (isOwnId(key, value, within) ? (ids.get(value) ?? value) : value)) as Job;

/** The same document with other texts, field by field; of lists the field is that which holds them. */
function walk(
  value: unknown,
  text: (key: string, value: string, within: string) => string,
  key = '',
  within = '',
): unknown {
  if (typeof value === 'string') return text(key, value, within);
  if (Array.isArray(value)) return value.map((item) => walk(item, text, key, within));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([name, item]) => [name, walk(item, text, name, key)]));
}

const plain = (name: string) => name.trim().toLowerCase();

/** The shared lines and places of a job that go by the same name in another, each with its own there. */
export function listMatching(
  { features }: Pick<Job, 'features'>,
  part: Pick<Job, 'features'>,
): readonly (readonly [own: Feature, brought: Feature])[] {
  return part.features.flatMap((brought) => {
    const own = features.find(({ name, along }) => plain(name) === plain(brought.name) && along === brought.along);
    return own ? [[own, brought] as const] : [];
  });
}

/**
 * Brings a part of another job, under ids that are new here, into this one at its true place: what goes by one name in both is one shared line or place, and tells where the views stand. Where there is such a one, coordinates that were typed over there are of another
 * zero, and stay behind. Layers of one name are one.
 */
export function bringPart(part: Job): Command {
  return command(
    'views-brought',
    (job) => {
      const matching = listMatching(current(job) as Job, part);
      const same = new Map([
        ...matching.map(([own, brought]) => [brought.id, own.id] as const),
        ...listSameLayers(job, part),
      ]);
      const placed = renamed(part, same);
      for (const [own, { seen }] of matching)
        job.features.find(({ id }) => id === own.id)!.seen.push(...seen.map(draft));
      const others = placed.features.filter((_, i) => !same.has(part.features[i]!.id));
      job.features.push(...others.map((feature) => draft(matching.length > 0 ? { ...feature, said: {} } : feature)));
      job.layers.push(...placed.layers.filter((_, i) => !same.has(part.layers[i]!.id)).map(draft));
      pushAll(job, { ...placed, views: toldApart(placed.views, job, part.name) });
    },
    { count: part.views.length },
  );
}

/** Views whose names are taken here are told apart by the job that they came from, and numbered where that is taken too. */
function toldApart(views: Job['views'], job: Draft<Job>, from: string): Job['views'] {
  const taken = new Set(job.views.map(({ name }) => name));
  return views.map((view) => {
    const apart = `${view.name}, ${from}`;
    const names = [view.name, apart];
    const name = firstFree(taken, (count) => names[count - 1] ?? `${apart} ${count - 1}`);
    taken.add(name);
    return { ...view, name };
  });
}

const listSameLayers = ({ layers }: Draft<Job>, part: Job): readonly (readonly [string, string])[] =>
  part.layers.flatMap((brought) => {
    const own = layers.find(
      ({ name, liesAt, risesTo }) =>
        plain(name) === plain(brought.name) && liesAt === brought.liesAt && risesTo === brought.risesTo,
    );
    return own ? [[brought.id, own.id] as const] : [];
  });

/** What is brought as it is. */
const AS_THEY_ARE = [
  'sheets',
  'views',
  'planes',
  'outlines',
  'guides',
  'relations',
  'regions',
  'dimensions',
  'parts',
  'declined',
  'spans',
  'spaceCurves',
  'sitings',
  'setbacks',
  'byEye',
] as const;

function pushAll(job: Draft<Job>, part: Job): void {
  for (const list of AS_THEY_ARE) (job[list] as object[]).push(...(part[list] as readonly object[]));
}
