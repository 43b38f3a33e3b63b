import { addFeature, addSpan, named, together, type Command, type Feature } from '@/core/job';
import type { Direction } from '@/core/space';
import type { WrittenLength } from '@/core/units';

/** A size of a box as it was typed. */
export interface BoxSize {
  readonly written: string;
  readonly size: WrittenLength;
}

export type BoxSizes = Readonly<Partial<Record<Direction, BoxSize>>>;

/** The two sides of a box along each direction. */
const SIDES: Readonly<Record<Direction, readonly [string, string]>> = {
  across: ['Left side', 'Right side'],
  deep: ['Front face', 'Back face'],
  up: ['Underside', 'Top'],
};

/** "Top", or "Top of the handles", with a number where something is called so already. */
function nameOf(side: string, of: string, taken: readonly string[]): string {
  const name = `${side}${of === '' ? '' : ` (${of})`}`.slice(0, 76);
  if (!taken.includes(name)) return name;
  for (let i = 2; ; i++) if (!taken.includes(`${name} ${i}`)) return `${name} ${i}`;
}

/**
 * A box that the views are fitted into: two shared lines for each of its typed sizes, and the size between them; `of` says what it spans. They are pointed at afterwards, in every view that shows them. Undefined
 * where no size is typed.
 */
export function boxFirst(
  sizes: BoxSizes,
  of: string,
  taken: readonly string[],
  newId: () => string,
): Command | undefined {
  const names = [...taken];
  const commands = (Object.keys(SIDES) as Direction[]).flatMap((along) => {
    const said = sizes[along];
    if (!said) return [];
    const [from, to] = SIDES[along].map((side): Feature => {
      const name = nameOf(side, of.trim(), names);
      names.push(name);
      return { id: newId(), name, along, said: {}, seen: [] };
    }) as [Feature, Feature, ...Feature[]];
    const { mm, plusMinus, guess } = said.size;
    const span = {
      id: newId(),
      from: from.id,
      to: to.id,
      said: { value: mm, written: said.written.slice(0, 80) },
      ...(plusMinus === undefined ? {} : { plusMinus }),
      guess,
      role: 'use' as const,
    };
    return [addFeature(from), addFeature(to), addSpan(span)];
  });
  const last = commands.at(-1);
  return last && named(together([...commands.slice(0, -1), last]), 'box-added', { count: commands.length / 3 });
}
