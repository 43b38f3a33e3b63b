import type { RelationEnd } from '@/core/relate';
import { findEnd, isSameEnd } from './relate-tool';
import { NOTHING, say, stay, type Tool } from './tool';

/** What a size is going to be read between: one thing or two. */
export interface DimensionState {
  readonly on: readonly RelationEnd[];
}

export const dimensionTool: Tool<DimensionState> = {
  start: { on: [] },
  step(state, input, context) {
    if (input.kind === 'back') return [{ on: state.on.slice(0, -1) }, []];
    if (input.kind === 'cancel') return [{ on: [] }, []];
    if (input.kind !== 'set') return [state, []];
    const end = findEnd(input.aim, context);
    if (!end) return stay(state, say('nothing-to-relate'));
    const without = state.on.filter((other) => !isSameEnd(other, end));
    return [{ on: without.length < state.on.length ? without : [...state.on.slice(-1), end] }, []];
  },
  preview: () => NOTHING,
};
