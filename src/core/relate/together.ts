import { freeMatrix, linearize, type Condition } from '../adjust';
import { follows, judgeRelation } from './conflict';
import { listGroups } from './groups';
import { saysNothing } from './live';
import type { RelatingPlanes } from './plane';
import type { Relatable } from './relatable';
import type { Relation } from './relation';
import { solveAll, type Solved } from './solve-relations';

/** An equation says something of its own where so much of it is left beside those before it, as a share. */
const OWN = 1e-6;

/**
 * Of relations that are wanted beside those that hold what can hold together, without those that say nothing new, in the order in which they are wanted. Where all of them can hold that is found at once, group by group; else
 * one is tried after the other.
 */
export function takeRelations(
  wanted: readonly Relation[],
  held: readonly Relation[],
  outlines: readonly Relatable[],
  planes: RelatingPlanes,
): readonly Relation[] {
  const isWanted = new Set(wanted);
  const taken = listGroups(outlines, [...held, ...wanted]).flatMap((group) => {
    const own = group.relations.filter((relation) => isWanted.has(relation));
    const before = group.relations.filter((relation) => !isWanted.has(relation));
    if (own.length === 0) return [];
    return takenAtOnce(own, before, group.outlines, planes) ?? takenOneByOne(own, before, group.outlines, planes);
  });
  const isTaken = new Set(taken);
  return wanted.filter((relation) => isTaken.has(relation));
}

/** Undefined where not all of them can hold together. */
function takenAtOnce(
  wanted: readonly Relation[],
  held: readonly Relation[],
  outlines: readonly Relatable[],
  planes: RelatingPlanes,
): readonly Relation[] | undefined {
  const whole = solveAll(outlines, [...held, ...wanted], planes);
  if (!whole.holds) return undefined;
  const says = listIndependent(whole);
  const kept = wanted.filter((relation) => says.has(relation));
  const again = solveAll(outlines, [...held, ...kept], planes);
  if (!again.holds) return undefined;
  // What only seemed to follow where all of it holds says something of its own after all.
  const more = new Set(
    whole.live.filter((live) => !saysNothing(live, again.solution.values)).map(({ relation }) => relation),
  );
  return wanted.filter((relation) => says.has(relation) || more.has(relation));
}

/** Relations whose equations are not made up of those before them, where all of them hold (modified Gram-Schmidt; Golub & Van Loan, Matrix Computations, 4th edition, section 5.2.8). */
function listIndependent({ problem, solution: { layout, values }, live }: Solved): ReadonlySet<Relation> {
  const exact = problem.conditions.filter((condition) => condition.exact);
  const slopes = linearize({ blocks: problem.blocks, conditions: exact }, layout, values);
  const rows = freeMatrix(slopes, layout).to2DArray();
  const basis: (readonly number[])[] = [];
  const independent = new Set<Condition>();
  slopes.rows.forEach(({ condition }, i) => {
    const size = Math.hypot(...rows[i]!);
    let left: readonly number[] = rows[i]!;
    for (const other of basis) {
      const along = left.reduce((sum, value, k) => sum + value * other[k]!, 0);
      if (along !== 0) left = left.map((value, k) => value - along * other[k]!);
    }
    const rest = Math.hypot(...left);
    if (!(rest > OWN * size)) return;
    basis.push(left.map((value) => value / rest));
    independent.add(condition);
  });
  const ofRelations = exact.slice(exact.length - live.length);
  return new Set(live.filter((_, i) => independent.has(ofRelations[i]!)).map(({ relation }) => relation));
}

function takenOneByOne(
  wanted: readonly Relation[],
  held: readonly Relation[],
  outlines: readonly Relatable[],
  planes: RelatingPlanes,
): readonly Relation[] {
  const taken: Relation[] = [];
  for (const relation of wanted) {
    const others = [...held, ...taken];
    if (
      !follows(relation, others, outlines, planes) &&
      judgeRelation(relation, others, outlines, planes).kind === 'holds'
    )
      taken.push(relation);
  }
  return taken;
}
