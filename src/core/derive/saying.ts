import type { Job } from '../job';
import { shapeOf } from '../outline';
import {
  foreseeMoves,
  judgeRelation,
  listProposals,
  takeRelations,
  type Move,
  type Proposal,
  type Relation,
  type RelationEnd,
  type Verdict,
} from '../relate';
import type { Derived } from './derived';
import { sayingOn } from './tied';

/** A job with what follows from it. */
interface Known {
  readonly job: Job;
  readonly derived: Derived;
}

/** What may be meant to be true on a plane. */
export interface Proposed {
  /** What nobody left as it was drawn, and how many somebody did. */
  readonly open: readonly Proposal[];
  readonly kept: number;
  /** How far places would lie from where they are drawn with all of it. */
  readonly moves: readonly Move[];
}

const nameOf = ({ kind, on }: Pick<Proposal, 'kind' | 'on'>) =>
  `${kind} ${on.map(({ outline, segment = '', node = '' }) => `${outline}.${segment}.${node}`).join(' ')}`;

/** What may be meant to be true of what is drawn on a plane, or of one outline of it (`only`). Weak: a hundred places that nothing ties yet take seconds. */
export function proposeOn(plane: string, { job, derived }: Known, only?: string): Proposed {
  const { outlines, relations, relating } = sayingOn([plane], job, derived);
  const isMeant = (id: string) => only === undefined || id === only;
  const about = (on: readonly RelationEnd[]) => on.every(({ outline }) => isMeant(outline));
  const here = new Set(job.outlines.filter((outline) => outline.plane === plane).map(({ id }) => id));
  const proposals = listProposals(
    outlines.filter(({ id }) => isMeant(id)),
    relations.filter(({ on }) => about(on)),
    relating,
  ).filter(({ on }) => on.every(({ outline }) => here.has(outline)));
  const declined = new Set(job.declined.map(nameOf));
  const open = proposals.filter((proposal) => !declined.has(nameOf(proposal)));
  return {
    open,
    kept: proposals.length - open.length,
    moves: foreseeMoves(open, outlines, relations, relating, (outline) =>
      shapeOf(outline, derived.planes.get(outline.plane)!.placing),
    ).filter((move) => move.plane === plane),
  };
}

/** Of what is wanted on a plane what can be said together; what follows from the rest says nothing. */
export function takeTogether(wanted: readonly Relation[], plane: string, { job, derived }: Known): readonly Relation[] {
  const { outlines, relations, relating } = sayingOn([plane], job, derived);
  return takeRelations(wanted, relations, outlines, relating);
}

/** The planes on which things are drawn, in the order in which they are named. */
export const planesOfEnds = (on: readonly RelationEnd[], { outlines }: Pick<Job, 'outlines'>): readonly string[] => [
  ...new Set(on.flatMap((end) => outlines.find(({ id }) => id === end.outline)?.plane ?? [])),
];

/** Whether a relation can be said beside all others, or in the place of the one that has its id. */
export function judgeSaid(relation: Relation, { job, derived }: Known): Verdict {
  const others = { ...job, relations: job.relations.filter(({ id }) => id !== relation.id) };
  const { outlines, relations, relating } = sayingOn(planesOfEnds(relation.on, job), others, derived);
  return judgeRelation(relation, relations, outlines, relating);
}
