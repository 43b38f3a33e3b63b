import type { Matrix } from 'ml-matrix';
import { freeMatrix, layOut, linearize, semiInverse, type Problem, type Values } from '../adjust';
import { polar, type Vec } from '../geometry';
import { circleBlock, nodeBlock } from './element';
import { listGroups, type Group } from './groups';
import { conditionOf, listLive } from './live';
import { heldStill, type RelatingPlanes } from './plane';
import { gatherOutlines } from './problem';
import type { Relatable } from './relatable';
import { CENTRE } from '../outline';
import type { Relation } from './relation';

/** What relations and typed sizes leave open of a place: nothing, to move along a line, or any way. */
export interface Freedom {
  readonly outline: string;
  /** The node, or `centre` of a circle. */
  readonly node: string;
  readonly at: Vec;
  readonly ways: 0 | 1 | 2;
  /** Along which it can move, where that is a line; a unit vector. */
  readonly along?: Vec | undefined;
  /** A circle can change its size. */
  readonly grows: boolean;
}

/** A share of a free movement below this is none. */
const NONE = 1e-6;
/** Equations at a solution repeat each other as nearly as this. */
const REPEATS = 1e-9;

/**
 * How every node and every circle can still move with everything exact holding, to first order, where `values` has them (a solution; places that it does not know are
 * where they were drawn). What was pointed holds nothing: without it the place could be there.
 */
export function listFreedoms(
  outlines: readonly Relatable[],
  relations: readonly Relation[],
  planes: RelatingPlanes,
  values: Values,
): readonly Freedom[] {
  return listGroups(outlines, relations).flatMap((group) => freedomsIn(group, planes, values));
}

function freedomsIn({ outlines, relations }: Group, planes: RelatingPlanes, values: Values): readonly Freedom[] {
  const { blocks, conditions, known } = gatherOutlines(outlines, heldStill(planes));
  const problem: Problem = {
    blocks,
    conditions: [...conditions.filter(({ exact }) => exact), ...listLive(relations, known, planes).map(conditionOf)],
  };
  const layout = layOut(blocks);
  const at: Values = new Map(blocks.map(({ id, start }) => [id, values.get(id) ?? start]));
  const slopes = freeMatrix(linearize(problem, layout, at), layout);
  const held = slopes.rows > 0 ? heldBy(slopes) : undefined;
  /** The share of a free movement of one number that goes along with another's. */
  const share = (i: number, k: number) => (i === k ? 1 : 0) - (held?.get(i, k) ?? 0);
  return [...known.values()].flatMap((outline) => {
    const places =
      outline.shape === 'circle'
        ? [{ node: CENTRE, block: circleBlock(outline.id) }]
        : outline.nodes.map(({ id }) => ({ node: id, block: nodeBlock(outline.id, id) }));
    return places.map(({ node, block }): Freedom => {
      const [first, [x, y]] = [layout.unknown.get(block)!, at.get(block) as [number, number]];
      return {
        outline: outline.id,
        node,
        at: [x, y],
        grows: outline.shape === 'circle' && share(first + 2, first + 2) > NONE,
        ...waysOf(share(first, first), share(first, first + 1), share(first + 1, first + 1)),
      };
    });
  });
}

/** Bᵀ (B Bᵀ)⁺ B: what of a movement exact equations do not allow. */
function heldBy(slopes: Matrix): Matrix {
  const { inverse } = semiInverse(slopes.mmul(slopes.transpose()), REPEATS);
  return slopes.transpose().mmul(inverse).mmul(slopes);
}

/** The ways of a place by the 2 × 2 part of the projector: its eigenvalues say how much of a movement is free. */
function waysOf(xx: number, xy: number, yy: number): Pick<Freedom, 'ways' | 'along'> {
  const [middle, reach] = [(xx + yy) / 2, Math.hypot((xx - yy) / 2, xy)];
  if (middle - reach > NONE) return { ways: 2 };
  return middle + reach > NONE ? { ways: 1, along: polar(1, Math.atan2(2 * xy, xx - yy) / 2) } : { ways: 0 };
}
