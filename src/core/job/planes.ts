import type { Draft } from 'immer';
import { z } from '../schema';

const Id = z.string().min(1).max(64);

/**
 * A plane that is drawn on, or that geometry lies on: that of a view (by the view's id), of the site, of a sheet with lines of its own. `liesOn`: the plane with whose zero
 * and axes it agrees, since its view was laid there.
 */
export const PlaneSchema = z.object({ id: Id, liesOn: Id.optional() }).readonly();
export type Plane = z.infer<typeof PlaneSchema>;

/** The plane whose zero and axes hold on a plane: the one it lies on, else itself. */
export const groundOf = ({ planes }: { readonly planes: readonly Plane[] }, plane: string): string =>
  planes.find(({ id }) => id === plane)?.liesOn ?? plane;

/** Puts a plane into a job where it is not there yet, and lays it on another. */
export function putPlane(job: { planes: Draft<Plane>[] }, id: string, on?: string): void {
  const liesOn = on === id ? undefined : on;
  if (liesOn !== undefined) putPlane(job, liesOn);
  const known = job.planes.find((plane) => plane.id === id);
  if (!known) job.planes.push(liesOn === undefined ? { id } : { id, liesOn });
  else if (liesOn !== undefined) known.liesOn = liesOn;
}
