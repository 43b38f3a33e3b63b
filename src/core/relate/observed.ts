import type { Block, Condition, LinearCondition } from '../adjust';
import { add, cross, distance, mix, dot, polar, scale, subtract, type Vec } from '../geometry';
import { findPosition, type Place, type Placing, type PointedPlace } from '../outline';
import { observationOf, SEEN_SIGMA, whitened, type PlacedObservation, type RelatingPlane } from './plane';

export const MAP_BLOCK = 'map';
/** Conditions that come from where things were pointed or typed, and not from a relation, are of this group. */
export const TRACED = 'traced';

/** Blocks and conditions as they are gathered. */
export interface Gathered {
  readonly blocks: Block[];
  readonly conditions: Condition[];
}

const vec = (value: readonly number[]): Vec => [value[0]!, value[1]!];

/** Exact equations of where something was typed. */
function exactly(blocks: readonly string[], residuals: Condition['residuals']): Condition {
  return { group: TRACED, origin: 'stated', exact: true, blocks, residuals };
}

/** The fit's own doubts: numbers of sigma one that everything pointed moves with, so that the hand is not blamed for the scale. */
export function addMap({ blocks, conditions }: Gathered, { freedoms }: RelatingPlane): void {
  if (freedoms.length === 0) return;
  const identity = freedoms.map((_, i) => freedoms.map((__, k) => (i === k ? 1 : 0)));
  blocks.push({ id: MAP_BLOCK, start: freedoms.map(() => 0) });
  conditions.push({
    group: TRACED,
    origin: 'measured',
    exact: false,
    blocks: [MAP_BLOCK],
    residuals: ([doubts]) => doubts!,
    linearize: ([doubts]) => ({ residuals: doubts!, slopes: identity }),
  });
}

/** A block is where a place was pointed, as it moves with the fit: one equation for each of `rows`, which turn a miss in mm into units of its sigma. */
function observe(
  { conditions }: Gathered,
  block: string,
  { at, moves }: PlacedObservation,
  rows: readonly Vec[],
): void {
  const slopes = rows.map((row) => [row[0], row[1], ...moves.map((move) => -dot(row, move))]);
  const residuals = ([where, doubts = []]: readonly (readonly number[])[]) => {
    const miss = subtract(
      vec(where!),
      moves.reduce((sum, move, i) => add(sum, scale(move, doubts[i]!)), at),
    );
    return rows.map((row) => dot(row, miss));
  };
  conditions.push({
    group: TRACED,
    origin: 'measured',
    exact: false,
    blocks: moves.length > 0 ? [block, MAP_BLOCK] : [block],
    residuals,
    linearize: (values): LinearCondition => ({ residuals: residuals(values), slopes }),
  });
}

function pointed(into: Gathered, plane: RelatingPlane, block: string, place: PointedPlace): void {
  const observation = observationOf(plane, place);
  const [right, up] = [whitened(observation.factor, [1, 0]), whitened(observation.factor, [0, 1])];
  observe(into, block, observation, [
    [right[0], up[0]],
    [right[1], up[1]],
  ]);
}

/** Only one coordinate of a pointed place counts: along a direction. */
function pointedAlong(into: Gathered, plane: RelatingPlane, block: string, place: PointedPlace, direction: Vec): void {
  const observation = observationOf(plane, place);
  const [first, second, third] = observation.factor;
  observe(into, block, observation, [
    scale(direction, 1 / Math.hypot(direction[0] * first + direction[1] * second, direction[1] * third)),
  ]);
}

/** A new block for a place, and all that is known about it. Returns false when the place is lost. */
export function addPlace(
  into: Gathered,
  plane: RelatingPlane,
  placing: Placing,
  block: string,
  place: Place,
  nodeBlockOf: (id: string) => string,
): boolean {
  const start = findPosition(place, placing);
  if (!start) return false;
  into.blocks.push({ id: block, start });
  if (place.kind === 'pointed') pointed(into, plane, block, place);
  else if (place.kind === 'node')
    into.conditions.push(exactly([block, nodeBlockOf(place.id)], ([at, other]) => subtract(vec(at!), vec(other!))));
  else if (place.kind === 'middle') return addMiddle(into, plane, placing, block, place, nodeBlockOf);
  else if (!plane.scaled && place.kind !== 'aligned')
    pointed(
      into,
      plane,
      block,
      place.kind === 'reach' ? place.towards : { kind: 'pointed', at: place.seen, sigma: SEEN_SIGMA },
    );
  else if (place.kind === 'placed') into.conditions.push(exactly([block], ([at]) => subtract(vec(at!), place.at)));
  else return addFrom(into, plane, placing, block, place, nodeBlockOf);
  return true;
}

/** Half-way between two places, each of which has a block of its own. */
function addMiddle(
  into: Gathered,
  plane: RelatingPlane,
  placing: Placing,
  block: string,
  { a, b }: Extract<Place, { kind: 'middle' }>,
  nodeBlockOf: (id: string) => string,
): boolean {
  const ends = [`${block}<`, `${block}>`] as const;
  if (![a, b].every((place, i) => addPlace(into, plane, placing, ends[i]!, place, nodeBlockOf))) return false;
  into.conditions.push(exactly([block, ...ends], ([at, p, q]) => subtract(vec(at!), mix(vec(p!), vec(q!), 0.5))));
  return true;
}

type PlaceFrom = Extract<Place, { readonly from: Place }>;

/** A place that stands in a typed way to another: that other one has a block of its own, unless it is a node. */
function addFrom(
  into: Gathered,
  plane: RelatingPlane,
  placing: Placing,
  block: string,
  place: PlaceFrom,
  nodeBlockOf: (id: string) => string,
): boolean {
  const from = place.from.kind === 'node' ? nodeBlockOf(place.from.id) : `${block}<`;
  if (place.from.kind !== 'node' && !addPlace(into, plane, placing, from, place.from, nodeBlockOf)) return false;
  if (place.kind === 'shifted')
    into.conditions.push(exactly([block, from], ([at, other]) => subtract(vec(at!), add(vec(other!), place.by))));
  else if (place.kind === 'aligned') {
    const way = polar(1, place.angle);
    into.conditions.push(exactly([block, from], ([at, other]) => [cross(way, subtract(vec(at!), vec(other!)))]));
    pointedAlong(into, plane, block, place.to, way);
  } else {
    const [start, other] = [findPosition(place, placing)!, findPosition(place.from, placing)!];
    const size = distance(start, other);
    into.conditions.push(exactly([block, from], ([at, to]) => [distance(vec(at!), vec(to!)) - place.length]));
    pointedAlong(
      into,
      plane,
      block,
      place.towards,
      size > 0 ? [(other[1] - start[1]) / size, (start[0] - other[0]) / size] : [0, 1],
    );
  }
  return true;
}
