import { findEnd, isSameRelationEnd, listThings, nextUnder, type Choosing } from './relate-tool';
import { NOTHING, say, stay, type Tool } from './tool';

/** What a size is going to be read between: one thing or two, or `several` places in a row. */
export interface DimensionState extends Choosing {
  readonly several?: boolean | undefined;
}

export const dimensionTool: Tool<DimensionState> = {
  belongsTo: 'trace',
  hint: () => ({ code: 'dimension' }),
  marks: ({ on }) => [{ kind: 'chosen-ends', on }],
  start: { on: [] },
  isFree: () => true,
  picks: true,
  setsNoPoint: () => true,
  step(state, input, context) {
    if (input.kind === 'another') return nextUnder(state);
    if (input.kind === 'back') return [{ ...state, on: state.on.slice(0, -1), within: undefined }, []];
    if (input.kind === 'cancel') return [{ on: [] }, []];
    if (input.kind !== 'set') return [state, []];
    const things = listThings(input.aim, context);
    const end = things[0] ?? findEnd(input.aim, context);
    if (!end) return stay(state, say('nothing-to-relate'));
    const without = state.on.filter((other) => !isSameRelationEnd(other, end));
    return [
      {
        ...state,
        within: things.length > 1 ? things : undefined,
        on: without.length < state.on.length ? without : [...(state.several ? state.on : state.on.slice(-1)), end],
      },
      [],
    ];
  },
  preview: () => NOTHING,
};
