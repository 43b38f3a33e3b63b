import { guideReach, editingIn } from '@/core/derive';
import {
  distance,
  isOverlapping,
  listCrossings,
  partOf,
  pieceBounds,
  pointAt,
  type Piece,
  type Vec,
} from '@/core/geometry';
import { removeOutlines, replaceOutline, type Command } from '@/core/job';
import {
  carriedOn,
  cutAway,
  findGuideLine,
  listCutsOn,
  splitAt,
  type Along,
  type Chain,
  type DrawnOutline,
  type Shape,
} from '@/core/outline';
import type { Aim } from '../aim';
import { findPicked, listOver, type Picked } from './pick';
import { aimReach, pixelSize } from './reach';
import { NOTHING, run, say, stay, toSheetPlace, type Step, type Tool, type ToolContext } from './tool';

/** Cut away up to what crosses it on both sides, carry an end on to what it meets, or split in two. */
export type CutMode = 'away' | 'on' | 'split';

export interface CutState {
  readonly mode: CutMode;
  /** Outlines that alone cut, by id; without them everything that is shown does. */
  readonly edges?: readonly string[] | undefined;
  /** What is pointed at becomes one of them, or is none any more. */
  readonly choosing?: boolean | undefined;
  /** What lies over each other where one pointed, the one that is meant first: nothing is cut until one points there again. */
  readonly within?: readonly Picked[] | undefined;
}

/** What is pointed at: an outline, its shape, and where along it. */
interface Pointed {
  readonly outline: DrawnOutline;
  readonly shape: Shape;
  readonly at: Along;
}

/** Crossings nearer than this are one. mm, or px without scale. */
const SAME = 1e-6;
/** Where neighbouring pieces meet. */
const JOINT = 1e-4;

/** Nearer alike than so many sigmas of the aim, no hand tells which is meant. */
const ALIKE = 2;

/** What lies over each other where the aim is; nothing, or one thing, where it is plain what is meant. */
function listMeant(aim: Aim, context: ToolContext): readonly Picked[] {
  const { job, fitted } = context;
  const slack = ALIKE * pixelSize(aim, context) * aim.sigma;
  return listOver(slack, job, context, fitted.view.plane, aim.plane, aimReach(aim, context));
}

function findPointed(picked: Picked | undefined, context: ToolContext): Pointed | 'nothing-to-cut' | 'made-follows' {
  const [outline, shape] = [
    context.job.outlines.find(({ id }) => id === picked?.outline),
    picked && context.shapes.get(picked.outline),
  ];
  if (!picked || !outline || !shape) return 'nothing-to-cut';
  return outline.shape === 'made' ? 'made-follows' : { outline, shape, at: { segment: picked.segment, t: picked.t } };
}

/** What pointing does: the one thing that is there is cut; of several, that which is meant once one points at it again. */
function cutAt(state: CutState, aim: Aim, context: ToolContext): Step<CutState> {
  const found = listMeant(aim, context);
  const meant = found.find(({ outline }) => outline === state.within?.[0]?.outline);
  if (!meant && found.length > 1) return stay({ ...state, within: found });
  const asked = { ...state, within: undefined };
  const pointed = findPointed(meant ?? found[0], context);
  if (typeof pointed === 'string') return stay(asked, say(pointed));
  const command = commandFor(state, pointed, context);
  return stay(asked, typeof command === 'string' ? say(command) : run(command));
}

/** The next of what lies over each other, round and round. */
function another(state: CutState): Step<CutState> {
  const [first, ...others] = state.within ?? [];
  return first && others.length > 0
    ? [{ ...state, within: [...others, first] }, []]
    : stay(state, say('nothing-under-it'));
}

/** What cuts an outline: the edges that were chosen, or everything in the view, which is what is shown of the other outlines, and guides. */
function listEdges({ job, fitted, shapes }: ToolContext, except: string, chosen: CutState['edges']): readonly Piece[] {
  if (chosen) return chosen.flatMap((id) => (id === except ? [] : (shapes.get(id)?.finished ?? [])));
  const shown = new Set(job.layers.filter(({ show }) => show).map(({ id }) => id));
  const others = job.outlines.filter(
    ({ id, plane, layer }) => id !== except && plane === fitted.view.plane && shown.has(layer),
  );
  const guides = job.guides
    .filter(({ plane }) => plane === fitted.view.plane)
    .flatMap((guide) => findGuideLine(guide, fitted.placing, guideReach(fitted)) ?? []);
  return [...others.flatMap(({ id }) => shapes.get(id)?.finished ?? []), ...guides];
}

/** Where an outline is cut, its own crossings with itself among them: not where its pieces are joined. */
function listCuts({ outline, shape }: Pointed, context: ToolContext, edges: CutState['edges']): readonly Along[] {
  const boxes = shape.pieces.map(pieceBounds);
  const near = listEdges(context, outline.id, edges).filter((edge) =>
    boxes.some((box) => isOverlapping(box, pieceBounds(edge))),
  );
  const isJoint = (place: Vec) => shape.nodes.some((node) => distance(node, place) < JOINT);
  const own = edges
    ? []
    : shape.pieces.flatMap((piece, i) =>
        shape.pieces.slice(i + 1).flatMap((other, k) =>
          listCrossings(piece, other).flatMap(({ point, ta, tb }) =>
            isJoint(point)
              ? []
              : [
                  { segment: i, t: ta },
                  { segment: i + 1 + k, t: tb },
                ],
          ),
        ),
      );
  return [...listCutsOn(shape, near, SAME), ...own].sort((a, b) => a.segment + a.t - b.segment - b.t);
}

/** The stretch between the cuts to both sides of where one points; undefined stands for an open outline's own end. */
function findStretch(
  pointed: Pointed,
  context: ToolContext,
  edges: CutState['edges'],
): { readonly from: Along | undefined; readonly to: Along | undefined } | undefined {
  const cuts = listCuts(pointed, context, edges);
  const position = (along: Along) => along.segment + along.t;
  const at = position(pointed.at);
  const [before, after] = [cuts.filter((cut) => position(cut) < at), cuts.filter((cut) => position(cut) > at)];
  if (!pointed.shape.closed) return cuts.length > 0 ? { from: before.at(-1), to: after[0] } : undefined;
  return cuts.length > 1 ? { from: before.at(-1) ?? cuts.at(-1), to: after[0] ?? cuts[0] } : undefined;
}

function commandFor(state: CutState, pointed: Pointed, context: ToolContext): Command | string {
  const { outline, shape, at } = pointed;
  const editing = editingIn(context);
  if (state.mode === 'away') {
    const stretch = findStretch(pointed, context, state.edges);
    if (!stretch) return state.edges ? 'edges-do-not-cut' : shape.closed ? 'crossed-once' : 'nothing-crosses';
    const parts = cutAway(outline, shape, stretch.from, stretch.to, editing);
    return parts.length > 0 ? replaceOutline(outline.id, parts, 'cut-away') : removeOutlines([outline.id]);
  }
  if (outline.shape !== 'chain') return state.mode === 'on' ? 'no-end-here' : 'split-chains-only';
  if (state.mode === 'split') return replaceOutline(outline.id, splitAt(outline, shape, at, editing), 'outline-split');
  const longer = findCarriedOn(outline, pointed, context, state.edges);
  return longer
    ? replaceOutline(outline.id, [longer], 'outline-carried-on')
    : outline.closed
      ? 'no-end-here'
      : 'meets-nothing';
}

/** The chain carried on at the end that is nearer to where one points. */
function findCarriedOn(
  chain: Chain,
  { shape, at }: Pointed,
  context: ToolContext,
  edges: CutState['edges'],
): Chain | undefined {
  if (chain.closed) return undefined;
  const end = at.segment + at.t > shape.pieces.length / 2 ? 'end' : 'start';
  const own = edges ? [] : end === 'end' ? shape.pieces.slice(0, -1) : shape.pieces.slice(1);
  return carriedOn(
    chain,
    shape,
    end,
    [...listEdges(context, chain.id, edges), ...own],
    guideReach(context.fitted),
    editingIn(context),
  );
}

/** The pieces of a stretch, for showing what would go. */
function piecesOf(
  { shape: { pieces, closed } }: Pointed,
  from: Along | undefined,
  to: Along | undefined,
): readonly Piece[] {
  const [first, last] = [from ?? { segment: 0, t: 0 }, to ?? { segment: pieces.length - 1, t: 1 }];
  if (closed && first.segment + first.t >= last.segment + last.t)
    return [...piecesBetween(pieces, first, undefined), ...piecesBetween(pieces, undefined, last)];
  return piecesBetween(pieces, first, last);
}

function piecesBetween(pieces: readonly Piece[], from: Along | undefined, to: Along | undefined): readonly Piece[] {
  return pieces.flatMap((piece, i) => {
    const [first, last] = [
      !from || i > from.segment ? 0 : i === from.segment ? from.t : 1,
      !to || i < to.segment ? 1 : i === to.segment ? to.t : 0,
    ];
    return first < last ? [partOf(piece, first, last)] : [];
  });
}

/** The outline that is pointed at, chosen as an edge that cuts, or no more. What is made cuts like everything else. */
function chooseEdge(state: CutState, aim: Aim, context: ToolContext): Step<CutState> {
  const picked = findPicked(
    context.job,
    context,
    context.fitted.view.plane,
    aim.plane,
    aimReach(aim, context),
  )?.outline;
  if (!picked) return stay(state, say('nothing-to-cut'));
  const { edges = [] } = state;
  return [{ ...state, edges: edges.includes(picked) ? edges.filter((id) => id !== picked) : [...edges, picked] }, []];
}

/** Shortens, lengthens and splits what is drawn. */
export const cutTool: Tool<CutState> = {
  belongsTo: 'trace',
  hint: ({ within }) => ({ code: within ? 'cut-again' : 'cut' }),
  cards: ({ within }) => (within ? 'useful' : undefined),
  start: { mode: 'away' },
  isFree: () => true,
  picks: true,
  setsNoPoint: () => true,
  step(state, input, context): Step<CutState> {
    if (input.kind === 'cancel') return [{ mode: state.mode }, []];
    if (input.kind === 'another') return another(state);
    if (input.kind !== 'set') return [state, []];
    return state.choosing ? chooseEdge(state, input.aim, context) : cutAt(state, input.aim, context);
  },
  preview(state, aim, context) {
    if (state.choosing)
      return {
        ...NOTHING,
        pieces: { list: (state.edges ?? []).flatMap((id) => context.shapes.get(id)?.finished ?? []), look: 'comes' },
      };
    const pointed = findPointed(state.within?.[0] ?? (aim && listMeant(aim, context)[0]), context);
    if (typeof pointed === 'string') return NOTHING;
    if (state.mode === 'split')
      return {
        ...NOTHING,
        points: [toSheetPlace(context.fitted, pointAt(pointed.shape.pieces[pointed.at.segment]!, pointed.at.t))],
      };
    if (state.mode === 'on') {
      const longer =
        pointed.outline.shape === 'chain' ? findCarriedOn(pointed.outline, pointed, context, state.edges) : undefined;
      return longer ? { outlines: [longer], points: [] } : NOTHING;
    }
    const stretch = findStretch(pointed, context, state.edges);
    return stretch
      ? { ...NOTHING, pieces: { list: piecesOf(pointed, stretch.from, stretch.to), look: 'goes' } }
      : NOTHING;
  },
};
