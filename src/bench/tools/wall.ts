import { addMade, changeRecipe, type Command } from '@/core/job';
import type { Justified } from '@/core/outline';
import type { ToolContext } from './tool';

/** How walls are drawn: their thickness, and where that lies along the line that is pointed at. mm */
export interface Wall {
  readonly width: number;
  readonly justified: Justified;
}

/** There to be typed over: an inner wall (common practice). */
export const FIRST_WALL: Wall = { width: 100, justified: 'middle' };

/** A line joins the walls of its layer that are as thick and lie the same way, which cleans corners and tees; the first of them makes them. */
export function wallCommand(
  { width, justified }: Wall,
  line: string,
  { job, fitted, layer, newId }: ToolContext,
): Command {
  const { plane } = fitted.view;
  for (const outline of job.outlines) {
    if (
      outline.shape !== 'made' ||
      outline.plane !== plane ||
      outline.layer !== layer ||
      outline.recipe.kind !== 'strip'
    )
      continue;
    const { recipe } = outline;
    if (recipe.width === width && recipe.justified === justified && recipe.ends === 'flat')
      return {
        ...changeRecipe(outline.id, { ...recipe, of: [...recipe.of, line] }),
        name: { code: 'wall-added', detail: {} },
        merge: undefined,
      };
  }
  return {
    ...addMade(
      {
        shape: 'made',
        id: newId(),
        layer,
        plane,
        recipe: { kind: 'strip', of: [line], width, justified, ends: 'flat', corners: 'mitre' },
      },
      true,
    ),
    name: { code: 'wall-added', detail: {} },
  };
}
