import type { Vec } from '@/core/geometry';
import { addOutline } from '@/core/job';
import { movedByHand, shapeOf, type CircleBy, type CircleOutline, type Place } from '@/core/outline';
import { findPosition } from '@/core/outline';
import type { Found } from '../edges';
import { isInLine, NOTHING, pointed, run, say, stay, toSheetPlace, type Step, type Tool, type ToolContext, type ToolInput } from './tool';

/** How a circle is given; `found` looks for its rim around a place inside it. */
export type CircleMode = CircleBy['kind'] | 'found';

export interface CircleState {
  readonly mode: CircleMode;
  readonly places: readonly Place[];
}

const NEEDED: Readonly<Record<CircleMode, number>> = { found: 3, rim: 2, two: 2, three: 3 };
const START: CircleState = { mode: 'found', places: [] };

function circleFrom({ mode }: CircleState, [a, b, c]: readonly Place[]): CircleBy | undefined {
  if (!a || !b) return undefined;
  if (mode === 'rim') return { kind: 'rim', centre: a, rim: b };
  if (mode === 'two') return { kind: 'two', a, b };
  return c && { kind: 'three', a, b, c };
}

function outlineFrom(by: CircleBy, id: string, { fitted, layer }: ToolContext): CircleOutline {
  return { shape: 'circle', id, layer, view: fitted.view.id, by };
}

function place(state: CircleState, next: Place, context: ToolContext): Step<CircleState> {
  const places = [...state.places, next];
  const [a, b, c] = places;
  if (state.mode !== 'rim' && state.mode !== 'two' && a?.kind === 'pointed' && b?.kind === 'pointed' && c?.kind === 'pointed' && isInLine(a.at, b, c.at)) return stay(state, say('points-in-a-line'));
  if (places.length < NEEDED[state.mode]) return [{ ...state, places }, []];
  const outline = outlineFrom(circleFrom(state, places)!, context.newId(), context);
  const fault = shapeOf(outline, context.fitted.placing).faults[0];
  if (fault) return stay(state, say(places.length === 3 ? 'points-in-a-line' : 'points-the-same'));
  return [{ ...state, places: [] }, [run(addOutline(outline))]];
}

/** The circle through three places of a rim that was found, as far apart as can be. */
function throughFound(state: CircleState, points: Found, context: ToolContext): Step<CircleState> {
  const places = [0, 1, 2].map((third): Place => ({ kind: 'pointed', ...points[Math.floor((third * points.length) / 3)]! }));
  return places.reduce<Step<CircleState>>(([now], next) => place(now, next, context), [{ ...state, places: [] }, []]);
}

/** A typed diameter, once the first place is set: about the centre, or from the first place towards the aim. */
function typed(state: CircleState, input: Extract<ToolInput, { kind: 'typed' }>, context: ToolContext): Step<CircleState> {
  const [first] = state.places;
  if (!first || state.mode === 'three' || state.mode === 'found') return stay(state, say('point-first'));
  if (!context.fitted.fit.scaled) return stay(state, say('scale-first'));
  const { length: diameter, aim } = input;
  if (diameter === undefined) return [state, []];
  if (state.mode === 'two') return aim ? place(state, { kind: 'reach', from: first, length: diameter, towards: pointed(aim) }, context) : stay(state, say('point-the-way'));
  const centre = findPosition(first, { ...context.fitted.placing, findNode: () => undefined });
  const seen: Vec = centre ? toSheetPlace(context.fitted, [centre[0] + diameter / 2, centre[1]]) : [0, 0];
  return place(state, { kind: 'shifted', from: first, by: [diameter / 2, 0], seen }, context);
}

function nudged(state: CircleState, by: Vec): CircleState {
  const last = state.places.at(-1);
  if (last?.kind !== 'pointed') return state;
  return { ...state, places: [...state.places.slice(0, -1), movedByHand(last, by)] };
}

export const circleTool: Tool<CircleState> = {
  start: START,
  step(state, input, context) {
    switch (input.kind) {
      case 'set':
        if (state.mode === 'found') return [state, [{ kind: 'seek', what: 'rim', near: input.aim.free, otherwise: 'circle-not-found' }]];
        return place(state, pointed(input.aim), context);
      case 'found':
        return throughFound(state, input.points, context);
      case 'typed':
        return typed(state, input, context);
      case 'nudge':
        return [nudged(state, input.by), []];
      case 'back':
        return [{ ...state, places: state.places.slice(0, -1) }, []];
      case 'cancel':
        return [{ ...state, places: [] }, []];
      default:
        return [state, []];
    }
  },
  preview(state, aim, context) {
    if (state.places.length === 0) return NOTHING;
    const points = state.places.flatMap((p) => (p.kind === 'pointed' ? [p.at] : []));
    const by = aim && circleFrom(state, [...state.places, pointed(aim)]);
    return { outlines: by ? [outlineFrom(by, 'draft', context)] : [], points };
  },
};
