import type { RelationEnd } from '@/core/relate';
import type { Aim } from '../aim';
import { findPicked } from './pick';
import { reachOf } from './reach';
import { findEnd, isSameEnd } from './relate-tool';
import { NOTHING, say, stay, type Tool, type ToolContext } from './tool';

/** What a size is going to be read between: one thing or two, or `several` places in a row. */
export interface DimensionState {
  readonly on: readonly RelationEnd[];
  readonly several?: boolean | undefined;
}

/** What is pointed at; of what can be measured as a whole only, all of it. */
function findThing(aim: Aim, context: ToolContext): RelationEnd | undefined {
  const end = findEnd(aim, context);
  const picked = end
    ? undefined
    : findPicked(context.job, context, context.fitted.view.id, aim.plane, reachOf(aim, context));
  return end ?? (picked && { outline: picked.outline });
}

export const dimensionTool: Tool<DimensionState> = {
  start: { on: [] },
  isFree: true,
  setsNoPoint: () => true,
  step(state, input, context) {
    if (input.kind === 'back') return [{ ...state, on: state.on.slice(0, -1) }, []];
    if (input.kind === 'cancel') return [{ on: [] }, []];
    if (input.kind !== 'set') return [state, []];
    const end = findThing(input.aim, context);
    if (!end) return stay(state, say('nothing-to-relate'));
    const without = state.on.filter((other) => !isSameEnd(other, end));
    return [
      {
        ...state,
        on: without.length < state.on.length ? without : [...(state.several ? state.on : state.on.slice(-1)), end],
      },
      [],
    ];
  },
  preview: () => NOTHING,
};
