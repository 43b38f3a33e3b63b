import { distance } from '@/core/geometry';
import { moveByEye, standByEye, type Job, type StoodByEye } from '@/core/job';
import { movedByHand } from '@/core/outline';
import type { LookedFrom, ThingByEye } from '@/core/shelf';
import type { Aim } from '../aim';
import { NOTHING, pointed, run, say, stay, type Step, type Tool, type ToolContext } from './tool';

/** What is stood in the drawing next, and what stands there and is chosen: that goes where it is pointed. */
export interface ByEyeState {
  readonly thing: ThingByEye;
  /** Undefined: as the view looks at it. */
  readonly from: LookedFrom | undefined;
  readonly chosen: string | undefined;
}

/** How near a place has to be to the foot of something to mean it; in the aim's own sigmas. */
const REACH = 14;

const findChosen = ({ byEye }: Pick<Job, 'byEye'>, { chosen }: ByEyeState): StoodByEye | undefined =>
  byEye.find(({ id }) => id === chosen);

/** In a plan things are seen from above, elsewhere as they stand. */
export const lookedFromIn = ({ fitted: { source } }: Pick<ToolContext, 'fitted'>): LookedFrom =>
  source.side === 'top' || source.side === 'bottom' ? 'above' : 'standing';

function findNear({ job: { byEye }, fitted }: ToolContext, { free, sigma }: Aim): StoodByEye | undefined {
  return byEye
    .filter(({ plane }) => plane === fitted.view.plane)
    .map((stood) => ({ stood, away: distance(stood.at.at, free) }))
    .filter(({ away }) => away <= REACH * sigma)
    .sort((a, b) => a.away - b.away)[0]?.stood;
}

function set(state: ByEyeState, aim: Aim, context: ToolContext): Step<ByEyeState> {
  if (!context.fitted.fit.scaled) return stay(state, say('by-eye-needs-scale'));
  const near = findNear(context, aim);
  if (near && near.id !== state.chosen) return [{ ...state, chosen: near.id }, []];
  const at = { ...pointed(aim), view: context.fitted.source.id };
  const chosen = findChosen(context.job, state);
  if (chosen) return [state, [run(moveByEye({ ...chosen, at }))]];
  const id = context.newId();
  const { plane } = context.fitted.view;
  const stood = { id, plane, thing: state.thing, from: state.from ?? lookedFromIn(context), at, turn: 0 };
  return [{ ...state, chosen: id }, [run(standByEye(stood))]];
}

/** Stands things of known size in the drawing, to judge by eye whether its scale can be right. */
export const byEyeTool: Tool<ByEyeState> = {
  belongsTo: 'fit',
  start: { thing: 'door', from: undefined, chosen: undefined },
  hint: ({ chosen }) => ({ code: chosen === undefined ? 'by-eye' : 'by-eye-chosen' }),
  marks: () => [{ kind: 'by-eye' }],
  cards: () => 'useful',
  setsNoPoint: ({ chosen }) => chosen === undefined,
  step(state, input, context) {
    const chosen = findChosen(context.job, state);
    switch (input.kind) {
      case 'set':
        return set(state, input.aim, context);
      case 'nudge':
        return chosen
          ? stay(state, run(moveByEye({ ...chosen, at: movedByHand(chosen.at, input.by, input.sigma) })))
          : stay(state);
      case 'back':
      case 'cancel':
        return [{ ...state, chosen: undefined }, []];
      default:
        return stay(state);
    }
  },
  preview: () => NOTHING,
};
