import { moved, placed, subtract, type Piece, type Vec } from '@/core/geometry';
import { addMade, changeOutlines } from '@/core/job';
import {
  isMovable,
  movedOutline,
  stretchedOutline,
  type MadeOutline,
  type Outline,
  type PointedPlace,
} from '@/core/outline';
import { commandForMove, editingIn, placingFor } from '@/core/derive';
import {
  betweenPlaces,
  NOTHING,
  pointed,
  run,
  say,
  stay,
  type Preview,
  type Step,
  type Tool,
  type ToolContext,
} from './tool';

/** What is done by pointing at places: move there from here, the same for what lies in a box alone, copies turned about a centre, a part stood elsewhere, the centre of a turn or a scale. */
export type StandMode = 'move' | 'stretch' | 'around' | 'placed' | 'turn' | 'scale';

export interface StandState {
  readonly mode: StandMode;
  readonly of: readonly string[];
  readonly points: readonly PointedPlace[];
}

const START: StandState = { mode: 'move', of: [], points: [] };
const NEEDED: Readonly<Record<StandMode, number>> = { move: 2, stretch: 4, placed: 2, around: 1, turn: 1, scale: 1 };
const FIRST_COPIES = 6;

function findOutlines({ of }: StandState, { job }: ToolContext): readonly Outline[] {
  return job.outlines.filter(({ id }) => of.includes(id));
}

/** What is made of others follows them: by itself it can only be copied, and a part that was stood elsewhere moved. */
function canStand(state: StandState, context: ToolContext): boolean {
  const outlines = findOutlines(state, context);
  if (state.mode === 'move') return outlines.some(isMovable);
  if (state.mode === 'stretch') return true;
  return state.mode === 'around' || state.mode === 'placed' || outlines.some(({ shape }) => shape !== 'made');
}

/** Turns, scales or mirrors what was chosen about the place that was pointed at. */
export function commandForTurn(
  state: StandState,
  change: { readonly turn?: number; readonly scale?: Vec; readonly mirrored?: boolean },
  context: ToolContext,
) {
  const [about] = state.points;
  if (!about) return undefined;
  const { fitted } = context;
  const moving = {
    about: fitted.placing.toPlane(about.at),
    turn: change.turn ?? 0,
    scale: change.scale ?? ([1, 1] as const),
    mirrored: change.mirrored ?? false,
  };
  const turned = findOutlines(state, context).map((outline) =>
    movedOutline(outline, moving, placingFor(outline, fitted), editingIn(context)),
  );
  return changeOutlines(turned, change.scale === undefined ? 'outlines-turned' : 'outlines-scaled');
}

function place(state: StandState, next: PointedPlace, context: ToolContext): Step<StandState> {
  if (!canStand(state, context)) return stay(state, say('made-follows'));
  const points = [...state.points, next];
  if (state.mode === 'turn' || state.mode === 'scale') return [{ ...state, points: [next] }, []];
  if (points.length < NEEDED[state.mode]) return [{ ...state, points }, []];
  if (state.mode === 'stretch') return stretch({ ...state, points }, context);
  const [a, b] = points as [PointedPlace, PointedPlace | undefined];
  if (state.mode === 'move') {
    const by = subtract(context.fitted.placing.toPlane(b!.at), context.fitted.placing.toPlane(a.at));
    if (by[0] === 0 && by[1] === 0) return stay(state, say('points-the-same'));
    if (!context.fitted.fit.scaled) return stay(state, say('scale-first'));
    return [
      { ...state, points: [] },
      [run(commandForMove(findOutlines(state, context), by, context.fitted)), { kind: 'hold', outlines: state.of }],
    ];
  }
  const made = madeFor(state, a, b, context);
  return [{ ...state, points: [] }, [run(addMade(made, false)), { kind: 'hold', outlines: [made.id] }]];
}

/** Whatever lies in the box between the first two places goes from the third to the fourth. */
function stretch(state: StandState, context: ToolContext): Step<StandState> {
  const { fitted } = context;
  if (!fitted.fit.scaled) return stay(state, say('scale-first'));
  const [a, b, from, to] = state.points.map(({ at }) => fitted.placing.toPlane(at)) as [Vec, Vec, Vec, Vec];
  const command = commandForStretch(state, subtract(to, from), context);
  const again: StandState = { ...state, points: state.points.slice(0, 2) };
  return command
    ? [{ ...again, points: [] }, [run(command), { kind: 'hold', outlines: state.of }]]
    : stay({ ...again, points: isSame(a, b) ? [] : again.points }, say('stretch-nothing'));
}

const isSame = (a: Vec, b: Vec) => a[0] === b[0] || a[1] === b[1];

/** Stretches what was chosen: what of it lies in the box between the first two places moves by `by`, mm. Undefined where nothing does. */
export function commandForStretch(state: StandState, by: Vec, context: ToolContext) {
  const changed = stretchedBy(state, by, context);
  return changed.length > 0 && (by[0] !== 0 || by[1] !== 0) ? changeOutlines(changed, 'outlines-stretched') : undefined;
}

/** Those of the chosen outlines that change, stretched. */
function stretchedBy(state: StandState, by: Vec, context: ToolContext): readonly Outline[] {
  const { fitted } = context;
  const [a, b] = state.points.map(({ at }) => fitted.placing.toPlane(at));
  if (!a || !b) return [];
  const isIn = (place: Vec) => [0, 1].every((axis) => (place[axis]! - a[axis]!) * (place[axis]! - b[axis]!) <= 0);
  const before = findOutlines(state, context);
  const after = before.map((outline) =>
    stretchedOutline(outline, isIn, by, placingFor(outline, fitted), (plane) => fitted.fit.toSheet(plane)),
  );
  return after.filter((outline, i) => outline !== before[i]);
}

function madeFor(
  { mode, of }: StandState,
  a: PointedPlace,
  b: PointedPlace | undefined,
  { fitted, layer, newId }: ToolContext,
): MadeOutline {
  const owned = { shape: 'made', id: newId(), layer, plane: fitted.view.plane } as const;
  if (mode === 'placed' && b)
    return { ...owned, recipe: { kind: 'placed', of, from: a, to: b, turn: 0, mirrored: false } };
  return { ...owned, recipe: { kind: 'around', of, centre: a, count: FIRST_COPIES, sweep: 2 * Math.PI } };
}

export const standTool: Tool<StandState> = {
  belongsTo: 'trace',
  hint: () => ({ code: 'stand' }),
  // The first two places of a stretch are its box.
  between: ({ mode, points }) => (mode === 'stretch' ? points.slice(2) : points),
  start: START,
  step(state, input, context) {
    switch (input.kind) {
      case 'set':
        return place(state, pointed(input.aim), context);
      case 'cancel':
        return [{ ...state, points: [] }, [{ kind: 'hold', outlines: state.of }]];
      default:
        return [betweenPlaces(state, input), []];
    }
  },
  preview(state, aim, context) {
    const { points, mode } = state;
    const [from] = points;
    if (!from) return NOTHING;
    if (mode === 'stretch') return previewOfStretch(state, aim?.sheet, context);
    const span = aim && NEEDED[mode] === 2 ? { from: from.at, to: aim.sheet, look: 'measure' as const } : undefined;
    const comes = span
      ? piecesMoved(
          state,
          subtract(context.fitted.placing.toPlane(span.to), context.fitted.placing.toPlane(span.from)),
          context,
        )
      : [];
    return {
      ...NOTHING,
      points: points.map(({ at }) => at),
      pieces: { list: comes, look: 'comes' },
      ...(span ? { span } : {}),
    };
  },
};

/** What is chosen, moved. */
function piecesMoved(state: StandState, by: Vec, { shapes }: ToolContext): readonly Piece[] {
  return state.of.flatMap((id) => shapes.get(id)?.finished ?? []).map((piece) => moved(piece, placed(by)));
}

/** The box, from where to where what lies in it goes, and what comes of it. */
function previewOfStretch(state: StandState, aim: Vec | undefined, context: ToolContext): Preview {
  const points = state.points.map(({ at }) => at);
  const [a, b = aim, from] = points;
  const { placing } = context.fitted;
  const outlines =
    from && aim
      ? stretchedBy(state, subtract(placing.toPlane(aim), placing.toPlane(from)), context).filter(
          (outline) => outline.shape !== 'made',
        )
      : [];
  const box = a && b ? [[a, [b[0], a[1]], b, [a[0], b[1]], a] as readonly Vec[]] : [];
  return {
    ...NOTHING,
    outlines,
    points,
    lines: box,
    ...(from && aim ? { span: { from, to: aim, look: 'measure' as const } } : {}),
  };
}
