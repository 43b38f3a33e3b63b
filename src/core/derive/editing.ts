import { EDGE_SIGMA } from '../calibrate';
import type { Vec } from '../geometry';
import { changeOutlines, type Command } from '../job';
import {
  findPosition,
  placingOf,
  shiftedOutline,
  type Editing,
  type Outline,
  type Place,
  type Placing,
} from '../outline';
import type { FittedView } from './fits';

/** What edits need: names, and where on the sheet a place of the plane is. */
export interface Editor {
  readonly fitted: FittedView;
  newId(): string;
}

export const editingIn = ({ fitted, newId }: Editor): Editing => ({
  toSheet: (plane) => fitted.fit.toSheet(plane),
  newId,
  // As good as an edge can be pointed at.
  sigma: EDGE_SIGMA,
});

/** Where the places of an outline are found. */
export function placingFor(outline: Outline, { placing }: FittedView): Placing {
  return outline.shape === 'chain' ? placingOf(outline, placing) : { ...placing, nodeAt: () => undefined };
}

/** Moves outlines by a typed or pointed displacement, mm. */
export function commandForMove(outlines: readonly Outline[], by: Vec, fitted: FittedView): Command {
  const moved = outlines.map((outline) => {
    const placing = placingFor(outline, fitted);
    return shiftedOutline(outline, by, (place: Place): Vec => {
      const [x, y] = findPosition(place, placing) ?? [0, 0];
      return fitted.fit.toSheet([x + by[0], y + by[1]]);
    });
  });
  return changeOutlines(moved, 'outlines-moved');
}
