import {
  add,
  circle,
  distance,
  findCircumcentre,
  mix,
  perpendicular,
  pointAt,
  scale,
  subtract,
  type Arc,
  type Vec,
} from '@/core/geometry';
import { addOutline, addRelations, together } from '@/core/job';
import {
  findPosition,
  movedByHand,
  shapeOf,
  type CircleBy,
  type CircleOutline,
  type EllipseOutline,
  type Place,
} from '@/core/outline';
import type { Relation, RelationEnd } from '@/core/relate';
import type { Aim } from '../aim';
import type { Found } from '../edges';
import { findEnd } from './relate-tool';
import {
  isInLine,
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
  type ToolInput,
} from './tool';

/** How a circle is given; `found` looks for its rim around a place inside it. */
export type CircleMode = CircleBy['kind'] | 'found' | 'touching' | 'ellipse';

export interface CircleState {
  readonly mode: CircleMode;
  readonly places: readonly Place[];
  /** What the circle touches, in turn. */
  readonly touches?: readonly RelationEnd[] | undefined;
}

const NEEDED: Readonly<Record<CircleMode, number>> = { found: 3, rim: 2, two: 2, three: 3, touching: 3, ellipse: 3 };
const START: CircleState = { mode: 'found', places: [] };

function circleFrom({ mode }: CircleState, [a, b, c]: readonly Place[]): CircleBy | undefined {
  if (!a || !b) return undefined;
  if (mode === 'rim') return { kind: 'rim', centre: a, rim: b };
  if (mode === 'two') return { kind: 'two', a, b };
  return c && { kind: 'three', a, b, c };
}

function outlineFrom(by: CircleBy, id: string, { fitted, layer }: ToolContext): CircleOutline {
  return { shape: 'circle', id, layer, plane: fitted.view.plane, by };
}

function place(state: CircleState, next: Place, context: ToolContext): Step<CircleState> {
  const places = [...state.places, next];
  const [a, b, c] = places;
  if (
    state.mode !== 'rim' &&
    state.mode !== 'two' &&
    a?.kind === 'pointed' &&
    b?.kind === 'pointed' &&
    c?.kind === 'pointed' &&
    isInLine(a.at, b, c.at)
  )
    return stay(state, say('points-in-a-line'));
  if (places.length < NEEDED[state.mode]) return [{ ...state, places }, []];
  const outline = outlineFrom(circleFrom(state, places)!, context.newId(), context);
  const fault = shapeOf(outline, context.fitted.placing).faults[0];
  if (fault) return stay(state, say(places.length === 3 ? 'points-in-a-line' : 'points-the-same'));
  return [{ ...state, places: [] }, [run(addOutline(outline))]];
}

/** Nobody pointed at its rim: it is wherever it touches. Sheet px, one sigma. */
const ANYWHERE = 1000;

/** The next thing that is touched; with three of them, or two and a typed diameter, the circle is there. */
function touch(state: CircleState, aim: Aim, context: ToolContext): Step<CircleState> {
  const end = findEnd(aim, context);
  if (!end || end.node !== undefined) return stay(state, say('nothing-to-touch'));
  const touches = [...(state.touches ?? []), end];
  const places = [...state.places, pointed(aim)];
  return touches.length < 3
    ? [{ ...state, touches, places }, []]
    : touchingCircle({ ...state, touches, places }, undefined, context);
}

function touchingCircle(state: CircleState, radius: number | undefined, context: ToolContext): Step<CircleState> {
  const { touches = [], places } = state;
  const { newId, fitted } = context;
  const at = places.map((place) =>
    findPosition(place, { ...fitted.placing, nodeAt: () => undefined }),
  ) as readonly Vec[];
  const guess =
    radius === undefined ? findCircleThrough(at) : circle(centreBeside(at, touches, radius, context), radius);
  if (!guess) return stay({ ...state, places: [], touches: [] }, say('points-in-a-line'));
  const [a, b, c] = [0, 1 / 3, 2 / 3].map((t): Place => ({
    kind: 'pointed',
    at: toSheetPlace(fitted, pointAt(guess, t)),
    sigma: ANYWHERE,
  })) as [Place, Place, Place];
  const outline = outlineFrom({ kind: 'three', a, b, c }, newId(), context);
  const own = { outline: outline.id };
  const relations: Relation[] = touches.map((end) => ({
    id: newId(),
    plane: fitted.view.plane,
    kind: 'tangent',
    on: [own, end],
  }));
  if (radius !== undefined)
    relations.push({ id: newId(), plane: fitted.view.plane, kind: 'radius', on: [own], value: radius });
  return [{ ...state, places: [], touches: [] }, [run(together([addRelations(relations), addOutline(outline)]))]];
}

function findCircleThrough([a, b, c]: readonly Vec[]): Arc | undefined {
  const centre = findCircumcentre(a!, b!, c!);
  return centre && circle(centre, distance(centre, a!));
}

/** About where a circle of a radius has its centre that touches two things at two places: outside of what is round, else towards the other place. */
function centreBeside(
  [a, b]: readonly Vec[],
  touches: readonly RelationEnd[],
  radius: number,
  { shapes }: ToolContext,
): Vec {
  const out = (place: Vec, other: Vec, { outline, segment }: RelationEnd): Vec => {
    const piece = segment === undefined ? shapes.get(outline)?.pieces[0] : undefined;
    const direction = piece?.kind === 'arc' ? subtract(place, piece.centre) : subtract(other, place);
    return add(place, scale(direction, radius / Math.max(1e-9, distance(direction, [0, 0]))));
  };
  return mix(out(a!, b!, touches[0]!), out(b!, a!, touches[1]!), 0.5);
}

/** The next of the three places of an ellipse: its centre, the end of an axis, and how far the other one reaches. */
function placeEllipse(state: CircleState, next: Place, context: ToolContext): Step<CircleState> {
  const places = [...state.places, next];
  const [centre, end, side] = places;
  if (!centre || !end || !side) return [{ ...state, places }, []];
  const outline = ellipseFrom(centre, end, side, context.newId(), context);
  return shapeOf(outline, context.fitted.placing).faults.length > 0
    ? stay(state, say('points-in-a-line'))
    : [{ ...state, places: [] }, [run(addOutline(outline))]];
}

const ellipseFrom = (
  centre: Place,
  end: Place,
  side: Place,
  id: string,
  { fitted, layer }: ToolContext,
): EllipseOutline => ({ shape: 'ellipse', id, layer, plane: fitted.view.plane, centre, end, side });

/** The circle through three places of a rim that was found, as far apart as can be. */
function throughFound(state: CircleState, points: Found, context: ToolContext): Step<CircleState> {
  const places = [0, 1, 2].map((third): Place => ({
    kind: 'pointed',
    ...points[Math.floor((third * points.length) / 3)]!,
  }));
  return places.reduce<Step<CircleState>>(([now], next) => place(now, next, context), [{ ...state, places: [] }, []]);
}

/** A typed diameter, once the first place is set: about the centre, or from the first place towards the aim. */
function typed(
  state: CircleState,
  input: Extract<ToolInput, { kind: 'typed' }>,
  context: ToolContext,
): Step<CircleState> {
  const [first, second] = state.places;
  if (state.mode === 'touching' && second && input.length !== undefined && context.fitted.fit.scaled)
    return touchingCircle(state, input.length / 2, context);
  if (state.mode === 'ellipse') return typedEllipse(state, input, context);
  if (!first || state.mode === 'three' || state.mode === 'found') return stay(state, say('point-first'));
  if (!context.fitted.fit.scaled) return stay(state, say('scale-first'));
  const { length: diameter, aim } = input;
  if (diameter === undefined) return [state, []];
  if (state.mode === 'two')
    return aim
      ? place(state, { kind: 'reach', from: first, length: diameter, towards: pointed(aim) }, context)
      : stay(state, say('point-the-way'));
  const centre = findPosition(first, { ...context.fitted.placing, nodeAt: () => undefined });
  const seen: Vec = centre ? toSheetPlace(context.fitted, [centre[0] + diameter / 2, centre[1]]) : [0, 0];
  return place(state, { kind: 'shifted', from: first, by: [diameter / 2, 0], seen }, context);
}

/** A typed axis of an ellipse: the first along the aim, the second square to it. */
function typedEllipse(
  state: CircleState,
  { length, aim }: Extract<ToolInput, { kind: 'typed' }>,
  context: ToolContext,
): Step<CircleState> {
  const [centre, end] = state.places;
  if (!centre) return stay(state, say('point-first'));
  if (!context.fitted.fit.scaled) return stay(state, say('scale-first'));
  if (length === undefined) return [state, []];
  if (!end)
    return aim
      ? placeEllipse(state, { kind: 'reach', from: centre, length: length / 2, towards: pointed(aim) }, context)
      : stay(state, say('point-the-way'));
  const [middle, tip] = [centre, end].map((place) =>
    findPosition(place, { ...context.fitted.placing, nodeAt: () => undefined }),
  ) as [Vec, Vec];
  const by = scale(perpendicular(subtract(tip, middle)), length / 2 / distance(tip, middle));
  return placeEllipse(
    state,
    { kind: 'shifted', from: centre, by, seen: toSheetPlace(context.fitted, add(middle, by)) },
    context,
  );
}

function nudged(state: CircleState, { by, sigma }: Nudge): CircleState {
  const last = state.places.at(-1);
  if (last?.kind !== 'pointed') return state;
  return { ...state, places: [...state.places.slice(0, -1), movedByHand(last, by, sigma)] };
}

export const circleTool: Tool<CircleState> = {
  belongsTo: 'trace',
  hint: ({ mode }) => ({ code: mode === 'found' ? 'circle-found' : 'circle' }),
  start: START,
  step(state, input, context) {
    switch (input.kind) {
      case 'set':
        if (state.mode === 'found')
          return [state, [{ kind: 'seek', what: 'rim', near: input.aim.free, otherwise: 'circle-not-found' }]];
        if (state.mode === 'touching') return touch(state, input.aim, context);
        return state.mode === 'ellipse'
          ? placeEllipse(state, pointed(input.aim), context)
          : place(state, pointed(input.aim), context);
      case 'found':
        return throughFound(state, input.points, context);
      case 'typed':
        return typed(state, input, context);
      case 'nudge':
        return [nudged(state, input), []];
      case 'back':
        return [{ ...state, places: state.places.slice(0, -1), touches: state.touches?.slice(0, -1) }, []];
      case 'cancel':
        return [{ mode: state.mode, places: [] }, []];
      default:
        return [state, []];
    }
  },
  preview(state, aim, context) {
    if (state.places.length === 0) return NOTHING;
    const points = state.places.flatMap((p) => (p.kind === 'pointed' ? [p.at] : []));
    if (state.mode === 'touching') return { ...NOTHING, points };
    if (state.mode === 'ellipse') {
      const [centre, end, side] = [...state.places, ...(aim ? [pointed(aim)] : [])];
      return { outlines: centre && end && side ? [ellipseFrom(centre, end, side, 'draft', context)] : [], points };
    }
    const by = aim && circleFrom(state, [...state.places, pointed(aim)]);
    return { outlines: by ? [outlineFrom(by, 'draft', context)] : [], points };
  },
};
