import { isRelatable, type RelationEnd } from '@/core/relate';
import type { Aim } from '../aim';
import { reachOf } from './reach';
import { findCircleAround, findNode, findPicked } from './pick';
import { NOTHING, say, stay, type Step, type Tool, type ToolContext } from './tool';

/** What something is going to be said of, in the order in which it was pointed at. */
export interface RelateState {
  readonly on: readonly RelationEnd[];
  /** What is left free is shown. */
  readonly free?: boolean | undefined;
}

const START: RelateState = { on: [] };
/** A node is meant rather than its segment when it is this much nearer than what can be picked. */
const NODE_REACH = 0.6;

export function isSameEnd(a: RelationEnd, b: RelationEnd): boolean {
  return a.outline === b.outline && a.node === b.node && a.segment === b.segment;
}

/** The node, the segment or the circle that is pointed at; where none of them is near, the circle in which one points. */
export function findEnd(aim: Aim, { job, fitted, shapes, ...context }: ToolContext): RelationEnd | undefined {
  const reach = reachOf(aim, { job, fitted, shapes, ...context });
  const picked = findPicked(job, { shapes }, fitted.view.id, aim.plane, reach);
  const outline = picked && job.outlines.find(({ id }) => id === picked.outline);
  const around = picked ? undefined : findCircleAround(job, { shapes }, fitted.view.id, aim.plane);
  if (around) return { outline: around };
  if (!picked || !outline || !isRelatable(outline)) return undefined;
  if (outline.shape === 'circle') return { outline: outline.id };
  const node = findNode(outline, shapes.get(outline.id)!, aim.plane, NODE_REACH * reach);
  return node ? { outline: outline.id, node } : { outline: outline.id, segment: outline.nodes[picked.segment]!.id };
}

function toggled(state: RelateState, end: RelationEnd): RelateState {
  const without = state.on.filter((other) => !isSameEnd(other, end));
  return { ...state, on: without.length < state.on.length ? without : [...state.on, end] };
}

/** Points at what should be true of one another. What can be said is offered on its card. */
export const relateTool: Tool<RelateState> = {
  start: START,
  isFree: true,
  step(state, input, context): Step<RelateState> {
    if (input.kind === 'set') {
      const end = findEnd(input.aim, context);
      return end ? [toggled(state, end), []] : stay(state, say('nothing-to-relate'));
    }
    if (input.kind === 'back') return [{ ...state, on: state.on.slice(0, -1) }, []];
    return input.kind === 'cancel' ? [{ ...state, on: [] }, []] : [state, []];
  },
  preview: () => NOTHING,
};
