import type { Problem } from './problem';

export const ownedName = (owner: string, id: string) => `${owner}/${id}`;

/** The same problem with blocks and groups named after whoever they belong to, so that several stand in one beside each other; what is nobody's own keeps its name. */
export function ownedBy({ blocks, conditions }: Problem, ownerOf: (id: string) => string | undefined): Problem {
  const named = (id: string) => {
    const owner = ownerOf(id);
    return owner === undefined ? id : ownedName(owner, id);
  };
  return {
    blocks: blocks.map(({ id, inUnitsOf, ...block }) => ({
      ...block,
      id: named(id),
      inUnitsOf: inUnitsOf === undefined ? undefined : named(inUnitsOf),
    })),
    conditions: conditions.map((condition) => ({
      ...condition,
      group: named(condition.group),
      blocks: condition.blocks.map(named),
    })),
  };
}
