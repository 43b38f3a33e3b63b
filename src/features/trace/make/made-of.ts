import { startTool, type StandMode } from '@/bench/tools';
import type { Session } from '@/bench/session';
import { addMade, type Command, type Job } from '@/core/job';
import type { MadeOutline, Outline, Recipe, RecipeKind } from '@/core/outline';
import { newId } from '@/store';

/** First values of what is made: mm. They are there to be typed over. */
const FIRST = { offset: 5, width: 20, step: 50 } as const;

/** What stands in its sources' stead: they become aids. */
const INSTEAD: readonly RecipeKind[] = ['strip', 'combined'];

export interface ChoosingSources {
  readonly outlines: readonly Outline[];
  /** Ids in the order in which they were chosen: the first is what others are taken from. */
  readonly of: readonly string[];
  readonly guides: Job['guides'];
}

export type MakeKind = Exclude<RecipeKind, 'around' | 'placed' | 'fittings'>;

export function firstRecipe(kind: MakeKind, { of, guides }: ChoosingSources): Recipe | undefined {
  switch (kind) {
    case 'offset':
      return { kind, of, by: FIRST.offset, both: false, corners: 'round' };
    case 'strip':
      return { kind, of, width: FIRST.width, justified: 'middle', ends: 'flat', corners: 'mitre' };
    case 'combined':
      return of.length > 1 ? { kind, of, how: 'united' } : undefined;
    case 'rows':
      return { kind, of, step: [FIRST.step, 0], count: 3, rowStep: [0, FIRST.step], rows: 1 };
    case 'mirrored': {
      const guide = guides.at(-1);
      return guide && { kind, of, guide: guide.id, joined: true };
    }
  }
}

/** What is made, and the command that adds it; its sources become aids where it stands in their stead. */
export function making(recipe: Recipe, from: Outline): { readonly made: MadeOutline; readonly command: Command } {
  const made: MadeOutline = { shape: 'made', id: newId(), layer: from.layer, plane: from.plane, recipe };
  const instead = INSTEAD.includes(recipe.kind) || (recipe.kind === 'mirrored' && recipe.joined);
  return { made, command: addMade(made, instead) };
}

/** Takes the tool in hand that asks for a place, for what is chosen. */
export function askForPlace(session: Session, mode: StandMode, of: readonly string[]): void {
  const tool = startTool('stand');
  if (tool.name === 'stand') session.setTool({ name: 'stand', state: { ...tool.state, mode, of } });
}
