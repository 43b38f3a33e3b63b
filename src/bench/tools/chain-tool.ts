import { guideReach } from '@/core/derive';
import { add, cross, distance, dot, moved, pointAt, polar, subtract, type Arc, type Vec } from '@/core/geometry';
import {
  findGuideLine,
  reflection,
  movedByHand,
  placingOf,
  reversedChain,
  shapeOf,
  findPosition,
  type Chain,
  type Node,
  type Place,
  type PointedPlace,
  type Segment,
} from '@/core/outline';
import type { Aim } from '../aim';
import { close, findCentreLine, finish, fresh } from './chain-done';
import { findDraft, SAME_POINT, settled, START, type ChainState } from './chain-state';
import type { SaidOfSegment } from './drawn-up-to';
import { arcAbout, arcOfRadius } from './arc-by';
import { findEnd } from './relate-tool';
import {
  isInLine,
  NOTHING,
  pointed,
  say,
  stay,
  toSheetPlace,
  type Nudge,
  type Step,
  type Tool,
  type ToolContext,
  type ToolInput,
} from './tool';

function step(state: ChainState, input: ToolInput, context: ToolContext): Step<ChainState> {
  switch (input.kind) {
    case 'set':
      return setPoint(state, input.aim, context);
    case 'typed':
      return setTyped(state, input, context);
    case 'nudge':
      return [nudged(state, input), []];
    case 'back':
      return [withoutLast(state), []];
    case 'finish':
      return finish(state, context);
    case 'close':
      return close(state, context);
    case 'cancel':
      return [fresh(state), []];
    default:
      return [state, []];
  }
}

function setPoint(state: ChainState, aim: Aim, context: ToolContext): Step<ChainState> {
  // Thicknesses and radii are millimetres: without scale they mean nothing.
  if ((state.wall || (state.kind === 'arc' && state.arcBy === 'radius')) && !context.fitted.fit.scaled)
    return stay(state, say('scale-first'));
  if (state.nodes.length === 0) return begin(state, aim, context);
  if (isOnStart(state, aim, context)) return close(state, context);
  const last = findLastPosition(state, context);
  if (!aim.snap && last && distance(toSheetPlace(context.fitted, last), aim.sheet) < 1)
    return stay(state, say('points-the-same'));
  if (last && state.kind === 'arc' && state.arcBy === 'radius')
    return appendArc(state, aim.plane, arcOfRadius(last, aim.plane, state.radius), context);
  if (state.kind === 'arc' && !state.through) return [{ ...state, through: pointed(aim) }, []];
  if (last && state.kind === 'arc' && state.through && state.arcBy === 'centre')
    return appendArc(
      state,
      undefined,
      arcAbout(context.fitted.placing.toPlane(state.through.at), last, aim.plane),
      context,
    );
  if (
    last &&
    state.kind === 'arc' &&
    state.through &&
    isInLine(toSheetPlace(context.fitted, last), state.through, aim.sheet)
  )
    return stay(state, say('arc-in-a-line'));
  return saying(state, append(state, placeAt(state, aim, last, context), context), aim, context);
}

/** Remembers what a new segment was drawn up to: that it is tangent or square to what the aim was caught by. */
function saying(
  before: ChainState,
  [state, effects]: Step<ChainState>,
  aim: Aim,
  context: ToolContext,
): Step<ChainState> {
  const kind = before.touching || aim.snap === 'tangent' ? 'tangent' : aim.snap === 'square' ? 'square' : undefined;
  const [from, to] = state.nodes.slice(-2);
  const end =
    kind && from && to && state.nodes.length > before.nodes.length && before.kind === 'line'
      ? findEnd(aim, context)
      : undefined;
  if (!kind || !from || !to || !end) return [state, effects];
  return [
    { ...state, touching: false, says: [...(state.says ?? []), { kind, from: from.id, to: to.id, end }] },
    effects,
  ];
}

/** An arc whose place on it is worked out: its end goes where the arc ends. */
function noArcBecause({ arcBy, radius }: ChainState): string {
  if (arcBy !== 'radius') return 'points-the-same';
  return radius === undefined ? 'type-the-radius' : 'radius-too-small';
}

function appendArc(
  state: ChainState,
  to: Vec | undefined,
  arc: Arc | undefined,
  context: ToolContext,
): Step<ChainState> {
  if (!arc) return stay(state, say(noArcBecause(state)));
  const at = (place: Vec): PointedPlace => ({
    kind: 'pointed',
    at: toSheetPlace(context.fitted, place),
    sigma: ARC_SIGMA,
  });
  const [next, effects] = append({ ...state, through: at(pointAt(arc, 0.5)) }, at(to ?? pointAt(arc, 1)), context);
  const [from, until] = next.nodes.slice(-2);
  if (state.arcBy !== 'radius' || next.nodes.length === state.nodes.length || !from || !until) return [next, effects];
  return [
    {
      ...next,
      says: [...(next.says ?? []), { kind: 'radius', from: from.id, to: until.id, value: Math.abs(state.radius!) }],
    },
    effects,
  ];
}

/** Sigma of places that follow from what was pointed: as good as an edge can be pointed at. Sheet px. */
const ARC_SIGMA = 0.7;

/** Begins anew, or carries on the open outline whose end the aim caught. */
function begin(state: ChainState, aim: Aim, context: ToolContext): Step<ChainState> {
  const fresh: Node = { id: context.newId(), place: pointed(aim), smooth: true };
  const carried = aim.snap === 'end' ? findOpenEnd(aim.plane, context) : undefined;
  const end = state.touching ? findEnd(aim, context) : undefined;
  const says: readonly SaidOfSegment[] = end ? [{ kind: 'tangent', from: fresh.id, to: fresh.id, end }] : [];
  if (!carried)
    return [
      { ...state, nodes: [fresh], segments: [], through: undefined, carries: undefined, touching: false, says },
      [],
    ];
  return [
    {
      ...state,
      nodes: carried.nodes,
      segments: carried.segments,
      through: undefined,
      carries: { id: carried.id, layer: carried.layer },
    },
    [],
  ];
}

/** The open chain that ends at a place, turned so that it ends there; locked layers are left alone. */
function findOpenEnd(plane: Vec, context: ToolContext): Chain | undefined {
  const { job, fitted, newId } = context;
  for (const outline of job.outlines) {
    const locked = job.layers.find((layer) => layer.id === outline.layer)?.lock;
    if (outline.shape !== 'chain' || outline.closed || outline.plane !== fitted.view.id || locked) continue;
    const shape = shapeOf(outline, fitted.placing);
    if (distance(shape.nodes.at(-1)!, plane) < SAME_POINT) return outline;
    if (distance(shape.nodes[0]!, plane) < SAME_POINT)
      return reversedChain(outline, shape, { toSheet: (p) => toSheetPlace(fitted, p), newId, sigma: 0.5 });
  }
  return undefined;
}

function isOnStart(state: ChainState, aim: Aim, context: ToolContext): boolean {
  const draft = findDraft(state, context);
  const start = draft && shapeOf(draft, context.fitted.placing).nodes[0];
  return (
    aim.snap === 'end' && state.segments.length > 0 && start !== undefined && distance(start, aim.plane) < SAME_POINT
  );
}

export function findLastPosition(state: ChainState, context: ToolContext): Vec | undefined {
  const draft = findDraft(state, context);
  const last = state.nodes.at(-1);
  return draft && last && findPosition(last.place, placingOf(draft, context.fitted.placing));
}

/** Where the next node goes: at the aim, or level or upright from the last one when the lock is on, as the view is worked along. */
function placeAt(state: ChainState, aim: Aim, last: Vec | undefined, { fitted }: Pick<ToolContext, 'fitted'>): Place {
  const from = state.nodes.at(-1);
  if (!state.lock || state.kind !== 'line' || !from || !last) return pointed(aim);
  const { workAlong = 0 } = fitted.view;
  const by = subtract(aim.plane, last);
  const isLevel = Math.abs(dot(by, polar(1, workAlong))) >= Math.abs(cross(by, polar(1, workAlong)));
  const angle = workAlong + (isLevel ? 0 : Math.PI / 2);
  return { kind: 'aligned', from: { kind: 'node', id: from.id }, angle, to: pointed(aim) };
}

function append(state: ChainState, place: Place, context: ToolContext): Step<ChainState> {
  const segment = findNextSegment(state);
  if (!segment) return stay(state, say('tangent-needs-a-segment'));
  const node: Node = { id: context.newId(), place, smooth: true };
  const next: ChainState = {
    ...state,
    nodes: [...settled(state, segment), node],
    segments: [...state.segments, segment],
    through: undefined,
  };
  const draft = findDraft(next, context)!;
  const fault = shapeOf(draft, context.fitted.placing).faults.find(
    (found) => found.segment === next.segments.length - 1,
  );
  return fault ? stay(state, say(fault.fault)) : [next, []];
}

function findNextSegment(state: ChainState): Segment | undefined {
  if (state.kind === 'arc') return state.through ? { kind: 'arc', through: state.through } : { kind: 'line' };
  if (state.kind === 'tangent' && state.segments.length === 0) return undefined;
  return { kind: state.kind };
}

/** Goes to a typed place: across and up from the last point, or from zero. */
function setAcrossAndUp(
  state: ChainState,
  { by, from }: NonNullable<Extract<ToolInput, { kind: 'typed' }>['at']>,
  last: Vec | undefined,
  context: ToolContext,
): Step<ChainState> {
  const { fitted, newId } = context;
  if (!fitted.fit.scaled) return stay(state, say('scale-first'));
  if (from === 'last' && !last) return stay(state, say('point-first'));
  const seen = toSheetPlace(fitted, from === 'zero' ? by : add(last!, by));
  const place: Place =
    from === 'zero'
      ? { kind: 'placed', at: by, seen }
      : { kind: 'shifted', from: { kind: 'node', id: state.nodes.at(-1)!.id }, by, seen };
  if (state.nodes.length === 0)
    return [
      { ...state, nodes: [{ id: newId(), place, smooth: true }], segments: [], carries: undefined, says: [] },
      [],
    ];
  return append(state, place, context);
}

function setTyped(
  state: ChainState,
  input: Extract<ToolInput, { kind: 'typed' }>,
  context: ToolContext,
): Step<ChainState> {
  const last = findLastPosition(state, context);
  const from = state.nodes.at(-1);
  if (input.at) return setAcrossAndUp(state, input.at, last, context);
  if (!from || !last) return stay(state, say('point-first'));
  if (input.length !== undefined && !context.fitted.fit.scaled) return stay(state, say('scale-first'));
  const base: Place = { kind: 'node', id: from.id };
  const { length, angle, aim } = input;
  if (length !== undefined && angle !== undefined) {
    const by = polar(length, angle);
    const seen = toSheetPlace(context.fitted, [last[0] + by[0], last[1] + by[1]]);
    return append(state, { kind: 'shifted', from: base, by, seen }, context);
  }
  if (!aim) return stay(state, say('point-the-way'));
  if (length !== undefined) {
    const towards = placeAt(state, aim, last, context);
    if (towards.kind !== 'aligned')
      return append(state, { kind: 'reach', from: base, length, towards: pointed(aim) }, context);
    const along = Math.sign(dot(subtract(aim.plane, last), polar(1, towards.angle))) || 1;
    const by = polar(along * length, towards.angle);
    return append(
      state,
      { kind: 'shifted', from: base, by, seen: toSheetPlace(context.fitted, [last[0] + by[0], last[1] + by[1]]) },
      context,
    );
  }
  return angle === undefined
    ? [state, []]
    : append(state, { kind: 'aligned', from: base, angle, to: pointed(aim) }, context);
}

function nudged(state: ChainState, { by, sigma }: Nudge): ChainState {
  const move = (place: PointedPlace): PointedPlace => movedByHand(place, by, sigma);
  if (state.through) return { ...state, through: move(state.through) };
  const last = state.nodes.at(-1);
  if (last?.place.kind !== 'pointed') return state;
  return { ...state, nodes: [...state.nodes.slice(0, -1), { ...last, place: move(last.place) }] };
}

function withoutLast(state: ChainState): ChainState {
  if (state.through) return { ...state, through: undefined };
  return {
    ...state,
    nodes: state.nodes.slice(0, -1),
    segments: state.segments.slice(0, -1),
    kind: state.kind === 'tangent' && state.segments.length < 2 ? 'line' : state.kind,
  };
}

const isBegun = ({ nodes }: ChainState) => nodes.length > 0;

export const chainTool: Tool<ChainState> = {
  belongsTo: 'trace',
  isUnderWay: isBegun,
  takesBack: isBegun,
  draws: (state, context) => ({ line: findDraft(state, context), carries: state.carries?.id }),
  from: (state, context) => (state.kind === 'line' ? findLastPosition(state, context) : undefined),
  hint: (state) =>
    isBegun(state) ? { code: `chain-${state.kind}`, at: state.through ? 1 : 0 } : { code: 'chain-begin' },
  start: START,
  step,
  preview(state, aim, context) {
    const draft = findDraft(state, context);
    if (!draft) return NOTHING;
    const points = [state.through?.at].filter((p) => p !== undefined);
    const live = aim && withLive(state, aim, context);
    const centreLine = findCentreLine(context);
    const axis = centreLine && findGuideLine(centreLine, context.fitted.placing, guideReach(context.fitted));
    const image =
      axis && shapeOf(live ?? draft, context.fitted.placing).pieces.map((piece) => moved(piece, reflection(axis)));
    return { outlines: [live ?? draft], points, ...(image ? { pieces: { list: image, look: 'comes' as const } } : {}) };
  },
};

/** The draft with the segment that would be set now. */
function withLive(state: ChainState, aim: Aim, context: ToolContext): Chain | undefined {
  const kind = state.kind === 'arc' && !state.through ? 'line' : state.kind;
  const [next] = append({ ...state, kind }, placeAt(state, aim, findLastPosition(state, context), context), {
    ...context,
    newId: () => 'live',
  });
  return next.nodes.length > state.nodes.length ? findDraft(next, context) : undefined;
}
