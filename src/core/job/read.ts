import { done, refused, type Result } from '../basics';
import { openingsOf, type Outline } from '../outline';
import { KINDS, LISTS } from './kinds';
import { JOB_FORMAT, JOB_VERSION, JobSchema, type Job } from './schema';

/** Steps from one version to the next, by the version they start from. What they give is validated like any other job. */
const MIGRATIONS: Readonly<Record<number, (job: Record<string, unknown>) => Record<string, unknown>>> = {
  1: nameThePoints,
  2: (job) => ({ ...job, version: 3 }),
  3: (job) => ({ ...job, version: 4, references: [] }),
  4: (job) => ({ ...job, version: 5, relations: [] }),
  5: (job) => ({ ...job, version: 6, regions: [], dimensions: [] }),
  6: (job) => ({ ...job, version: 7, parts: [], declined: [] }),
  7: nameTheCorners,
  8: nameThePlanes,
  9: (job) => ({ ...job, version: 10, features: [], spans: [] }),
  10: (job) => ({ ...job, version: 11, spaceCurves: [], looks: [] }),
  11: (job) => ({ ...job, version: 12 }),
  12: (job) => ({ ...job, version: 13, sitings: [], setbacks: [] }),
  13: (job) => ({ ...job, version: 14, variants: [], byEye: [] }),
  14: (job) => ({ ...job, version: 15 }),
  15: (job) => ({ ...job, version: 16 }),
  16: (job) => ({ ...job, version: 17 }),
};

/**
 * A job from parsed JSON. Older versions are brought up step by step; a newer one, something else, or a job that does not
 * hang together (an outline on a missing layer) is refused with a code and where.
 */
export function readJob(json: unknown): Result<Job> {
  if (typeof json !== 'object' || json === null || (json as { format?: unknown }).format !== JOB_FORMAT)
    return refused('job-not-ours');
  let raw = json as Record<string, unknown>;
  const version = raw.version;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) return refused('job-not-ours');
  if (version > JOB_VERSION) return refused('job-newer', { version, known: JOB_VERSION });
  if (isDeeper(json, MOST_NESTED)) return refused('job-damaged', { where: '', why: 'nested too deep' });
  try {
    for (let at = version; at < JOB_VERSION; at++) raw = MIGRATIONS[at]!(raw);
  } catch {
    return refused('job-damaged', { where: '', why: `version ${version}` });
  }
  const parsed = JobSchema.safeParse(raw);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    return refused('job-damaged', { where: issue ? issue.path.join('.') : '', why: issue?.message ?? '' });
  }
  return checkReferences(parsed.data);
}

/** How deep lists and objects lie in one another in a job at the most: places stand on places no deeper than they are followed. */
const MOST_NESTED = 100;

/** Without recursion: that is what is guarded against. */
function isDeeper(json: unknown, most: number): boolean {
  let level: unknown[] = [json];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > most) return true;
    level = level.flatMap((item) => (typeof item === 'object' && item !== null ? Object.values(item) : []));
  }
  return false;
}

interface LengthOfVersion1 {
  readonly id: string;
  readonly from: object;
  readonly to: object;
  readonly mm: number;
  readonly written: string;
  readonly check: boolean;
  readonly plusMinus?: number;
  readonly guess: boolean;
}

/** Version 1 knew lengths only, each with two points of its own. */
function nameThePoints(job: Record<string, unknown>): Record<string, unknown> {
  const views = Array.isArray(job.views) ? (job.views as { evidence?: readonly LengthOfVersion1[] }[]) : [];
  return {
    ...job,
    version: 2,
    views: views.map((view) => ({
      ...view,
      model: 'auto',
      lens: 'auto',
      points: (view.evidence ?? []).flatMap(({ id, from, to }) => [
        { ...from, id: `${id}-from` },
        { ...to, id: `${id}-to` },
      ]),
      evidence: (view.evidence ?? []).map(({ id, mm, written, check, guess, plusMinus }) => ({
        id,
        kind: 'length',
        groups: [[`${id}-from`, `${id}-to`]],
        said: { length: { value: mm, written } },
        guess,
        role: check ? 'check' : 'use',
        ...(plusMinus === undefined ? {} : { plusMinus }),
      })),
    })),
  };
}

interface OpeningOfVersion7 {
  readonly outline: string;
  readonly segment: string;
  readonly from: 'start' | 'end';
}

type OutlineOfVersion7 = {
  readonly id: string;
  readonly nodes?: readonly { readonly id: string }[];
  readonly recipe?: { readonly openings?: readonly OpeningOfVersion7[] };
};

/** Version 7 counted openings from the start or the end of a segment; now they name the corner. */
function nameTheCorners(job: Record<string, unknown>): Record<string, unknown> {
  const outlines = Array.isArray(job.outlines) ? (job.outlines as readonly OutlineOfVersion7[]) : [];
  const named = ({ outline, segment, from, ...opening }: OpeningOfVersion7) => {
    const nodes = outlines.find(({ id }) => id === outline)?.nodes ?? [];
    const next = nodes[(nodes.findIndex(({ id }) => id === segment) + 1) % Math.max(1, nodes.length)];
    return {
      ...opening,
      corner: from === 'end' ? (next?.id ?? segment) : segment,
      way: from === 'end' ? 'back' : 'on',
    };
  };
  return {
    ...job,
    version: 8,
    outlines: outlines.map((outline) =>
      outline.recipe?.openings
        ? { ...outline, recipe: { ...outline.recipe, openings: outline.recipe.openings.map(named) } }
        : outline,
    ),
  };
}

type Loose = Readonly<Record<string, unknown>>;
const looseList = (list: unknown): readonly Loose[] => (Array.isArray(list) ? (list as readonly Loose[]) : []);

/** Version 8 drew on views, which named the plane that they were laid on; now every view has a plane, which is drawn on. */
function nameThePlanes(job: Loose): Record<string, unknown> {
  const views = looseList(job.views);
  const own = views.map(({ id, plane }) => ({ id, ...(plane === undefined ? {} : { liesOn: plane }) }));
  const grounds = [...views, ...looseList(job.references)].flatMap(({ plane }) => (plane === undefined ? [] : [plane]));
  const others = [...new Set(grounds)].filter((ground) => !own.some(({ id }) => id === ground));
  const onPlanes = (list: unknown) => looseList(list).map(({ view, ...entity }) => ({ ...entity, plane: view }));
  const drawn = ['outlines', 'guides', 'relations', 'regions', 'dimensions', 'parts'] as const;
  return {
    ...job,
    version: 9,
    views: views.map((view) => ({ ...view, plane: view.id })),
    planes: [...own, ...others.map((id) => ({ id }))],
    ...Object.fromEntries(drawn.map((list) => [list, onPlanes(job[list])])),
  };
}

/** Whether everything that something in a job speaks of is there, and each name is given once. */
export const hangsTogether = (job: Job): boolean => checkReferences(job).ok;

function checkReferences(job: Job): Result<Job> {
  const twice = listsOf(job)
    .map(findTwice)
    .find((id) => id !== undefined);
  if (twice !== undefined) return refused('job-damaged', { where: twice, why: 'twice' });
  const broken = findBroken(job);
  return broken ? refused('job-damaged', { where: broken.id, why: 'reference' }) : done(job);
}

/** The first thing that speaks of something that is not there, or of itself. */
function findBroken(job: Job): { readonly id: string } | undefined {
  const has = (list: readonly { readonly id: string }[]) => new Set(list.map((item) => item.id));
  const views = has(job.views);
  const [sheets, planes, layers] = [has(job.sheets), has(job.planes), has(job.layers)];
  const [outlines, features, sitings] = [has(job.outlines), has(job.features), has(job.sitings)];
  return (
    job.views.find(
      (view) =>
        !standsWell(view, { features, outlines }) ||
        !sheets.has(view.sheet) ||
        !planes.has(view.plane) ||
        !hasItsPoints(view) ||
        !sharesWell(view, job.views),
    ) ??
    job.layers.find(({ liesAt, risesTo }) => !isWithin(features, liesAt) || !isWithin(features, risesTo)) ??
    job.planes.find(({ liesOn }) => !isWithin(planes, liesOn)) ??
    job.outlines.find(
      (outline) =>
        !planes.has(outline.plane) ||
        !layers.has(outline.layer) ||
        !KINDS.outlines
          .names(outline)
          .every(({ list, id }) => (list === 'views' ? views.has(id) : list !== 'sitings' || sitings.has(id))) ||
        !hasWholeChain(outline) ||
        !readsWithin(outline, outlines) ||
        !hasItsSources(outline, outlines),
    ) ??
    [...job.guides, ...job.references, ...job.setbacks, ...job.byEye].find(({ plane }) => !planes.has(plane)) ??
    job.byEye.find(({ at }) => !isWithin(views, at.view)) ??
    job.sitings.find(({ plane, of }) => plane === of || !planes.has(plane) || !planes.has(of)) ??
    [...job.sitings, ...job.setbacks].find((entity) =>
      endsSaidOf(entity).some(({ outline }) => !outlines.has(outline)),
    ) ??
    job.features.find(({ seen }) => !seen.every(({ view }) => views.has(view))) ??
    job.spans.find(({ from, to }) => from === to || !features.has(from) || !features.has(to)) ??
    job.spaceCurves.find(
      ({ of: [first, second], mirrored }) =>
        first === second || !outlines.has(first) || !outlines.has(second) || !isWithin(features, mirrored),
    )
  );
}

/** Whether what a view lies at and stands on is there. */
const standsWell = (
  { liesAt, standsOn }: Job['views'][number],
  { features, outlines }: { readonly features: ReadonlySet<string>; readonly outlines: ReadonlySet<string> },
): boolean =>
  isWithin(outlines, standsOn?.outline) &&
  [liesAt, standsOn?.ends?.from, standsOn?.ends?.to].every((id) => isWithin(features, id));

/** Whether an id that may be left out is of one of these. */
const isWithin = (ids: ReadonlySet<string>, id: string | undefined): boolean => id === undefined || ids.has(id);

const endsSaidOf = (entity: Job['sitings'][number] | Job['setbacks'][number]) =>
  'holds' in entity ? entity.holds.flatMap(({ own, to }) => [own, to]) : entity.on;

type Named = readonly { readonly id: string }[];

/** Everything that is told apart by its id, list by list. */
function listsOf(job: Job): readonly Named[] {
  const { views, outlines, features, sitings, asked = [] } = job;
  return [
    ...LISTS.flatMap((list): readonly Named[] => (list === 'declined' ? [] : [job[list]])),
    asked,
    ...views.flatMap(({ points, evidence }): Named[] => [points, evidence]),
    ...outlines.flatMap((outline): Named[] => (outline.shape === 'chain' ? [outline.nodes] : [])),
    ...features.map(({ seen }): Named => seen),
    ...sitings.map(({ holds }): Named => holds),
  ];
}

function findTwice(list: Named): string | undefined {
  const seen = new Set<string>();
  return list.find(({ id }) => seen.size === seen.add(id).size)?.id;
}

function hasItsPoints({ points, evidence }: Job['views'][number]): boolean {
  const known = new Set(points.map(({ id }) => id));
  return evidence.every((piece) => hasItsGroups(piece) && piece.groups.flat().every((id) => known.has(id)));
}

const OF_LINES: readonly string[] = ['length', 'equal', 'parallel', 'square', 'angle', 'level'];

/** Lines have two ends, and nothing is without places. */
const hasItsGroups = ({ kind, groups }: Job['views'][number]['evidence'][number]): boolean =>
  groups.length > 0 && groups.every(({ length }) => (OF_LINES.includes(kind) ? length === 2 : length > 0));

/** A view shares the fit of one of its own sheet that has a fit of its own. */
function sharesWell({ shares, sheet, evidence }: Job['views'][number], views: Job['views']): boolean {
  const owner = views.find(({ id }) => id === shares);
  return (
    shares === undefined ||
    (owner !== undefined && owner.shares === undefined && owner.sheet === sheet && evidence.length === 0)
  );
}

/** Whether what openings of a wall were read from is there. */
const readsWithin = (outline: Job['outlines'][number], outlines: ReadonlySet<string>): boolean =>
  openingsOf(outline as Outline).every(({ read }) => isWithin(outlines, read));

/** What it is made of is there, and is not itself. */
function hasItsSources(outline: Job['outlines'][number], outlines: ReadonlySet<string>): boolean {
  return outline.shape !== 'made' || outline.recipe.of.every((id) => outlines.has(id) && id !== outline.id);
}

function hasWholeChain(outline: Job['outlines'][number]): boolean {
  if (outline.shape !== 'chain') return true;
  return outline.segments.length === outline.nodes.length - (outline.closed ? 0 : 1);
}
