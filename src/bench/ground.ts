import { planeAsView, type FittedView } from '@/core/derive';
import { pieceAt } from '@/core/formats';
import { findUnion, type Piece, type Vec } from '@/core/geometry';
import type { LoadedReference } from '@/store';

/** The shown reference geometry on a plane. */
export function shownOn(references: readonly LoadedReference[], plane: string): readonly LoadedReference[] {
  return references.filter(({ reference }) => reference.plane === plane && reference.shown);
}

/** A plane that is looked at without a picture; undefined when nothing lies on it. */
export function lookAtPlane(references: readonly LoadedReference[], plane: string): FittedView | undefined {
  const there = references.filter(({ reference }) => reference.plane === plane);
  const bounds = findUnion(there.map(({ geometry }) => geometry.bounds));
  return bounds && planeAsView(plane, there.map(({ reference }) => reference.name).join(', '), bounds);
}

/** Pieces near a place that the aim may be caught by: enough for any crossing, never so many that aiming becomes slow. */
const MOST_CAUGHT = 150;

export function piecesAround(references: readonly LoadedReference[], [x, y]: Vec, reach: number): Piece[] {
  return references.flatMap(({ geometry, search }) =>
    search([x - reach, y - reach], [x + reach, y + reach])
      .slice(0, MOST_CAUGHT)
      .map((i) => pieceAt(geometry, i)),
  );
}
