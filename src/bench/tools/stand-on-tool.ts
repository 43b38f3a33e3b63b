import { setStandsOn } from '@/core/job';
import { findPicked } from './pick';
import { aimReach } from './reach';
import { NOTHING, run, say, stay, type Step, type Tool, type ToolContext } from './tool';
import type { Aim } from '../aim';

/** Points at the edge, in another view, that a view stands on. */
export interface StandOnState {
  /** The view that is to stand. */
  readonly view?: string | undefined;
}

/** The straight edge of an outline that is pointed at in the view that is looked at, which shows another plane than the one that is to stand. */
function choose(state: StandOnState, aim: Aim, context: ToolContext): Step<StandOnState> {
  const { job, fitted, shapes } = context;
  if (state.view === undefined) return stay(state);
  const own = job.views.find(({ id }) => id === state.view)?.plane;
  if (fitted.source.plane === own) return stay(state, say('edge-in-itself'));
  const picked = findPicked(job, context, fitted.view.plane, aim.plane, aimReach(aim, context));
  const outline = job.outlines.find(({ id }) => id === picked?.outline);
  if (!picked || !outline) return stay(state, say('edge-nothing-here'));
  if (outline.shape !== 'chain' || shapes.get(outline.id)?.pieces[picked.segment]?.kind !== 'line')
    return stay(state, say('edge-bent'));
  return [{}, [run(setStandsOn(state.view, { outline: outline.id, from: outline.nodes[picked.segment]!.id }))]];
}

export const standOnTool: Tool<StandOnState> = {
  belongsTo: 'arrange',
  goesAlong: true,
  isFree: true,
  start: {},
  hint: ({ view }, { fitted }) =>
    view === undefined ? undefined : { code: fitted.source.id === view ? 'edge-elsewhere' : 'edge-here' },
  cards: ({ view }) => (view === undefined ? undefined : 'in the way'),
  setsNoPoint: () => true,
  step(state, input, context) {
    if (input.kind === 'set') return choose(state, input.aim, context);
    return input.kind === 'back' || input.kind === 'cancel' ? [{}, []] : [state, []];
  },
  preview: () => NOTHING,
};
