import { propagateMany } from '../adjust';
import { hasSize } from './applies';
import {
  listAlone,
  listJoints,
  listMirrored,
  listPairs,
  listPieces,
  type Candidate,
  type DrawnPiece,
} from './candidates';
import { blocksOf, findElement } from './element';
import { listGroups } from './groups';
import { findLive, missesAt, type LiveRelation } from './live';
import { heldStill, type RelatingPlanes } from './plane';
import type { Relatable } from './relatable';
import type { Relation, RelationEnd, RelationKind } from './relation';
import type { Shape } from '../outline';
import { listFarthest, listMoves, solveAll, TOO_FAR, type Move, type Solved } from './solve-relations';
import { spreadOf, type Spread } from './spread';

/** Something that may be meant to be true. */
export interface Proposal {
  readonly kind: RelationKind;
  readonly on: readonly RelationEnd[];
  /** What it misses by now, mm, and one sigma of that. */
  readonly miss: number;
  readonly sigma: number;
}

/** Within what can be pointed: so many sigmas. */
const WITHIN = 2.5;
/** What is missed by less than this share of its own sigma follows from what holds already. */
const IMPLIED = 1e-4;
/** What is as surely known as this holds exactly already, but for rounding. mm, or px without scale. */
const HELD = 1e-6;

const MANY = 100;

/** How often what follows from what is proposed is looked for, and how many are left out one after the other. */
const ROUNDS = 6;
const MOST_LEFT_OUT = 40;

/**
 * What may be meant to be true among outlines, plane by plane, beside what already is: lines level or upright, joints tangent or square, lines parallel or in one line,
 * circles of one size or about one centre, places that are mirror images about a centre line. A thing is proposed when it misses by no more than pointing allows, by the covariance of
 * the outlines as they would be solved: about shape alone, so that the fit's doubts are no room. All of it together moves no place farther than the picture allows there, and when it is taken nothing more is proposed. Nothing that already follows is proposed. With more than a hundred places, pairs are sought only among
 * outlines that hang together already: all at once would take seconds.
 */
export function listProposals(
  outlines: readonly Relatable[],
  held: readonly Relation[],
  planes: RelatingPlanes,
): readonly Proposal[] {
  const places = outlines.reduce((sum, outline) => sum + (outline.shape === 'chain' ? outline.nodes.length : 2), 0);
  if (places <= MANY) return proposalsIn(outlines, held, planes);
  return listGroups(outlines, held).flatMap((group) => proposalsIn(group.outlines, group.relations, planes));
}

function proposalsIn(
  outlines: readonly Relatable[],
  held: readonly Relation[],
  planes: RelatingPlanes,
): readonly Proposal[] {
  const solvedOn = hasSize(held) ? planes : heldStill(planes);
  let kept: readonly Proposal[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const more = listWishes(outlines, [...held, ...asRelations(kept)], solvedOn);
    const together = more.length > 0 ? withinDoubt([...kept, ...more], outlines, held, solvedOn) : kept;
    if (together.length <= kept.length) break;
    kept = together;
  }
  return kept;
}

/** How far every place would lie from where it is drawn, were all of these taken: mm, or px without scale; none where they cannot hold together. */
export function foreseeMoves(
  proposals: readonly Proposal[],
  outlines: readonly Relatable[],
  held: readonly Relation[],
  planes: RelatingPlanes,
  drawn: (outline: Relatable) => Shape,
): readonly Move[] {
  const all = [...held, ...asRelations(proposals)];
  // Typed sizes share the scale: what they are about is solved as one. The rest hangs together group by group.
  const groups = hasSize(held)
    ? [{ outlines, relations: all }]
    : listGroups(outlines, all).filter(({ relations }) => relations.length > 0);
  const solved = groups.map((group) =>
    solveAll(group.outlines, group.relations, hasSize(held) ? planes : heldStill(planes)),
  );
  return solved.every(({ holds }) => holds) ? solved.flatMap((one) => listMoves(one, drawn)) : [];
}

const asRelations = (proposals: readonly Proposal[]): Relation[] =>
  proposals.map(({ kind, on }, i) => ({ id: `proposed ${i}`, plane: '', kind, on }));

/**
 * Of proposals those that can be taken together: what contradicts the rest, and what would move a place by more than its doubt, is left out, the worst
 * first. Places that move as far for what holds already are not blamed on anything new.
 */
function withinDoubt(
  wanted: readonly Proposal[],
  outlines: readonly Relatable[],
  held: readonly Relation[],
  planes: RelatingPlanes,
): readonly Proposal[] {
  const before = new Map(listFarthest(solveAll(outlines, held, planes)).map(({ block, sigmas }) => [block, sigmas]));
  let kept = wanted;
  for (let i = 0; i < MOST_LEFT_OUT && kept.length > 0; i++) {
    const solved = solveAll(outlines, [...held, ...asRelations(kept)], planes);
    const far = solved.holds
      ? listFarthest(solved).filter(({ block, sigmas }) => sigmas > Math.max(TOO_FAR, before.get(block) ?? 0))
      : [];
    if (solved.holds && far.length === 0) return kept;
    const blamed = new Set(far.map(({ block }) => block));
    const about = kept.filter((proposal) => blamed.size === 0 || touches(proposal, solved, blamed));
    const worst = (about.length > 0 ? about : kept).reduce((a, b) => (b.miss * a.sigma > a.miss * b.sigma ? b : a));
    kept = kept.filter((proposal) => proposal !== worst);
  }
  // What is left after so many rounds was never solved as a whole: nothing of it is offered.
  return [];
}

const touches = ({ on }: Proposal, { known }: Solved, blocks: ReadonlySet<string>) =>
  on.some((end) => blocksOf(findElement(end, known)!).some((block) => blocks.has(block)));

/** What misses by no more than pointing allows, each by itself. */
function listWishes(
  outlines: readonly Relatable[],
  held: readonly Relation[],
  planes: RelatingPlanes,
): readonly Proposal[] {
  const solved = solveAll(outlines, held, planes);
  const spread = spreadOf(solved, outlines, planes);
  if (!spread) return [];
  const judge = ([kind, on]: Candidate): Proposal & { readonly isWithin: boolean; readonly follows: boolean } => {
    const live = findLive({ id: '', plane: '', kind, on }, solved.known, planes)!;
    const ratios = missesWithin(live, solved, spread);
    const worst = ratios.reduce((a, b) => (b.miss * a.sigma > a.miss * b.sigma ? b : a));
    const follows = ratios.every(({ miss, sigma }) => sigma < HELD || miss < IMPLIED * sigma);
    return { kind, on, ...worst, follows, isWithin: ratios.every(({ miss, sigma }) => miss <= WITHIN * sigma) };
  };
  const pieces = listPieces(outlines, solved);
  const alone = pieces.flatMap(listAlone).map(judge);
  const settled = new Set(
    alone.filter(({ isWithin, follows }) => isWithin || follows).map(({ on: [end] }) => nameOf(end!)),
  );
  const isSettled = ({ end }: DrawnPiece) => settled.has(nameOf(end));
  const others = listBetween(outlines, pieces, solved, isSettled);
  return [...alone, ...others.map(judge)].filter(({ isWithin, follows }) => isWithin && !follows);
}

/** What a relation misses by now, and one sigma of that: by the few unknowns that it is about. */
function missesWithin(
  live: LiveRelation,
  { solution: { layout, values } }: Solved,
  { x, matrix }: Spread,
): readonly { readonly miss: number; readonly sigma: number }[] {
  const blocks = [...new Set(live.blocks)];
  const columns = blocks.flatMap((id) => values.get(id)!.map((_, k) => layout.unknown.get(id)! + k));
  const misses = (at: readonly number[]) => {
    let next = 0;
    const own = new Map(blocks.map((id) => [id, at.slice(next, (next += values.get(id)!.length))] as const));
    return missesAt(live, own);
  };
  const now = columns.map((column) => x[column]!);
  const covariance = propagateMany(misses, now, matrix.selection(columns, columns));
  return misses(now).map((miss, i) => ({
    miss: Math.abs(miss),
    sigma: Math.sqrt(Math.max(0, covariance.get(i, i))),
  }));
}

/** What may be meant between pieces, plane by plane. */
function listBetween(
  outlines: readonly Relatable[],
  pieces: readonly DrawnPiece[],
  solved: Solved,
  isSettled: (piece: DrawnPiece) => boolean,
): readonly Candidate[] {
  return [...new Set(outlines.map(({ plane }) => plane))].flatMap((plane) => {
    const there = outlines.filter((outline) => outline.plane === plane);
    const its = pieces.filter(({ end }) => there.some(({ id }) => id === end.outline));
    return [
      ...there.flatMap((outline) => (outline.shape === 'chain' ? listJoints(outline, its, isSettled) : [])),
      ...listPairs(its, isSettled),
      ...listMirrored(there, its, solved),
    ];
  });
}

const nameOf = ({ outline, segment = '' }: RelationEnd) => `${outline}.${segment}`;
