import { distance, type Vec } from '@/core/geometry';
import { setDatum } from '@/core/job';
import type { SheetPoint } from '@/core/calibrate';
import { movedByHand } from '@/core/outline';
import type { Aim } from '../aim';
import { NOTHING, run, say, stay, type Nudge, type Preview, type Step, type Tool, type ToolInput } from './tool';

/** Two places on the sheet: the datum's origin and direction, or the ends of what is measured. */
export interface SpanState {
  readonly points: readonly SheetPoint[];
  /** Which of the points was set last: nudging moves it. */
  readonly last: number;
}

const START: SpanState = { points: [], last: 0 };

/** Sets the first and the second place; a further one moves whichever is nearer. */
function setPoint(state: SpanState, { sheet, sigma, edge }: Aim): SpanState {
  const point: SheetPoint = { at: sheet, sigma, edge };
  if (state.points.length < 2) return { points: [...state.points, point], last: state.points.length };
  const [a, b] = state.points as readonly [SheetPoint, SheetPoint];
  const last = distance(a.at, sheet) < distance(b.at, sheet) ? 0 : 1;
  return { points: last === 0 ? [point, b] : [a, point], last };
}

function nudged(state: SpanState, { by, sigma }: Nudge): SpanState {
  const points = state.points.map((p, i) => (i === state.last ? movedByHand(p, by, sigma) : p));
  return { ...state, points };
}

function stepSpan(state: SpanState, input: ToolInput): Step<SpanState> {
  switch (input.kind) {
    case 'set': {
      const next = setPoint(state, input.aim);
      const [a, b] = next.points;
      if (a && b && distance(a.at, b.at) < 2) return stay(state, say('points-the-same'));
      return [next, []];
    }
    case 'nudge':
      return [nudged(state, input), []];
    case 'back':
      return [{ points: state.points.slice(0, -1), last: 0 }, []];
    case 'cancel':
      return [START, []];
    default:
      return [state, []];
  }
}

function spanPreview(look: NonNullable<Preview['span']>['look']): Tool<SpanState>['preview'] {
  return ({ points }, aim) => {
    const [a, b] = points;
    if (!a) return NOTHING;
    const to = b?.at ?? aim?.sheet;
    return { outlines: [], points: points.map((p) => p.at), span: to && { from: a.at, to, look } };
  };
}

/** The datum: two places give the origin and the direction that is level. Done as soon as both are there. */
export const datumTool: Tool<SpanState> = {
  belongsTo: 'fit',
  hint: ({ points }) => ({ code: 'datum', at: points.length }),
  marks: () => [{ kind: 'evidence' }],
  isUnderWay: () => true,
  between: ({ points }) => points,
  places: () => true,
  start: START,
  step(state, input, context) {
    const [next, effects] = stepSpan(state, input);
    const [a, b] = next.points;
    if (input.kind !== 'set' || !a || !b) return [next, effects];
    const direction = Math.atan2(b.at[1] - a.at[1], b.at[0] - a.at[0]);
    return [
      START,
      [run(setDatum(context.fitted.view.id, { origin: a.at, direction }, context.fitted.fit.toPlane(a.at)))],
    ];
  },
  preview: spanPreview('datum'),
};

/** An edge that is known to run level, upright or at an angle: which, is said on its card. */
export const levelTool: Tool<SpanState> = {
  belongsTo: 'sources',
  hint: ({ points }) => ({ code: 'level', at: points.length }),
  cards: ({ points }) => (points.length === 2 ? 'useful' : 'in the way'),
  between: ({ points }) => points,
  looks: true,
  places: () => true,
  start: START,
  step: (state, input) => stepSpan(state, input),
  preview: spanPreview('datum'),
};

/**
 * The datum's direction with which an edge runs at `angle` (radians, counter-clockwise from level) as the view is seen. An edge has
 * no front: of the two ways that do it, the one that turns the view less; a `pointed` one (north) has.
 */
export function directionFor(
  [a, b]: readonly [Vec, Vec],
  angle: number,
  { direction, mirrored = false }: { readonly direction: number; readonly mirrored?: boolean | undefined },
  pointed = false,
): number {
  const wanted = Math.atan2(b[1] - a[1], b[0] - a[0]) + (mirrored ? -angle : angle);
  const turn = pointed ? 2 * Math.PI : Math.PI;
  return wanted + turn * Math.round((direction - wanted) / turn);
}

const cardsOfMeasured = ({ points }: SpanState) => (points.length > 1 ? 'useful' : undefined);

/** Distance between two places; a third begins anew. Nothing of it enters the job. */
export const distanceTool: Tool<SpanState> = {
  belongsTo: 'trace',
  hint: () => ({ code: 'distance' }),
  cards: cardsOfMeasured,
  between: ({ points }) => points,
  start: START,
  step(state, input) {
    return stepSpan(input.kind === 'set' && state.points.length === 2 ? START : state, input);
  },
  preview: spanPreview('measure'),
};

/** An angle at the first place, from the second to the third. */
export const angleTool: Tool<SpanState> = {
  belongsTo: 'trace',
  hint: () => ({ code: 'angle' }),
  cards: cardsOfMeasured,
  start: START,
  step(state, input) {
    if (input.kind !== 'set') return stepSpan(state, input);
    const points = state.points.length === 3 ? [] : state.points;
    return [
      {
        points: [...points, { at: input.aim.sheet, sigma: input.aim.sigma, edge: input.aim.edge }],
        last: points.length,
      },
      [],
    ];
  },
  preview({ points }, aim) {
    const ends = points.length < 3 && aim ? [...points.map((p) => p.at), aim.sheet] : points.map((p) => p.at);
    return { outlines: [], points: ends };
  },
};
