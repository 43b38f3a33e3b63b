import { applied, subtract, type Vec } from '../geometry';
import type { Guide } from './guide';
import { mapPlaces, type Outline } from './outline';
import type { Place } from './place';
import type { Opening, Recipe } from './recipe';
import type { Hold } from './hold';
import { mapOfPut } from './put';
import type { Siting } from './siting';

/** How what lies on a plane is said anew when its axes turn, are mirrored or begin elsewhere: places and displacements (mm), angles (radians). */
export interface Turn {
  place(at: Vec): Vec;
  displacement(by: Vec): Vec;
  angle(angle: number): number;
  /** 1, or −1 where left and right are exchanged. */
  readonly hand: 1 | -1;
}

/** The same outline said in other axes: what was typed stays where it is on the thing. */
export function turnedOutline(outline: Outline, turn: Turn): Outline {
  const placed = mapPlaces(outline, (place) => turnedPlace(place, turn));
  if (placed.shape === 'made') return { ...placed, recipe: turnedRecipe(placed.recipe, turn) };
  if (placed.shape !== 'chain') return placed;
  return {
    ...placed,
    nodes: placed.nodes.map((node) =>
      node.direction === undefined ? node : { ...node, direction: turn.angle(node.direction) },
    ),
  };
}

/** The same guide in other axes. Between two places its direction follows them; what is square to that runs the other way where left and right are exchanged, so that its left stays where it is. */
export function turnedGuide(guide: Guide, turn: Turn): Guide {
  const towards = guide.towards && { towards: turnedPlace(guide.towards, turn) };
  return {
    ...guide,
    through: turnedPlace(guide.through, turn),
    ...towards,
    angle: turn.angle(guide.angle),
    offset: guide.square ? guide.offset : turn.hand * guide.offset,
  };
}

/**
 * The same siting after the axes of a plane turned: of that on which the drawing is set, or of its own, where it is said anew how that comes to where it stood. Where left and right are exchanged a drawing stays as it is, and stands on
 * the other hand of edges.
 */
export function turnedSiting(siting: Siting, turn: Turn, plane: string): Siting {
  const holds = siting.holds.map((hold) => turnedHold(hold, turn));
  const { at, turn: turned } = siting.put;
  if (plane === siting.plane)
    return { ...siting, holds, put: { at: turn.place(at), turn: turned + angleOfTurn(turn) } };
  const now = turned - angleOfTurn(turn);
  const zero = applied(mapOfPut({ at: [0, 0], turn: now }), turn.place([0, 0]));
  return { ...siting, holds, put: { at: subtract(at, zero), turn: now } };
}

/** By how much axes turned, but for exchanging left and right. */
export const angleOfTurn = ({ hand, angle }: Turn): number => (hand > 0 ? angle(0) : 0);

/** Turns and sides of edges are the other way around on the other hand. */
const turnedHold = (hold: Hold, { hand }: Turn): Hold =>
  hand < 0 && (hold.kind === 'parallel' || hold.kind === 'off') ? { ...hold, value: -hold.value } : hold;

function turnedRecipe(recipe: Recipe, turn: Turn): Recipe {
  switch (recipe.kind) {
    case 'rows':
      return { ...recipe, step: turn.displacement(recipe.step), rowStep: turn.displacement(recipe.rowStep) };
    case 'around':
      return { ...recipe, sweep: turn.hand * recipe.sweep };
    // What is mirrored is so about the axes: turned with them, the mirror turns twice as far.
    case 'placed':
      return { ...recipe, turn: turn.hand * recipe.turn + (recipe.mirrored && turn.hand > 0 ? 2 * turn.angle(0) : 0) };
    // What is shut grows on all sides: only beside an open line there is a right and a left.
    case 'offset':
      return turn.hand > 0 ? recipe : { ...recipe, otherHand: !recipe.otherHand };
    case 'strip':
      return turn.hand > 0
        ? recipe
        : {
            ...recipe,
            justified: OTHER_SIDE[recipe.justified],
            ...(recipe.openings ? { openings: recipe.openings.map(otherHand) } : {}),
          };
    case 'fittings':
    case 'combined':
    case 'mirrored':
    case 'sited':
      return recipe;
  }
}

const OTHER_SIDE = { left: 'right', right: 'left', middle: 'middle' } as const;

/** A door that opens to the left opens to the right where the two are exchanged. */
function otherHand(opening: Opening): Opening {
  const hung = opening.fill?.hung;
  return hung
    ? { ...opening, fill: { ...opening.fill!, hung: { ...hung, to: OTHER_SIDE[hung.to] as 'left' | 'right' } } }
    : opening;
}

function turnedPlace(place: Place, turn: Turn): Place {
  switch (place.kind) {
    case 'pointed':
    case 'node':
      return place;
    case 'placed':
      return { ...place, at: turn.place(place.at) };
    case 'middle':
      return { ...place, a: turnedPlace(place.a, turn), b: turnedPlace(place.b, turn) };
    case 'shifted':
      return { ...place, from: turnedPlace(place.from, turn), by: turn.displacement(place.by) };
    case 'aligned':
      return { ...place, from: turnedPlace(place.from, turn), angle: turn.angle(place.angle) };
    case 'reach':
      return { ...place, from: turnedPlace(place.from, turn) };
  }
}
