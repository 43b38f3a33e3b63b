import type { Vec } from '../geometry';
import { mapPlaces, type Outline } from './outline';
import type { Place } from './place';
import type { Recipe } from './recipe';

/** How displacements (mm) and angles (radians) on a plane are said anew when its axes turn or are mirrored. */
export interface Turn {
  displacement(by: Vec): Vec;
  angle(angle: number): number;
}

/** The same outline said in other axes: what was typed stays where it is on the thing. */
export function turnedOutline(outline: Outline, turn: Turn): Outline {
  const placed = mapPlaces(outline, (place) => turnedPlace(place, turn));
  if (placed.shape === 'made') return { ...placed, recipe: turnedRecipe(placed.recipe, turn) };
  if (placed.shape !== 'chain') return placed;
  return { ...placed, nodes: placed.nodes.map((node) => (node.direction === undefined ? node : { ...node, direction: turn.angle(node.direction) })) };
}

function turnedRecipe(recipe: Recipe, turn: Turn): Recipe {
  if (recipe.kind === 'rows') return { ...recipe, step: turn.displacement(recipe.step), rowStep: turn.displacement(recipe.rowStep) };
  const hand = turn.angle(1) - turn.angle(0);
  if (recipe.kind === 'around') return { ...recipe, sweep: hand * recipe.sweep };
  // Beside an open line what was to the right is to the left where left and right are exchanged.
  if (recipe.kind === 'strip' && hand < 0) return { ...recipe, justified: recipe.justified === 'left' ? 'right' : recipe.justified === 'right' ? 'left' : 'middle' };
  return recipe.kind === 'placed' ? { ...recipe, turn: hand * recipe.turn } : recipe;
}

function turnedPlace(place: Place, turn: Turn): Place {
  switch (place.kind) {
    case 'pointed': case 'node': return place;
    case 'placed': return { ...place, at: turn.displacement(place.at) };
    case 'middle': return { ...place, a: turnedPlace(place.a, turn), b: turnedPlace(place.b, turn) };
    case 'shifted': return { ...place, from: turnedPlace(place.from, turn), by: turn.displacement(place.by) };
    case 'aligned': return { ...place, from: turnedPlace(place.from, turn), angle: turn.angle(place.angle) };
    case 'reach': return { ...place, from: turnedPlace(place.from, turn) };
  }
}
