import type { Problem } from './problem';

export const ownedName = (owner: string, id: string) => `${owner}/${id}`;

/** The same problem with blocks and groups named after whoever they belong to, so that several stand in one beside each other; what is `shared` keeps its name. */
export function ownedBy(owner: string, { blocks, conditions }: Problem, isShared: (id: string) => boolean): Problem {
  const named = (id: string) => (isShared(id) ? id : ownedName(owner, id));
  return {
    blocks: blocks.map((block) => ({ ...block, id: named(block.id) })),
    conditions: conditions.map((condition) => ({
      ...condition,
      group: named(condition.group),
      blocks: condition.blocks.map(named),
    })),
  };
}
