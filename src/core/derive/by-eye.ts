import type { Measured } from '../adjust';
import { moved, placed, type Piece, type Vec } from '../geometry';
import type { Job, StoodByEye } from '../job';
import { drawnByEye } from '../shelf';
import type { Derived } from './derived';

/** Something of known size as it stands in a drawing. */
export interface SeenByEye {
  readonly stood: StoodByEye;
  /** On its plane, mm. */
  readonly pieces: readonly Piece[];
  readonly at: Vec;
  /** About how large it is, mm, one sigma. */
  readonly size: Measured;
}

/** What stands on a plane to judge it by eye; nothing while it has no scale. */
export function listByEye(
  plane: string,
  {
    job,
    derived,
  }: { readonly job: Pick<Job, 'byEye'>; readonly derived: { readonly planes: ReadonlyMap<string, PlaneOf> } },
): readonly SeenByEye[] {
  const placing = derived.planes.get(plane)?.placing;
  if (!placing?.scaled) return [];
  return job.byEye
    .filter((stood) => stood.plane === plane)
    .map((stood) => {
      const at = placing.toPlane(stood.at.at, stood.at.view);
      const { size, sigma, pieces } = drawnByEye(stood.thing, stood.from);
      return {
        stood,
        at,
        size: { value: size, sigma },
        pieces: pieces.map((piece) => moved(piece, placed(at, stood.turn))),
      };
    })
    .filter(({ at }) => at.every(Number.isFinite));
}

type PlaneOf = Pick<NonNullable<ReturnType<Derived['planes']['get']>>, 'placing'>;
