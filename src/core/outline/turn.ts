import type { Vec } from '../geometry';
import { mapPlaces, type Outline } from './outline';
import type { Place } from './place';

/** How displacements (mm) and angles (radians) on a plane are said anew when its axes turn or are mirrored. */
export interface Turn {
  displacement(by: Vec): Vec;
  angle(angle: number): number;
}

/** The same outline said in other axes: what was typed stays where it is on the thing. */
export function turnedOutline(outline: Outline, turn: Turn): Outline {
  return mapPlaces(outline, (place) => turnedPlace(place, turn));
}

function turnedPlace(place: Place, turn: Turn): Place {
  switch (place.kind) {
    case 'pointed': case 'node': return place;
    case 'placed': return { ...place, at: turn.displacement(place.at) };
    case 'shifted': return { ...place, from: turnedPlace(place.from, turn), by: turn.displacement(place.by) };
    case 'aligned': return { ...place, from: turnedPlace(place.from, turn), angle: turn.angle(place.angle) };
    case 'reach': return { ...place, from: turnedPlace(place.from, turn) };
  }
}
