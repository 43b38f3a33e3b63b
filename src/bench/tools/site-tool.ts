import { outlinesToSite, sitedIn } from '@/core/derive';
import { add, angleOf, applied, distance, moved, subtract, type Piece, type Vec } from '@/core/geometry';
import { changeSiting, isLevelTold, putSetback, setDatum, setWorkAlong } from '@/core/job';
import {
  CENTRE,
  findThing,
  inOwn,
  mapOfPut,
  measureHold,
  type Hold,
  type HoldKind,
  type OutlineEnd,
  type Siting,
} from '@/core/outline';
import type { Aim } from '../aim';
import { findNode, findPicked } from './pick';
import { aimReach } from './reach';
import { NOTHING, run, say, stay, toSheetPlace, type Preview, type Step, type Tool, type ToolContext } from './tool';

/** What is said by pointing: nothing (it is moved by hand), how it stands to what is there, from which edge has to be kept, or along which is worked. */
export type SiteSaying = 'move' | 'parallel' | 'distance' | 'along' | 'setback' | 'frame';

/** Sets a drawing on another plane. */
export interface SiteState {
  readonly saying: SiteSaying;
  /** The one that is worked on; else the one that is pointed at. */
  readonly siting?: string | undefined;
  /** Its end that was pointed at first. */
  readonly own?: OutlineEnd | undefined;
  /** Where it was taken, by the first of two places, and while it is dragged. View plane. */
  readonly taken?: Vec | undefined;
  readonly grabbed?: { readonly from: Vec; readonly to: Vec } | undefined;
}

const sitingsHere = ({ job, fitted }: Pick<ToolContext, 'job' | 'fitted'>): readonly Siting[] =>
  job.sitings.filter(({ plane }) => plane === fitted.view.plane);

/** Where a drawing stands now. */
const standsNow = (siting: Siting, { job, shapes }: ToolContext) => sitedIn(siting, job, { shapes });

/** Which ends are meant: edges, corners, or whichever is nearer to where one points. */
type Wanted = 'edge' | 'corner' | 'either';

/** What is pointed at of what is drawn on a plane: a straight edge, or a corner or centre. */
function endAt(
  plane: string,
  at: Vec,
  reach: number,
  wanted: Wanted,
  { job, shapes }: ToolContext,
): OutlineEnd | undefined {
  const outlines = job.outlines.filter(({ shape }) => shape !== 'made');
  const picked = findPicked({ layers: job.layers, outlines }, { shapes }, plane, at, reach);
  const outline = outlines.find(({ id }) => id === picked?.outline);
  if (!picked || !outline) return undefined;
  const shape = shapes.get(outline.id)!;
  if (outline.shape !== 'chain') return wanted === 'edge' ? undefined : { outline: outline.id, node: CENTRE };
  const node = wanted === 'edge' ? undefined : findNode(outline, shape, at, wanted === 'corner' ? Infinity : reach);
  if (node !== undefined) return { outline: outline.id, node };
  return shape.pieces[picked.segment]?.kind === 'line'
    ? { outline: outline.id, segment: outline.nodes[picked.segment]!.id }
    : undefined;
}

/** The drawing that is pointed at, and where in its own plane. */
function drawingAt(
  aim: Aim,
  state: SiteState,
  context: ToolContext,
): { readonly siting: Siting; readonly at: Vec } | undefined {
  const reach = aimReach(aim, context);
  const here = sitingsHere(context);
  const first = here.filter(({ id }) => id === state.siting);
  return [...first, ...here.filter((other) => !first.includes(other))]
    .map((siting) => ({ siting, at: inOwn(standsNow(siting, context).put, aim.plane) }))
    .find(({ siting, at }) => findPicked(context.job, context, siting.of, at, reach) !== undefined);
}

/** From the first end that is pointed at, on the drawing, to the second, on what is there. */
function point(state: SiteState, aim: Aim, context: ToolContext): Step<SiteState> {
  const { saying } = state;
  const reach = aimReach(aim, context);
  if (saying === 'setback') return keepFrom(state, aim, context);
  if (saying === 'frame') return workAlong(state, aim, context);
  const siting = context.job.sitings.find(({ id }) => id === state.siting);
  if (!state.own || !siting) {
    const there = drawingAt(aim, state, context);
    if (!there) return stay(state, say('site-nothing-here'));
    const wanted: Wanted = saying === 'parallel' ? 'edge' : saying === 'along' ? 'corner' : 'either';
    const own = endAt(there.siting.of, there.at, reach, wanted, context);
    return own ? [{ ...state, siting: there.siting.id, own }, []] : stay(state, say('site-not-straight'));
  }
  const to = endAt(siting.plane, aim.plane, reach, saying === 'distance' ? 'either' : 'edge', context);
  if (!to) return stay(state, say('site-nothing-there'));
  return hold(state, siting, state.own, to, aim, context);
}

/** As it stands now is what is said first; a direction is that of the edge, one way or the other. */
function hold(
  state: SiteState,
  siting: Siting,
  own: OutlineEnd,
  to: OutlineEnd,
  aim: Aim,
  context: ToolContext,
): Step<SiteState> {
  const [ours, theirs] = [own, to].map((end) => thingOf(end, context));
  const distanced = own.node && to.node ? 'apart' : 'off';
  const kind: HoldKind = state.saying === 'parallel' || state.saying === 'along' ? state.saying : distanced;
  const fromEnd = kind === 'along' && theirs?.kind === 'piece' && isNearEnd(theirs.piece, aim.plane);
  const said = { kind, own, to, ...(fromEnd ? { fromEnd } : {}) };
  const now = ours && theirs && measureHold(said, ours, theirs, standsNow(siting, context).put);
  if (now === undefined) return stay(state, say('site-not-straight'));
  const turned = Math.abs(now) > Math.PI / 2 ? Math.PI : 0;
  const value = kind === 'parallel' ? turned : Math.round(now);
  const next: Hold = { id: context.newId(), ...said, value };
  return [
    { ...state, own: undefined },
    [run(changeSiting({ ...siting, holds: [...siting.holds, next] }, 'hold-added'))],
  ];
}

const thingOf = (end: OutlineEnd, { job, shapes }: ToolContext) => findThing(end, job.outlines, shapes);

const isNearEnd = (piece: Piece, at: Vec) => piece.kind === 'line' && distance(piece.b, at) < distance(piece.a, at);

/** What has to be kept from an edge before anybody typed it. mm */
const FIRST_SETBACK = 3000;

function keepFrom(state: SiteState, aim: Aim, context: ToolContext): Step<SiteState> {
  const { job, fitted, newId } = context;
  const edge = endAt(fitted.view.plane, aim.plane, aimReach(aim, context), 'edge', context);
  if (!edge) return stay(state, say('site-nothing-there'));
  if (job.setbacks.some(({ on: [kept] }) => kept.outline === edge.outline && kept.segment === edge.segment))
    return stay(state, say('setback-twice'));
  const mm = job.setbacks.findLast(({ plane }) => plane === fitted.view.plane)?.mm ?? FIRST_SETBACK;
  return [state, [run(putSetback({ id: newId(), plane: fitted.view.plane, on: [edge], mm }))]];
}

/** The edge that is pointed at lies level from now on; the axes of the plane stay where evidence tells them. */
function workAlong(state: SiteState, aim: Aim, context: ToolContext): Step<SiteState> {
  const { fitted } = context;
  const edge = endAt(fitted.view.plane, aim.plane, aimReach(aim, context), 'edge', context);
  const thing = edge && thingOf(edge, context);
  if (thing?.kind !== 'piece' || thing.piece.kind !== 'line') return stay(state, say('site-nothing-there'));
  const { a, b } = thing.piece;
  // Of its two ways the one that turns the view less.
  const [from, to] = b[0] >= a[0] ? [a, b] : [b, a];
  const along = angleOf(subtract(to, from));
  const level = angleOf(subtract(toSheetPlace(fitted, to), toSheetPlace(fitted, from)));
  const { id, datum } = fitted.source;
  const laid = isLevelTold(fitted.source)
    ? setWorkAlong(id, level, along)
    : setDatum(id, { ...datum, direction: level });
  return [{ saying: 'move', siting: state.siting }, [run(laid)]];
}

/** Less is no move. mm */
const UNMOVED = 1e-3;

/** Moved by hand, as far as what is said leaves it free. */
function movedBy(siting: Siting, by: Vec, context: ToolContext): Siting {
  const { at, turn } = standsNow(siting, context).put;
  const put = { at: add(at, by), turn };
  return { ...siting, put: sitedIn({ ...siting, put }, context.job, context).put };
}

function move(state: SiteState, aim: Aim, context: ToolContext): Step<SiteState> {
  const siting = context.job.sitings.find(({ id }) => id === state.siting);
  if (state.taken && siting) {
    const free: SiteState = { ...state, taken: undefined };
    const before = standsNow(siting, context).put.at;
    const next = movedBy(siting, subtract(aim.plane, state.taken), context);
    if (distance(next.put.at, before) < UNMOVED) return stay(free, say('site-fast'));
    return [free, [run({ ...changeSiting(next, 'siting-moved'), merge: undefined })]];
  }
  const there = drawingAt(aim, state, context);
  return there ? [{ ...state, siting: there.siting.id, taken: aim.plane }, []] : stay(state, say('site-nothing-here'));
}

function grab(state: SiteState, aim: Aim, context: ToolContext): SiteState {
  const there = state.saying === 'move' && !state.taken ? drawingAt(aim, state, context) : undefined;
  return there ? { ...state, siting: there.siting.id, grabbed: { from: aim.plane, to: aim.plane } } : state;
}

function drop(state: SiteState, aim: Aim, context: ToolContext): Step<SiteState> {
  const { grabbed, ...rest } = state;
  if (!grabbed) return [state, []];
  return move({ ...rest, taken: grabbed.from }, aim, context);
}

function nudge(state: SiteState, by: Vec, context: ToolContext): Step<SiteState> {
  const siting = context.job.sitings.find(({ id }) => id === state.siting);
  if (!siting || state.saying !== 'move') return [state, []];
  const { toPlane } = context.fitted.placing;
  const sheet = toSheetPlace(context.fitted, standsNow(siting, context).put.at);
  const away = subtract(toPlane(add(sheet, by)), toPlane(sheet));
  return [state, [run(changeSiting(movedBy(siting, away, context), 'siting-moved'))]];
}

/** What is said takes hold as it would: the drawing where it would come to, and how far it went. */
function previewOfMove(from: Vec, to: Vec, siting: Siting, context: ToolContext): Preview {
  const { put } = movedBy(siting, subtract(to, from), context);
  const pieces = outlinesToSite(context.job, siting.of).flatMap(({ id }) => context.shapes.get(id)?.finished ?? []);
  const before = standsNow(siting, context).put;
  const went = add(from, subtract(put.at, before.at));
  const [a, b] = [from, went].map((place) => toSheetPlace(context.fitted, place)) as [Vec, Vec];
  return {
    ...NOTHING,
    pieces: { list: pieces.map((piece) => moved(piece, mapOfPut(put))), look: 'comes' },
    span: { from: a, to: b, look: 'measure' },
  };
}

/** The end that was pointed at first, where it stands. */
function previewOfEnd(own: OutlineEnd, siting: Siting, context: ToolContext): Preview {
  const thing = thingOf(own, context);
  const { map } = standsNow(siting, context);
  if (thing?.kind === 'piece') return { ...NOTHING, pieces: { list: [moved(thing.piece, map)], look: 'comes' } };
  return thing ? { ...NOTHING, points: [toSheetPlace(context.fitted, applied(map, thing.at))] } : NOTHING;
}

export const siteTool: Tool<SiteState> = {
  belongsTo: 'arrange',
  places: ({ saying }) => saying === 'frame',
  start: { saying: 'move' },
  hint({ saying, own, taken }, context) {
    if (saying === 'setback') return { code: 'site-keep' };
    if (saying === 'frame') return { code: 'site-frame' };
    if (sitingsHere(context).length === 0) return { code: 'site-first' };
    if (saying === 'move') return { code: taken ? 'site-move-to' : 'site-move' };
    if (saying === 'parallel') return { code: own ? 'site-parallel-to' : 'site-parallel' };
    if (saying === 'along') return { code: own ? 'site-along-to' : 'site-along' };
    return { code: own ? 'site-distance-to' : 'site-distance' };
  },
  marks: () => [{ kind: 'sited' }],
  cards: ({ own, taken }) => (own || taken ? 'in the way' : 'useful'),
  setsNoPoint: ({ saying, siting }) => saying !== 'move' || siting === undefined,
  step(state, input, context) {
    switch (input.kind) {
      case 'set':
        return state.saying === 'move' ? move(state, input.aim, context) : point(state, input.aim, context);
      case 'grab':
        return [grab(state, input.aim, context), []];
      case 'drag':
        return [state.grabbed ? { ...state, grabbed: { ...state.grabbed, to: input.aim.plane } } : state, []];
      case 'drop':
        return drop(state, input.aim, context);
      case 'nudge':
        return nudge(state, input.by, context);
      case 'release':
        return [{ ...state, grabbed: undefined }, []];
      case 'back':
      case 'cancel':
        return [{ saying: state.saying, siting: state.siting }, []];
      default:
        return [state, []];
    }
  },
  preview({ siting: id, own, taken, grabbed }, aim, context) {
    const siting = context.job.sitings.find((other) => other.id === id);
    if (!siting) return NOTHING;
    if (grabbed) return previewOfMove(grabbed.from, grabbed.to, siting, context);
    if (taken && aim) return previewOfMove(taken, aim.plane, siting, context);
    return own ? previewOfEnd(own, siting, context) : NOTHING;
  },
};
