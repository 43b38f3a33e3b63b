import { subtract } from '@/core/geometry';
import { addMade, changeOutlines } from '@/core/job';
import { isMovable, movedOutline, type MadeOutline, type Outline, type PointedPlace } from '@/core/outline';
import { commandForMove, editingIn, placingFor } from './editing';
import { betweenPlaces, NOTHING, pointed, run, say, stay, type Step, type Tool, type ToolContext } from './tool';

/** What is done by pointing at one or two places: move there from here, copies turned about a centre, a part stood elsewhere, the centre of a turn or a scale. */
export type StandMode = 'move' | 'around' | 'placed' | 'turn' | 'scale';

export interface StandState {
  readonly mode: StandMode;
  readonly of: readonly string[];
  readonly points: readonly PointedPlace[];
}

const START: StandState = { mode: 'move', of: [], points: [] };
const NEEDED: Readonly<Record<StandMode, number>> = { move: 2, placed: 2, around: 1, turn: 1, scale: 1 };
const FIRST_COPIES = 6;

function findOutlines({ of }: StandState, { job }: ToolContext): readonly Outline[] {
  return job.outlines.filter(({ id }) => of.includes(id));
}

/** What is made of others follows them: by itself it can only be copied, and a part that was stood elsewhere moved. */
function canStand(state: StandState, context: ToolContext): boolean {
  const outlines = findOutlines(state, context);
  if (state.mode === 'move') return outlines.some(isMovable);
  return state.mode === 'around' || state.mode === 'placed' || outlines.some(({ shape }) => shape !== 'made');
}

/** Turns, scales or mirrors what was chosen about the place that was pointed at. */
export function commandForTurn(state: StandState, change: { readonly turn?: number; readonly scale?: number; readonly mirrored?: boolean }, context: ToolContext) {
  const [about] = state.points;
  if (!about) return undefined;
  const { fitted } = context;
  const moving = { about: fitted.placing.toPlane(about.at), turn: change.turn ?? 0, scale: change.scale ?? 1, mirrored: change.mirrored ?? false };
  const moved = findOutlines(state, context).map((outline) => movedOutline(outline, moving, placingFor(outline, fitted), editingIn(context)));
  return changeOutlines(moved, change.scale === undefined ? 'outlines-turned' : 'outlines-scaled');
}

function place(state: StandState, next: PointedPlace, context: ToolContext): Step<StandState> {
  if (!canStand(state, context)) return stay(state, say('made-follows'));
  const points = [...state.points, next];
  if (points.length < NEEDED[state.mode] || state.mode === 'turn' || state.mode === 'scale') return [{ ...state, points: points.slice(-1) }, []];
  const [a, b] = points as [PointedPlace, PointedPlace | undefined];
  if (state.mode === 'move') {
    const by = subtract(context.fitted.placing.toPlane(b!.at), context.fitted.placing.toPlane(a.at));
    if (by[0] === 0 && by[1] === 0) return stay(state, say('points-the-same'));
    if (!context.fitted.fit.scaled) return stay(state, say('scale-first'));
    return [{ ...state, points: [] }, [run(commandForMove(findOutlines(state, context), by, context.fitted)), { kind: 'hold', outlines: state.of }]];
  }
  const made = madeFor(state, a, b, context);
  return [{ ...state, points: [] }, [run(addMade(made, false)), { kind: 'hold', outlines: [made.id] }]];
}

function madeFor({ mode, of }: StandState, a: PointedPlace, b: PointedPlace | undefined, { fitted, layer, newId }: ToolContext): MadeOutline {
  const owned = { shape: 'made', id: newId(), layer, view: fitted.view.id } as const;
  if (mode === 'placed' && b) return { ...owned, recipe: { kind: 'placed', of, from: a, to: b, turn: 0, mirrored: false } };
  return { ...owned, recipe: { kind: 'around', of, centre: a, count: FIRST_COPIES, sweep: 2 * Math.PI } };
}

export const standTool: Tool<StandState> = {
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
  preview({ points, mode }, aim) {
    const [from] = points;
    if (!from) return NOTHING;
    const span = aim && NEEDED[mode] === 2 ? { from: from.at, to: aim.sheet, look: 'measure' as const } : undefined;
    return { ...NOTHING, points: points.map(({ at }) => at), ...(span ? { span } : {}) };
  },
};
