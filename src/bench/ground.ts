import { planeAsView, type Derived, type FittedView } from '@/core/derive';
import { pieceAt } from '@/core/formats';
import { findUnion, type Piece, type Vec } from '@/core/geometry';
import type { LoadedReference } from '@/store';
import type { Elsewhere } from './tools';

/** The shown reference geometry on a plane. */
export function shownOn(references: readonly LoadedReference[], plane: string): readonly LoadedReference[] {
  return references.filter(({ reference }) => reference.plane === plane && reference.shown);
}

/** Planes as views, by the references that lie there. */
const planes = new WeakMap<readonly LoadedReference[], Map<string, FittedView | undefined>>();

/** What is looked at in place of the view that is worked on; undefined when it is not there. The same references give the same view. */
export function findElsewhere(
  { kind, id }: Elsewhere,
  references: readonly LoadedReference[],
  { views }: Pick<Derived, 'views'>,
): FittedView | undefined {
  if (kind === 'view') return views.get(id);
  const known = planes.get(references) ?? new Map<string, FittedView | undefined>();
  planes.set(references, known);
  if (!known.has(id)) known.set(id, lookAtPlane(references, id));
  return known.get(id);
}

/** The view that is on the bench, with its fit, or what is looked at in its stead. */
export function fittedIn(
  viewId: string | undefined,
  elsewhere: Elsewhere | undefined,
  references: readonly LoadedReference[],
  derived: Derived,
): FittedView | undefined {
  const other = elsewhere && findElsewhere(elsewhere, references, derived);
  return other ?? (viewId === undefined ? undefined : derived.views.get(viewId));
}

/** A plane that is looked at without a picture; undefined when nothing lies on it. */
function lookAtPlane(references: readonly LoadedReference[], plane: string): FittedView | undefined {
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
