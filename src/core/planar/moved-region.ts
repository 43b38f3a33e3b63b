import {
  add,
  cross,
  distance,
  dot,
  enclosedArea,
  endOf,
  pieceLength,
  scale,
  startOf,
  subtract,
  tangentAt,
  type Piece,
  type Vec,
} from '../geometry';
import { pieceOf, type Boundary } from './boundary';
import type { Region } from './regions';

/** What is asked of a region: its area without the holes, and the length around it and them. In the paths' unit. */
export interface RegionMeasure {
  readonly area: number;
  readonly around: number;
}

/** A corner may open by this share of the shorter of its two pieces; where it opens wider, it is another drawing. */
const WIDEST_GAP = 0.1;

/** Tangents that all but turn back on each other, as 1 + cosine: a corner between them runs away with the least move. */
const SHARPEST = 1e-4;

/**
 * A region whose pieces moved a little, without listing anew what they shut in: exact in the first order of how far they moved, in time that grows with its rim alone. `pieces` are those that the region was
 * listed of, in the same order. Undefined where they do not fit its rim any more.
 *
 * A corner is where two pieces cross, so a move opens it and they are made longer or shorter until they meet. For the area that is a triangle with two short sides, of second order. The length around grows by
 * g·(u + v) / (1 + u·v): the gap g solved along both unit tangents u and v, which is as steady where one piece goes on smoothly into the next.
 */
export function measureMoved({ around, holes }: Region, pieces: readonly Piece[]): RegionMeasure | undefined {
  const measures = [around, ...holes].map((rim) => measureRim(rim, pieces));
  return measures.reduce(
    (sum, measure) => sum && measure && { area: sum.area + measure.area, around: sum.around + measure.around },
    { area: 0, around: 0 },
  );
}

function measureRim({ sources }: Boundary, pieces: readonly Piece[]): RegionMeasure | undefined {
  if (sources.some(({ of }) => !pieces[of])) return undefined;
  const parts = sources.map((stretch) => pieceOf(stretch, pieces));
  const lengths = parts.map((part) => pieceLength(part));
  let [area, around] = [enclosedArea(parts), lengths.reduce((sum, length) => sum + length, 0)];
  for (const [i, part] of parts.entries()) {
    const next = (i + 1) % parts.length;
    const [end, start] = [endOf(part), startOf(parts[next]!)];
    if (distance(end, start) > WIDEST_GAP * Math.min(lengths[i]!, lengths[next]!)) return undefined;
    const longer = lengthAcross(subtract(start, end), tangentAt(part, 1), tangentAt(parts[next]!, 0));
    if (longer === undefined) return undefined;
    around += longer;
    // The chain is closed by a line already; gaps within it are not.
    if (next > 0) area += cross(end, start) / 2;
  }
  return { area, around };
}

/** By how much two pieces that ran into each other are longer together once the gap between them is closed along both. */
function lengthAcross(gap: Vec, u: Vec, v: Vec): number | undefined {
  const apart = 1 + dot(u, v);
  return apart < SHARPEST ? undefined : dot(gap, scale(add(u, v), 1 / apart));
}
