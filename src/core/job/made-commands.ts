import type { Draft } from 'immer';
import type { DrawnOutline, MadeOutline, Outline, Recipe } from '../outline';
import type { RelationEnd } from '../relate';
import { command, draft, replaceById, type Command } from './command';
import type { NamedRegion } from './region';
import type { Job } from './schema';

/** Adds what is made of others; `instead`: its sources become aids, since it stands in their stead. */
export const addMade = (made: MadeOutline, instead: boolean): Command =>
  command(
    `made-${made.recipe.kind}`,
    (job) => {
      if (instead) setAidOf(job, made.recipe.of, true);
      job.outlines.push(draft(made));
    },
    { count: made.recipe.of.length },
  );

/** Another recipe for what is made. Steps of one field in a row are one. */
export const changeRecipe = (id: string, recipe: Recipe): Command => ({
  ...command('recipe-changed', (job) => {
    const made = job.outlines.find((outline) => outline.id === id);
    if (made?.shape === 'made') made.recipe = draft(recipe);
  }),
  merge: `recipe/${id}`,
});

export const setAid = (ids: readonly string[], aid: boolean) =>
  command(aid ? 'aid-set' : 'aid-unset', (job) => setAidOf(job, ids, aid), { count: ids.length });

function setAidOf(job: Draft<Job>, ids: readonly string[], aid: boolean): void {
  for (const outline of job.outlines) {
    if (!ids.includes(outline.id)) continue;
    if (aid) outline.aid = true;
    else delete outline.aid;
  }
}

/**
 * Puts other outlines in the place of one: parts that were cut from it, or what it was made into. What is said of its nodes and segments is said of the part that has
 * them; what was made of it is made of all of them.
 */
export const replaceOutline = (id: string, parts: readonly Outline[], code: string) =>
  command(code, (job) => {
    const index = job.outlines.findIndex((outline) => outline.id === id);
    if (index < 0) return;
    job.outlines.splice(index, 1, ...draft(parts));
    // A gap is between whole outlines: it goes on with the first part of what was one of them.
    const findPart = ({ kind }: Said, end: RelationEnd) =>
      end.outline === id ? (kind === 'gap' ? parts[0] : parts.find((part) => hasEnd(part, end)))?.id : end.outline;
    const isWhole = (said: Said) => said.on.every((end) => findPart(said, end) !== undefined);
    job.relations = job.relations.filter(isWhole);
    job.dimensions = job.dimensions.filter(isWhole);
    job.declined = job.declined.filter(isWhole);
    [...job.relations, ...job.dimensions, ...job.declined].forEach((said) =>
      said.on.forEach((end) => void (end.outline = findPart(said, end)!)),
    );
    goOnWith(
      job,
      id,
      parts.map((part) => part.id),
    );
  });

interface Said {
  readonly kind: string;
  readonly on: readonly RelationEnd[];
}

function hasEnd(part: Outline, { node, segment }: RelationEnd): boolean {
  if (part.shape !== 'chain') return node === undefined && segment === undefined;
  return part.nodes.some((other, i) => other.id === node || (other.id === segment && part.segments[i] !== undefined));
}

/** A part is of others in an outline's stead. */
function replaceInParts(job: Draft<Job>, id: string, others: readonly string[]): void {
  for (const part of job.parts) part.of = [...new Set(part.of.flatMap((own) => (own === id ? others : [own])))];
}

/** A curve in space goes on with the first of what an outline became; of none, or of what is its other one, it is none any more. */
function replaceInCurves(job: Draft<Job>, id: string, [first]: readonly string[]): void {
  const next = (own: string) => (own === id ? first : own);
  job.spaceCurves = job.spaceCurves.flatMap((curve) => {
    const [a, b] = [next(curve.of[0]), next(curve.of[1])];
    return a === undefined || b === undefined || a === b ? [] : [{ ...curve, of: [a, b] }];
  });
}

/** What was made or said of an outline goes on with others in its stead. */
export function goOnWith(job: Draft<Job>, id: string, others: readonly string[]): void {
  replaceSources(job, id, others);
  replaceInParts(job, id, others);
  replaceInCurves(job, id, others);
  replaceUnderViews(job, id, others);
  replaceInSitings(job, id, others);
}

/** A view stands on the one of them that has its edge; where none has, it is told that its edge is gone. */
function replaceUnderViews(job: Draft<Job>, id: string, others: readonly string[]): void {
  for (const view of job.views) {
    if (view.standsOn?.outline !== id) continue;
    const { from } = view.standsOn;
    const hasEdge = (other: string) =>
      job.outlines.some(
        (outline) =>
          outline.id === other && outline.shape === 'chain' && outline.nodes.some((node) => node.id === from),
      );
    const next = others.find(hasEdge) ?? others[0];
    if (next === undefined) delete view.standsOn;
    else view.standsOn.outline = next;
  }
}

/** What is said of an end goes on with the one of them that has it; where none has, it is said no more. */
function replaceInSitings(job: Draft<Job>, id: string, others: readonly string[]): void {
  const parts = job.outlines.filter((outline) => others.includes(outline.id));
  const next = (end: RelationEnd): string | undefined =>
    end.outline === id ? parts.find((part) => hasEnd(part as Outline, end))?.id : end.outline;
  const goesOn = (ends: readonly Draft<RelationEnd>[]): boolean => {
    const names = ends.map(next);
    if (names.includes(undefined)) return false;
    ends.forEach((end, i) => void (end.outline = names[i]!));
    return true;
  };
  for (const siting of job.sitings) siting.holds = siting.holds.filter(({ own, to }) => goesOn([own, to]));
  job.setbacks = job.setbacks.filter(({ on }) => goesOn(on));
}

/** What was made of an outline is made of others in its stead. */
function replaceSources(job: Draft<Job>, id: string, others: readonly string[]): void {
  for (const outline of job.outlines)
    if (outline.shape === 'made')
      outline.recipe.of = outline.recipe.of.flatMap((source) => (source === id ? others : [source]));
}

/** What was made stands by itself from now on: as outlines of its own, in its place. Its sources, if they were aids for it alone, stay aids. */
export const letGo = (id: string, outlines: readonly DrawnOutline[]) => replaceOutline(id, outlines, 'let-go');

export const addRegion = (region: NamedRegion) =>
  command('region-named', (job) => void job.regions.push(draft(region)), { name: region.name });
export const changeRegion = (region: NamedRegion): Command => ({
  ...command('region-changed', (job) => replaceById(job.regions, draft(region)), { name: region.name }),
  merge: `region/${region.id}`,
});
export const removeRegion = (id: string) =>
  command('region-removed', (job) => void (job.regions = job.regions.filter((region) => region.id !== id)));
