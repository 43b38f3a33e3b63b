import { distance, subtract, type Vec } from '@/core/geometry';
import { changeOutline, changeRecipe, nudgeOutline } from '@/core/job';
import { draggedOutline, mapPointed, movedByHand, withHandle, withNodePlace, type Chain } from '@/core/outline';
import type { Aim } from '../aim';
import { isPullable, piecesPulled, pulledThrough } from './pull-beside';
import { aimReach } from './reach';
import { findNode, findPicked, listHandles, listPicked, type HandleEnd } from './pick';
import {
  NOTHING,
  pointed,
  run,
  say,
  stay,
  toSheetPlace,
  type Nudge,
  type Step,
  type Tool,
  type ToolContext,
} from './tool';

/** What is selected, and what is being moved. */
export interface SelectState {
  readonly outlines: readonly string[];
  readonly node?: string | undefined;
  /** A place on a segment of the selected outline: a node can be put there. */
  readonly segment?: { readonly index: number; readonly t: number } | undefined;
  /** All that lay within reach of where it was pointed at, the nearest first. */
  readonly within?: readonly string[] | undefined;
  /** Further outlines are added to the selection. */
  readonly several: boolean;
  /** The next place that is set is where the selected node goes. */
  readonly moving: boolean;
  readonly grabbed?: Grabbed | undefined;
}

/** What lies beside others is pulled to where one points. */
type Grabbed =
  | { readonly kind: 'beside'; readonly to: Aim | undefined }
  | { readonly kind: 'node'; readonly node: string; readonly to: Vec }
  | { readonly kind: 'handle'; readonly handle: HandleEnd; readonly to: Vec };

const START: SelectState = { outlines: [], several: false, moving: false };

export function findSelectedChain(state: SelectState, context: Pick<ToolContext, 'job'>): Chain | undefined {
  const outline =
    state.outlines.length === 1 ? context.job.outlines.find((other) => other.id === state.outlines[0]) : undefined;
  return outline?.shape === 'chain' ? outline : undefined;
}

function pick(state: SelectState, aim: Aim, reach: number, context: ToolContext): SelectState {
  const chain = findSelectedChain(state, context);
  const shape = chain && context.shapes.get(chain.id);
  const node = chain && shape && findNode(chain, shape, aim.plane, reach);
  // A handle of the chosen node that is pointed at is taken in hand: the next place that is set is where it goes.
  const handle =
    chain && shape && state.node
      ? listHandles(chain, shape).find((end) => end.node === state.node && distance(end.at, aim.plane) <= reach)
      : undefined;
  if (handle && handle.node !== node)
    return { ...state, segment: undefined, moving: true, grabbed: { kind: 'handle', handle, to: aim.sheet } };
  if (node) return { ...state, node, segment: undefined };
  const all = listPicked(context.job, context, context.fitted.view.plane, aim.plane, reach);
  const [picked] = all;
  if (!picked) return { ...START, several: state.several, outlines: state.several ? state.outlines : [] };
  if (state.several) {
    const known = state.outlines.includes(picked.outline);
    return {
      ...START,
      several: true,
      outlines: known ? state.outlines.filter((id) => id !== picked.outline) : [...state.outlines, picked.outline],
    };
  }
  const again = state.outlines[0] === picked.outline;
  const within = all.length > 1 ? all.map(({ outline }) => outline) : undefined;
  return {
    ...START,
    outlines: [picked.outline],
    within,
    segment: again ? { index: picked.segment, t: picked.t } : undefined,
  };
}

/** The next of what lay within reach, round and round. */
function another({ outlines, within = [], several }: SelectState): SelectState {
  const next = within[(within.indexOf(outlines.at(-1) ?? '') + 1) % within.length];
  return {
    ...START,
    several,
    within,
    outlines: next === undefined ? outlines : several ? [...new Set([...outlines.slice(0, -1), next])] : [next],
  };
}

function moveNode(state: SelectState, aim: Aim, context: ToolContext): Step<SelectState> {
  const chain = findSelectedChain(state, context);
  if (!chain || !state.node) return [{ ...state, moving: false }, []];
  return [
    { ...state, moving: false },
    [run(changeOutline(withNodePlace(chain, state.node, pointed(aim)), 'point-moved'))],
  ];
}

function grab(state: SelectState, aim: Aim, reach: number, context: ToolContext): SelectState {
  const beside = findSelectedBeside(state, context);
  if (beside && findPicked(context.job, context, context.fitted.view.plane, aim.plane, reach)?.outline === beside.id)
    return { ...state, grabbed: { kind: 'beside', to: aim } };
  const chain = findSelectedChain(state, context);
  if (!chain) return state;
  const shape = context.shapes.get(chain.id)!;
  const handle = listHandles(chain, shape).find((end) => distance(end.at, aim.plane) <= reach);
  const node = findNode(chain, shape, aim.plane, reach);
  if (node) return { ...state, node, grabbed: { kind: 'node', node, to: aim.sheet } };
  return handle ? { ...state, node: handle.node, grabbed: { kind: 'handle', handle, to: aim.sheet } } : state;
}

/** The outline as it would be if what is grabbed were let go now. */
function findGrabbed(state: SelectState, context: ToolContext, sigma = 1): Chain | undefined {
  const chain = findSelectedChain(state, context);
  const { grabbed } = state;
  if (!chain || !grabbed || grabbed.kind === 'beside') return undefined;
  if (grabbed.kind === 'node') return withNodePlace(chain, grabbed.node, { kind: 'pointed', at: grabbed.to, sigma });
  const { handle, to } = grabbed;
  const shape = context.shapes.get(chain.id)!;
  const index = chain.nodes.findIndex((node) => node.id === handle.node);
  const origin = toSheetPlace(context.fitted, shape.nodes[index]!);
  const other = listHandles(chain, shape).find((end) => end.node === handle.node && end.side !== handle.side);
  return withHandle(
    chain,
    handle.node,
    handle.side,
    subtract(to, origin),
    other && subtract(toSheetPlace(context.fitted, other.at), origin),
  );
}

function findSelectedBeside(state: SelectState, { job }: Pick<ToolContext, 'job'>) {
  const outline = state.outlines.length === 1 ? job.outlines.find(({ id }) => id === state.outlines[0]) : undefined;
  return isPullable(outline) ? outline : undefined;
}

/** The selected offset or strip as it is pulled now. */
function findPulled(state: SelectState, context: ToolContext) {
  const beside = state.grabbed?.kind === 'beside' ? findSelectedBeside(state, context) : undefined;
  const to = state.grabbed?.kind === 'beside' ? state.grabbed.to : undefined;
  return beside && to ? pulledThrough(beside, to, context) : undefined;
}

/** Lets go of what is in hand, at its new place. */
function drop(state: SelectState, aim: Aim, context: ToolContext): Step<SelectState> {
  if (state.grabbed?.kind === 'beside') {
    const pulled = findPulled({ ...state, grabbed: { kind: 'beside', to: aim } }, context);
    return [
      { ...state, grabbed: undefined, moving: false },
      pulled ? [run({ ...changeRecipe(pulled.id, pulled.recipe), merge: undefined })] : [],
    ];
  }
  const changed = findGrabbed(state, context, aim.sigma);
  const free: SelectState = { ...state, grabbed: undefined, moving: false };
  return changed
    ? [free, [run(changeOutline(changed, state.grabbed?.kind === 'handle' ? 'handle-moved' : 'point-moved'))]]
    : [free, []];
}

function nudge(state: SelectState, { by, sigma }: Nudge, context: ToolContext): Step<SelectState> {
  const chain = findSelectedChain(state, context);
  if (chain && state.node) {
    const nodes = chain.nodes.map((node) =>
      node.id !== state.node ? node : { ...node, place: mapPointed(node.place, (p) => movedByHand(p, by, sigma)) },
    );
    return [state, [run(nudgeOutline({ ...chain, nodes }, 'point-moved'))]];
  }
  const outlines = context.job.outlines.filter((outline) => state.outlines.includes(outline.id));
  return [state, outlines.map((outline) => run(nudgeOutline(draggedOutline(outline, by), 'outline-moved')))];
}

function pulledTo(state: SelectState, aim: Aim): SelectState {
  const { grabbed } = state;
  if (!grabbed) return state;
  return { ...state, grabbed: grabbed.kind === 'beside' ? { ...grabbed, to: aim } : { ...grabbed, to: aim.sheet } };
}

export const selectTool: Tool<SelectState> = {
  belongsTo: 'trace',
  rests: true,
  looks: true,
  start: START,
  isFree: () => true,
  hint({ moving, grabbed }, { job }) {
    if (moving) return { code: grabbed ? 'handle-moving' : 'point-moving' };
    return { code: job.outlines.length === 0 ? 'draw-first' : 'choose-outline' };
  },
  marks: ({ outlines, node, segment }) => [{ kind: 'chosen-outlines', outlines, part: { node, segment } }],
  cards: ({ outlines }) => (outlines.length > 0 ? 'useful' : undefined),
  chosen: ({ outlines }) => outlines,
  picks: true,
  setsNoPoint: ({ node }) => !node,
  step(state, input, context) {
    switch (input.kind) {
      case 'set':
        if (state.moving && state.grabbed) return drop(pulledTo(state, input.aim), input.aim, context);
        return state.moving
          ? moveNode(state, input.aim, context)
          : [pick(state, input.aim, aimReach(input.aim, context), context), []];
      case 'grab':
        return [grab(state, input.aim, input.reach, context), []];
      case 'drag':
        return [pulledTo(state, input.aim), []];
      case 'drop':
        return drop(state, input.aim, context);
      case 'another':
        return state.within ? [another(state), []] : stay(state, say('nothing-under-it'));
      case 'nudge':
        return nudge(state, input, context);
      case 'typed':
        return stay(state, say('point-first'));
      case 'release':
        return [{ ...state, grabbed: undefined }, []];
      case 'cancel':
        return [START, []];
      default:
        return [state, []];
    }
  },
  preview(state, aim, context) {
    const pulled = findPulled(state.moving && aim ? pulledTo(state, aim) : state, context);
    if (pulled) return { ...NOTHING, pieces: { list: piecesPulled(pulled, context), look: 'comes' } };
    const changed = findGrabbed(state, context);
    return changed ? { outlines: [changed], points: [] } : NOTHING;
  },
};
