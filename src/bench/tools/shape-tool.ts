import {
  add,
  angleOf,
  applied,
  cross,
  distance,
  dot,
  norm,
  perpendicular,
  placed,
  polar,
  scale,
  subtract,
  type Vec,
} from '@/core/geometry';
import { addOutline, addRelations, together, type Command } from '@/core/job';
import { type Chain, type Place, type PointedPlace } from '@/core/outline';
import type { Relation, RelationEnd, RelationKind } from '@/core/relate';
import {
  betweenPlaces,
  NOTHING,
  pointed,
  run,
  say,
  stay,
  toSheetPlace,
  type Step,
  type Tool,
  type ToolContext,
} from './tool';

export type ShapeMode = 'rectangle' | 'turned' | 'polygon' | 'slot';

/** A shape that is more than its points: corners that nobody pointed at follow from what is true of it. */
export interface ShapeState {
  readonly mode: ShapeMode;
  readonly sides: number;
  readonly points: readonly PointedPlace[];
}

const START: ShapeState = { mode: 'rectangle', sides: 6, points: [] };
const NEEDED: Readonly<Record<ShapeMode, number>> = { rectangle: 2, turned: 3, polygon: 2, slot: 3 };
/** Nobody pointed at it: it is wherever the relations put it. Sheet px, one sigma. */
const ANYWHERE = 1000;

/** It follows from what was pointed at: as good as an edge can be pointed at. Sheet px, one sigma. */
const FOLLOWED = 0.7;

/** A shape on its plane: its corners in turn, which of them were pointed (or typed), and what is true of it. */
interface Plan {
  readonly corners: readonly Vec[];
  readonly places: readonly (Place | undefined)[];
  readonly says: readonly (readonly [RelationKind, readonly number[], number?])[];
  /** Places on the sides that are arcs, by side. */
  readonly arcs?: Readonly<Record<number, Vec>> | undefined;
}

const RECTANGLE: Plan['says'] = [
  ['level', [0]],
  ['upright', [1]],
  ['level', [2]],
  ['upright', [3]],
];

/** Level, as the view is worked along. */
const rectangleSays = (along: number): Plan['says'] =>
  along === 0 ? RECTANGLE : [['direction', [0], along], ...ALL_SQUARE];

const ALL_SQUARE: Plan['says'] = [
  ['square', [0, 1]],
  ['square', [1, 2]],
  ['square', [2, 3]],
];

function rectangleBetween(a: PointedPlace, c: PointedPlace, { fitted }: ToolContext): Plan {
  const { workAlong = 0 } = fitted.view;
  const [p, q] = [fitted.placing.toPlane(a.at), fitted.placing.toPlane(c.at)];
  const way = polar(1, workAlong);
  const across = scale(way, dot(subtract(q, p), way));
  const corners = [p, add(p, across), q, subtract(q, across)];
  return { corners, places: [a, undefined, c, undefined], says: rectangleSays(workAlong) };
}

/** The third place says only how far away the side across is: it lies along that side anywhere. */
function turnedRectangle(a: PointedPlace, b: PointedPlace, over: PointedPlace, { fitted }: ToolContext): Plan {
  const [p, q, r] = [a, b, over].map(({ at }) => fitted.placing.toPlane(at)) as [Vec, Vec, Vec];
  const side = subtract(q, p);
  const up = scale(perpendicular(side), dot(subtract(r, p), perpendicular(side)) / dot(side, side));
  const [from, to] = [toSheetPlace(fitted, p), toSheetPlace(fitted, q)];
  const edge = { normal: angleOf(subtract(to, from)) + Math.PI / 2, sigma: over.sigma };
  const third: PointedPlace = { kind: 'pointed', at: toSheetPlace(fitted, add(q, up)), sigma: ANYWHERE, edge };
  return {
    corners: [p, q, add(q, up), add(p, up)],
    places: [a, b, third, undefined],
    says: ALL_SQUARE,
  };
}

/** A regular polygon to the left of its first side. */
function polygonOn(a: PointedPlace, b: PointedPlace, sides: number, { fitted }: ToolContext): Plan {
  const [p, q] = [fitted.placing.toPlane(a.at), fitted.placing.toPlane(b.at)];
  const [length, first, turn] = [distance(p, q), angleOf(subtract(q, p)), (2 * Math.PI) / sides];
  const corners = [p, q];
  for (let i = 1; i < sides - 1; i++) corners.push(add(corners[i]!, polar(length, first + i * turn)));
  // The last two sides follow: the others leave them no way.
  const says = Array.from(
    { length: sides - 2 },
    (_, i) =>
      [
        ['equal-length', [0, i + 1]],
        ['angle', [i, i + 1], turn],
      ] as const,
  ).flat() as Plan['says'];
  return { corners, places: [a, b], says };
}

/** A slot about two centres: two sides and two half circles that run into them. */
function slotAround(a: Vec, b: Vec, radius: number, says: Plan['says'] = []): Plan {
  const along = scale(subtract(b, a), radius / distance(a, b));
  const aside = perpendicular(along);
  const corners = [subtract(a, aside), subtract(b, aside), add(b, aside), add(a, aside)];
  return { corners, places: [], arcs: { 1: add(b, along), 3: subtract(a, along) }, says: [...SLOT, ...says] };
}

const SLOT: Plan['says'] = [
  ['tangent', [0, 1]],
  ['tangent', [1, 2]],
  ['tangent', [2, 3]],
  ['tangent', [3, 0]],
];

function planOf({ mode, sides }: ShapeState, points: readonly PointedPlace[], context: ToolContext): Plan | undefined {
  const [a, b, c] = points;
  if (!a || !b) return undefined;
  if (mode === 'polygon') return polygonOn(a, b, sides, context);
  if (mode === 'rectangle') return rectangleBetween(a, b, context);
  if (mode === 'slot') {
    const [p, q, r] = [a, b, c].map((point) => point && context.fitted.placing.toPlane(point.at)) as [Vec, Vec, Vec?];
    const radius = r ? Math.abs(cross(subtract(q, p), subtract(r, p))) / distance(p, q) : 0;
    return radius > 0 ? slotAround(p, q, radius) : undefined;
  }
  return c && turnedRectangle(a, b, c, context);
}

/** The outline of a plan and its relations. */
function built(
  { corners, places, says, arcs }: Plan,
  { fitted, layer, newId }: ToolContext,
): { readonly chain: Chain; readonly relations: readonly Relation[] } {
  const [id, { plane }] = [newId(), fitted.view];
  const nodes = corners.map((at, i) => ({
    id: newId(),
    smooth: false,
    place: places[i] ?? ({ kind: 'pointed', at: toSheetPlace(fitted, at), sigma: arcs ? FOLLOWED : ANYWHERE } as const),
  }));
  const end = (side: number): RelationEnd => ({ outline: id, segment: nodes[side]!.id });
  return {
    chain: {
      shape: 'chain',
      id,
      layer,
      plane,
      closed: true,
      nodes,
      segments: nodes.map((_, i) =>
        arcs?.[i]
          ? { kind: 'arc', through: { kind: 'pointed', at: toSheetPlace(fitted, arcs[i]), sigma: FOLLOWED } }
          : { kind: 'line' },
      ),
    },
    relations: says.map(([kind, on, value]) => ({
      id: newId(),
      plane,
      kind,
      on: on.map(end),
      ...(value === undefined ? {} : { value }),
    })),
  };
}

function commandFor(plan: Plan, context: ToolContext): Command {
  const { chain, relations } = built(plan, context);
  return together([addRelations(relations), addOutline(chain)]);
}

export interface TypedRectangle {
  readonly width: number;
  readonly height: number;
  /** From the pointed place to the first corner, mm across and up. */
  readonly offset: Vec;
}

/** A rectangle of typed sides whose lower left corner stands at a typed distance from a place; undefined before one is pointed at. */
export function commandForRectangle(
  { points: [from] }: ShapeState,
  { width, height, offset }: TypedRectangle,
  context: ToolContext,
): Command | undefined {
  if (!from) return undefined;
  const { workAlong = 0 } = context.fitted.view;
  const turned = (by: Vec) => applied(placed([0, 0], workAlong), by);
  const corner = add(context.fitted.placing.toPlane(from.at), turned(offset));
  const first: Place =
    norm(offset) > 0 ? { kind: 'shifted', from, by: turned(offset), seen: toSheetPlace(context.fitted, corner) } : from;
  const corners = (
    [
      [0, 0],
      [width, 0],
      [width, height],
      [0, height],
    ] as const
  ).map((by) => add(corner, turned(by)));
  return commandFor(
    { corners, places: [first], says: [...rectangleSays(workAlong), ['length', [0], width], ['length', [1], height]] },
    context,
  );
}

/** A slot of a typed width, once both its centres are set. */
export function commandForSlot(
  { points: [a, b] }: ShapeState,
  width: number,
  context: ToolContext,
): Command | undefined {
  if (!a || !b) return undefined;
  const [p, q] = [a, b].map(({ at }) => context.fitted.placing.toPlane(at)) as [Vec, Vec];
  return commandFor(slotAround(p, q, width / 2, [['radius', [1], width / 2]]), context);
}

function place(state: ShapeState, next: PointedPlace, context: ToolContext): Step<ShapeState> {
  const points = [...state.points, next];
  const plane = points.map(({ at }) => context.fitted.placing.toPlane(at));
  if (points.length === 2 && isFlat(state.mode, plane[0]!, plane[1]!)) return stay(state, say('points-the-same'));
  if (points.length < NEEDED[state.mode]) return [{ ...state, points }, []];
  const plan = planOf(state, points, context);
  if (!plan) return stay(state, say('points-in-a-line'));
  if (
    state.mode === 'turned' &&
    distance(plan.corners[1]!, plan.corners[2]!) < 1e-9 * distance(plan.corners[0]!, plan.corners[1]!)
  )
    return stay(state, say('points-in-a-line'));
  return [{ ...state, points: [] }, [run(commandFor(plan, context))]];
}

/** A rectangle needs width and height; the others a first side. */
function isFlat(mode: ShapeMode, [ax, ay]: Vec, [bx, by]: Vec): boolean {
  return mode === 'rectangle' ? ax === bx || ay === by : ax === bx && ay === by;
}

export const shapeTool: Tool<ShapeState> = {
  belongsTo: 'trace',
  hint: () => ({ code: 'shape' }),
  start: START,
  step(state, input, context) {
    return input.kind === 'set' ? place(state, pointed(input.aim), context) : [betweenPlaces(state, input), []];
  },
  preview(state, aim, context) {
    if (state.points.length === 0) return NOTHING;
    const plan = aim && planOf(state, [...state.points, pointed(aim)], context);
    const points = state.points.map(({ at }) => at);
    return { outlines: plan ? [built(plan, { ...context, newId: counter() }).chain] : [], points };
  },
};

/** Names that last as long as a preview. */
function counter(): () => string {
  let count = 0;
  return () => `draft${count++}`;
}
