import { isRelatable, type RelationEnd } from '@/core/relate';
import type { Aim } from '../aim';
import { aimReach } from './reach';
import { findCircleAround, findNode, listPicked } from './pick';
import { NOTHING, say, stay, type Step, type Tool, type ToolContext } from './tool';

/** What was chosen, in the order in which it was pointed at. */
export interface Choosing {
  readonly on: readonly RelationEnd[];
  /** All that lay within reach of where it was pointed at last, the nearest first. */
  readonly within?: readonly RelationEnd[] | undefined;
}

/** What something is going to be said of. */
export interface RelateState extends Choosing {
  /** What is left free is shown. */
  readonly free?: boolean | undefined;
}

const START: RelateState = { on: [] };
/** A node is meant rather than its segment when it is this much nearer than what can be picked. */
const NODE_REACH = 0.6;

export function isSameRelationEnd(a: RelationEnd, b: RelationEnd): boolean {
  return a.outline === b.outline && a.node === b.node && a.segment === b.segment;
}

/** All that is pointed at, the nearest first: of each outline its node, where that is meant, and its segment; a circle, or an outline that can only be meant as a whole. */
export function listThings(aim: Aim, context: ToolContext): readonly RelationEnd[] {
  const { job, fitted, shapes } = context;
  const reach = aimReach(aim, context);
  return listPicked(job, { shapes }, fitted.view.plane, aim.plane, reach).flatMap(({ outline: id, segment }) => {
    const outline = job.outlines.find((other) => other.id === id);
    if (!outline) return [];
    if (!isRelatable(outline) || outline.shape === 'circle') return [{ outline: id }];
    const node = findNode(outline, shapes.get(id)!, aim.plane, NODE_REACH * reach);
    return [...(node ? [{ outline: id, node }] : []), { outline: id, segment: outline.nodes[segment]!.id }];
  });
}

const isOf = (end: RelationEnd, { job }: ToolContext) => {
  const outline = job.outlines.find(({ id }) => id === end.outline);
  return outline !== undefined && isRelatable(outline);
};

/** What of that something can be said of; where nothing is near, the circle in which one points. */
function listEnds(aim: Aim, context: ToolContext): readonly RelationEnd[] {
  const things = listThings(aim, context);
  const around =
    things.length > 0 ? undefined : findCircleAround(context.job, context, context.fitted.view.plane, aim.plane);
  return around ? [{ outline: around }] : things.filter((end) => isOf(end, context));
}

/** The node, the segment or the circle that is pointed at; none where something lies nearer of which nothing can be said. */
export function findEnd(aim: Aim, context: ToolContext): RelationEnd | undefined {
  const [nearest] = listThings(aim, context);
  return nearest && !isOf(nearest, context) ? undefined : listEnds(aim, context)[0];
}

/** The next of what lay within reach in the place of what was chosen last, round and round. */
export function nextUnder<S extends Choosing>(state: S): Step<S> {
  const { on, within = [] } = state;
  const last = on.at(-1);
  const at = within.findIndex((end) => last !== undefined && isSameRelationEnd(end, last));
  const free = [...within.slice(at + 1), ...within.slice(0, Math.max(0, at))];
  const next = free.find((end) => !on.some((other) => isSameRelationEnd(other, end)));
  return next ? [{ ...state, on: [...on.slice(0, -1), next] }, []] : stay(state, say('nothing-under-it'));
}

function toggled(state: RelateState, end: RelationEnd): RelateState {
  const without = state.on.filter((other) => !isSameRelationEnd(other, end));
  return { ...state, on: without.length < state.on.length ? without : [...state.on, end] };
}

/** Points at what should be true of one another. What can be said is offered on its card. */
export const relateTool: Tool<RelateState> = {
  belongsTo: 'trace',
  // What is chosen in one view is related to what is chosen in the next.
  goesAlong: true,
  hint: ({ on }, { job }) => ({ code: job.views.length > 1 ? 'relate-views' : 'relate', at: on.length }),
  marks: ({ on, free }) => [{ kind: 'chosen-ends', on }, { kind: free ? 'freedoms' : 'relations' }],
  start: START,
  isFree: () => true,
  picks: true,
  step(state, input, context): Step<RelateState> {
    if (input.kind === 'set') {
      const ends = listEnds(input.aim, context);
      const [end] = ends;
      if (!end) return stay(state, say('nothing-to-relate'));
      return [{ ...toggled(state, end), within: ends.length > 1 ? ends : undefined }, []];
    }
    if (input.kind === 'another') return nextUnder(state);
    if (input.kind === 'back') return [{ ...state, on: state.on.slice(0, -1), within: undefined }, []];
    return input.kind === 'cancel' ? [{ ...state, on: [], within: undefined }, []] : [state, []];
  },
  preview: () => NOTHING,
};
