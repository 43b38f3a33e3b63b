import { solve, type Problem, type Solution, type Values } from '../adjust';
import { distance, type Vec } from '../geometry';
import { CENTRE, type Place, type Shape } from '../outline';
import type { Relatable } from './relatable';
import { circleBlock, nodeBlock, throughBlock } from './element';
import { MAP_BLOCK } from './observed';
import { conditionOf, listLive, missesOf, type LiveRelation } from './live';
import { gatherOutlines } from './problem';
import type { RelatingPlanes } from './plane';
import { polished } from './polish';
import type { Relation } from './relation';

/** An exact relation that is missed by more than this does not hold. mm, or px without scale. */
const MISS = 1e-6;
/** A piece that shrinks to less than this share of itself was not drawn to hold relations: they contradict each other. */
const COLLAPSED = 0.02;

/**
 * How nearly a relation has to repeat others to be passed over, and how many steps it gets: strictly at first, since what is nearly a repetition may well say something of its own (a chain of
 * equal lengths). Relations that repeat each other only where they hold, as those of a rectangle that was pointed roughly, lead a strict search astray: then generously.
 */
const SEARCHES = [
  { repeats: 1e-8, steps: 15 },
  { repeats: 1e-3, steps: 40 },
  { repeats: 1e-5, steps: 40 },
] as const;

export interface Solved {
  readonly problem: Problem;
  readonly solution: Solution;
  readonly live: readonly LiveRelation[];
  /** The outlines in the problem, as they were given. */
  readonly known: ReadonlyMap<string, Relatable>;
  /** Whether every relation holds, and no piece vanished for it. */
  readonly holds: boolean;
}

/**
 * Puts outlines where relations hold exactly and what was pointed is kept as well as it can be: weighted least squares in which the
 * traced places are observations with the sigma they were pointed with, the fit's doubts take part, and relations are constraints.
 * Outlines that no relation is about are left out. Weak: with several hundred nodes it takes longer than a frame (it is dense).
 */
export function solveRelations(
  outlines: readonly Relatable[],
  relations: readonly Relation[],
  planes: RelatingPlanes,
): Solved {
  const named = new Set(relations.flatMap(({ on }) => on.map(({ outline }) => outline)));
  return solveAll(
    outlines.filter(({ id }) => named.has(id)),
    relations,
    planes,
  );
}

/** As `solveRelations`, with all the outlines, whether a relation is about them or not. */
export function solveAll(
  outlines: readonly Relatable[],
  relations: readonly Relation[],
  planes: RelatingPlanes,
): Solved {
  const { blocks, conditions, known } = gatherOutlines(outlines, planes);
  const live = listLive(relations, known, planes);
  const problem: Problem = { blocks, conditions: [...conditions, ...live.map(conditionOf)] };
  const start: Values = new Map(blocks.map(({ id, start: first }) => [id, first]));
  let solved: Solved | undefined;
  for (const { repeats, steps } of SEARCHES) {
    const near = solve(problem, { steps, repeats });
    const solution: Solution = { ...near, values: polished(problem, near.values) };
    const holds =
      live.every((each) => isHeld(each, solution.values, start)) && !hasCollapsed(known, solution.values, start);
    solved = { problem, solution, live, known, holds };
    if (holds) break;
  }
  return solved!;
}

function isHeld(live: LiveRelation, values: Values, start: Values): boolean {
  return missesOf(
    live,
    live.blocks.map((id) => values.get(id) ?? start.get(id)!),
  ).every((miss) => Math.abs(miss) <= MISS);
}

function hasCollapsed(known: ReadonlyMap<string, Relatable>, values: Values, start: Values): boolean {
  return [...known.values()].some((outline) => {
    if (outline.shape === 'circle') return !(values.get(outline.id)![2]! > COLLAPSED * start.get(outline.id)![2]!);
    const size = (at: Values, i: number) =>
      distance(
        nodeAt(at, outline.id, outline.nodes[i]!.id),
        nodeAt(at, outline.id, outline.nodes[(i + 1) % outline.nodes.length]!.id),
      );
    return outline.segments.some((_, i) => size(values, i) < COLLAPSED * size(start, i));
  });
}

function nodeAt(values: Values, outline: string, node: string): Vec {
  const [x, y] = values.get(nodeBlock(outline, node))!;
  return [x!, y!];
}

/** The outlines with every place where it was put, on the plane. */
export function solvedOutlines({
  known,
  solution: { values },
}: Pick<Solved, 'known' | 'solution'>): ReadonlyMap<string, Relatable> {
  return new Map([...known].map(([id, outline]) => [id, outlineAt(outline, values)]));
}

/** An outline at other values of its unknowns. */
export function outlineAt(outline: Relatable, values: Values): Relatable {
  const put = (block: string): Place => {
    const [x, y] = values.get(block)!;
    return { kind: 'placed', at: [x!, y!], seen: [0, 0] };
  };
  if (outline.shape === 'circle') {
    const [x, y, radius] = values.get(circleBlock(outline.id)) as [number, number, number];
    return {
      ...outline,
      by: {
        kind: 'rim',
        centre: { kind: 'placed', at: [x, y], seen: [0, 0] },
        rim: { kind: 'placed', at: [x + radius, y], seen: [0, 0] },
      },
    };
  }
  return {
    ...outline,
    nodes: outline.nodes.map((node) => ({ ...node, place: put(nodeBlock(outline.id, node.id)) })),
    segments: outline.segments.map((segment, i) =>
      segment.kind === 'arc' ? { ...segment, through: put(throughBlock(outline.id, outline.nodes[i]!.id)) } : segment,
    ),
  };
}

/** A place that moved by more of its own sigmas than this moved farther than the picture allows. */
export const TOO_FAR = 3;

export interface Move {
  readonly plane: string;
  readonly outline: string;
  /** The node, or `centre` of a circle. */
  readonly node: string;
  readonly at: Vec;
  /** How far it was moved from where it was drawn, mm. */
  readonly distance: number;
  /** The same in sigmas of the pointing there: more than `TOO_FAR` is more than the picture allows. */
  readonly sigmas: number;
}

/** Of every pointed place, by how many sigmas of its own it was moved, by the name of its block. */
export function listFarthest({
  problem,
  solution,
}: Solved): readonly { readonly block: string; readonly sigmas: number }[] {
  return [...missesByBlock(problem, solution)]
    .map(([block, sigmas]) => ({ block, sigmas }))
    .filter(({ block }) => block !== MAP_BLOCK);
}

/** How far every node had to move for the relations from where it was drawn. Places that were not pointed have no sigma of their own: theirs is 0. */
export function listMoves({ problem, solution, known }: Solved, drawn: (outline: Relatable) => Shape): readonly Move[] {
  const misses = missesByBlock(problem, solution);
  return [...known.values()].flatMap((outline) => {
    const { nodes } = drawn(outline);
    const ids =
      outline.shape === 'circle'
        ? [{ node: CENTRE, block: outline.id }]
        : outline.nodes.map(({ id }) => ({ node: id, block: nodeBlock(outline.id, id) }));
    return ids.map(({ node, block }, i): Move => {
      const [x, y] = solution.values.get(block) as [number, number];
      return {
        plane: outline.plane,
        outline: outline.id,
        node,
        at: [x, y],
        distance: distance([x, y], nodes[i] ?? [x, y]),
        sigmas: misses.get(block) ?? 0,
      };
    });
  });
}

/** By how many sigmas the fit's own doubts went, in the order of the plane's freedoms; none where they took no part. */
export function doubtsAt({ solution }: Solved): readonly number[] {
  return solution.values.get(MAP_BLOCK) ?? [];
}

/** Of every pointed block, how many sigmas it lies from where it was pointed. The rim of a circle counts for the circle. */
function missesByBlock({ conditions }: Problem, { values }: Solution): ReadonlyMap<string, number> {
  const misses = new Map<string, number>();
  for (const condition of conditions) {
    if (condition.exact) continue;
    const [block] = condition.blocks as readonly [string];
    const miss = Math.hypot(...condition.residuals(condition.blocks.map((id) => values.get(id)!)));
    const owner = block.split(':')[0]!;
    misses.set(owner, Math.max(miss, misses.get(owner) ?? 0));
  }
  return misses;
}
