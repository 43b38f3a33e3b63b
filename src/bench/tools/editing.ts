import type { FittedView } from '@/core/derive';
import type { Vec } from '@/core/geometry';
import { changeOutlines, type Command } from '@/core/job';
import {
  findPosition,
  placingOf,
  shiftedOutline,
  type Editing,
  type Outline,
  type Place,
  type Placing,
} from '@/core/outline';

/** Sigma of places that an edit makes on an existing outline: as good as an edge can be pointed at. Sheet px. */
const EDIT_SIGMA = 0.5;

/** What edits need: names, and where on the sheet a place of the plane is. */
export interface Hands {
  readonly fitted: FittedView;
  newId(): string;
}

export const editingIn = ({ fitted, newId }: Hands): Editing => ({
  toSheet: (plane) => fitted.fit.toSheet(plane),
  newId,
  sigma: EDIT_SIGMA,
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
