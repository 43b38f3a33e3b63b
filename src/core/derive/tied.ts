import type { Job } from '../job';
import type { Outline } from '../outline';
import { hasSize, isRelatable, type Relatable, type RelatingPlanes, type Relation } from '../relate';
import type { Derived, SeenPlane } from './derived';
import { relatingPlanes } from './planes';
import { standingIn } from './known-standing';

/** Planes that relations tie, and what is related there. */
export interface Tied {
  readonly planes: readonly SeenPlane[];
  readonly outlines: readonly Relatable[];
  readonly relations: readonly Relation[];
}

/** On which planes the outlines lie that a relation is about; undefined where one is gone, or of a kind of which nothing can be said. */
function planesOf(
  { on }: Pick<Relation, 'on'>,
  known: ReadonlyMap<string, Relatable>,
): ReadonlySet<string> | undefined {
  const outlines = on.map(({ outline }) => known.get(outline));
  return outlines.every((outline) => outline !== undefined) ? new Set(outlines.map(({ plane }) => plane)) : undefined;
}

const relatableAmong = (outlines: readonly Outline[]): ReadonlyMap<string, Relatable> =>
  new Map(outlines.filter(isRelatable).map((outline) => [outline.id, outline]));

/** Planes that are seen by a fit by which some of these are seen: what a size tells of it, it tells of all of them. */
function sharingFits(some: ReadonlySet<string>, planes: ReadonlyMap<string, SeenPlane>): readonly string[] {
  const fits = new Set([...some].flatMap((id) => planes.get(id)!.fits.map(({ covariance }) => covariance)));
  return [...planes.values()]
    .filter((plane) => some.has(plane.id) || plane.fits.some(({ covariance }) => fits.has(covariance)))
    .map(({ id }) => id);
}

/** Planes that are tied, by what is said of outlines of several or by a size that is said of a fit that they share, each with what is said on its outlines; those on which a view stands on an edge come last, since that has to be known. Those on which nothing is said are in none. */
export function listTied(
  planes: ReadonlyMap<string, SeenPlane>,
  every: readonly Outline[],
  relations: readonly Relation[],
): readonly Tied[] {
  const known = relatableAmong(every);
  const live = relations.flatMap((relation) => {
    const on = planesOf(relation, known);
    return on && [...on].every((id) => planes.has(id)) ? [{ relation, on }] : [];
  });
  const ties: Set<string>[] = [];
  for (const { on, relation } of live) {
    const own = new Set(hasSize([relation]) ? sharingFits(on, planes) : on);
    for (const tie of ties.filter((other) => [...other].some((id) => own.has(id)))) {
      ties.splice(ties.indexOf(tie), 1);
      tie.forEach((id) => own.add(id));
    }
    ties.push(own);
  }
  const isOnEdge = (tie: ReadonlySet<string>) =>
    [...tie].some((id) => planes.get(id)!.views.some(({ source }) => source.standsOn !== undefined));
  return [...ties.filter((tie) => !isOnEdge(tie)), ...ties.filter(isOnEdge)].map((tie) => {
    const its = live.filter(({ on }) => [...on].some((id) => tie.has(id))).map(({ relation }) => relation);
    const named = new Set(its.flatMap(({ on }) => on.map(({ outline }) => outline)));
    return {
      planes: [...planes.values()].filter(({ id }) => tie.has(id)),
      outlines: [...known.values()].filter(({ id }) => named.has(id)),
      relations: its,
    };
  });
}

/** All that what is said next has to agree with. */
export interface Saying extends Omit<Tied, 'planes'> {
  readonly relating: RelatingPlanes;
}

/**
 * What hangs together with some planes: they themselves, and those that relations tie to them, with all their outlines of which something can be said. The planes are as the evidence alone
 * puts them, or as sizes that hold have moved them already.
 */
export function sayingOn(
  some: readonly string[],
  job: Pick<Job, 'outlines' | 'relations' | 'layers'>,
  derived: Pick<Derived, 'views' | 'planes' | 'related' | 'arranged' | 'shapes'>,
  as: 'evident' | 'moved' = 'evident',
): Saying {
  const { outlines, relations } = job;
  const evidentOf = (id: string) => derived.related.get(id)?.planes.find((related) => related.id === id);
  const planes = new Map(
    [...derived.planes].map(([id, plane]) => [id, (as === 'evident' ? evidentOf(id) : undefined) ?? plane]),
  );
  const tied = listTied(planes, outlines, relations).map(({ planes }) => planes.map(({ id }) => id));
  const ids = new Set(some.flatMap((id) => [id, ...tied.filter((tie) => tie.includes(id)).flat()]));
  const known = new Map([...relatableAmong(outlines)].filter(([, { plane }]) => ids.has(plane)));
  return {
    outlines: [...known.values()],
    relations: relations.filter((relation) => planesOf(relation, known)),
    relating: relatingPlanes(
      [...planes.values()].filter(({ id }) => ids.has(id)),
      (plane) => standingIn(plane, { job, derived }),
    ),
  };
}
