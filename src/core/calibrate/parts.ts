import type { Matrix } from 'ml-matrix';
import type { MapModel, MapPart } from './models';

/** What a fit knows of one part of its map, and from where. */
export interface FoundPart {
  readonly part: MapPart;
  /**
   * `found`: the evidence tells, against or without an assumption. `partly`: it narrows what was assumed. `assumed`: it says
   * next to nothing. `overruled`: what was assumed did not fit and was dropped.
   */
  readonly from: 'found' | 'partly' | 'assumed' | 'overruled';
  readonly values: readonly number[];
  readonly sigmas: readonly number[];
}

/** Share of the assumed sigma that has to be left for a part to count as only assumed, and as found. */
const STILL_ASSUMED = 0.8;
const WELL_FOUND = 0.25;

/** What the evidence told where such a share of the assumed sigma is left. */
function foundWith(share: number): FoundPart['from'] {
  if (share > STILL_ASSUMED) return 'assumed';
  return share > WELL_FOUND ? 'partly' : 'found';
}

/** `covariance` of the map's numbers. */
export function listFoundParts(
  { model, values }: { readonly model: MapModel; readonly values: readonly number[] },
  covariance: Matrix,
  freed: ReadonlySet<MapPart>,
): FoundPart[] {
  let first = 0;
  return model.parts.map(({ id, start, sigma }) => {
    const from = first;
    first += start.length;
    const sigmas = start.map((_, i) => Math.sqrt(Math.max(0, covariance.get(from + i, from + i))));
    // Of a lens its first number is the bow; the second hardly ever shows.
    const share = sigma
      ? Math.max(...sigmas.slice(0, id === 'lens' ? 1 : undefined).map((left, i) => left / sigma[i]!))
      : 0;
    return {
      part: id,
      from: freed.has(id) ? 'overruled' : foundWith(share),
      values: values.slice(from, first),
      sigmas,
    };
  });
}
