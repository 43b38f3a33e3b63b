import { distance, endOf, isRound, partOf, reversed, startOf, type Path, type Piece } from '../geometry';
import { edgeOf, isForward, twin, type Arrangement, type HalfEdge } from './arrangement';
import type { Stretch } from './edges';

/** A loop around a part of the plane that is kept, which lies to its left, with where each of its pieces came from. */
export interface Boundary extends Path {
  readonly sources: readonly Stretch[];
}

/** Ends so many tolerances apart are one place: two cuts that were taken for one, each as far off as it may be. */
const JOINED = 2;

/**
 * The loops between what is kept and what is not. Stretches of one given piece that follow one another are one piece again. Parts that touch in a place only stay apart. Undefined where a piece does not end where the next one begins:
 * an arrangement that is coarser than `tolerance` may take what lies apart for one place.
 */
export function findBoundaries(
  arrangement: Arrangement,
  given: readonly Piece[],
  tolerance: number,
  isKept: (face: number) => boolean,
): readonly Boundary[] | undefined {
  const loops = boundariesOf(arrangement, given, isKept);
  return loops.every((loop) => isJoined(loop, JOINED * tolerance)) ? loops : undefined;
}

const isJoined = ({ pieces }: Boundary, most: number): boolean =>
  pieces.every((piece, i) => distance(endOf(piece), startOf(pieces[(i + 1) % pieces.length]!)) <= most);

function boundariesOf(
  arrangement: Arrangement,
  given: readonly Piece[],
  isKept: (face: number) => boolean,
): readonly Boundary[] {
  const { faceOf, edges } = arrangement;
  const isEdge = (half: HalfEdge) => isKept(faceOf[half]!) && !isKept(faceOf[twin(half)]!);
  const seen = new Set<HalfEdge>();
  return faceOf.flatMap((_, first): Boundary[] => {
    if (seen.has(first) || !isEdge(first)) return [];
    const loop: Stretch[] = [];
    for (let half = first; !seen.has(half); half = findNext(arrangement, half, isEdge)) {
      seen.add(half);
      loop.push(along(edges[edgeOf(half)]!.sources[0]!, isForward(half)));
    }
    const sources = joined(loop, given);
    return [{ closed: true, pieces: sources.map((stretch) => pieceOf(stretch, given)), sources }];
  });
}

export const along = ({ of, from, to }: Stretch, forward: boolean): Stretch =>
  forward ? { of, from, to } : { of, from: to, to: from };

/** The boundary goes on along the first edge of it to the right, which keeps parts that touch apart. */
function findNext({ leavingEnd }: Arrangement, half: HalfEdge, isEdge: (half: HalfEdge) => boolean): HalfEdge {
  const fan = leavingEnd(half);
  const at = fan.indexOf(twin(half));
  for (let step = 1; step <= fan.length; step++) {
    const candidate = fan[(at + fan.length - step) % fan.length]!;
    if (isEdge(candidate)) return candidate;
  }
  return half;
}

function joined(loop: readonly Stretch[], given: readonly Piece[]): readonly Stretch[] {
  const whole: Stretch[] = [];
  for (const stretch of loop) {
    const longer = whole.length > 0 ? findJoined(whole.at(-1)!, stretch, given) : undefined;
    if (longer) whole.splice(-1, 1, longer);
    else whole.push(stretch);
  }
  const around = whole.length > 1 ? findJoined(whole.at(-1)!, whole[0]!, given) : undefined;
  return around ? [around, ...whole.slice(1, -1)] : whole;
}

/** Two stretches as one, where they follow each other on one piece; what closes on itself goes on past its own start. */
function findJoined(a: Stretch, b: Stretch, given: readonly Piece[]): Stretch | undefined {
  if (a.of !== b.of || a.to > a.from !== b.to > b.from) return undefined;
  if (a.to === b.from) return { ...a, to: b.to };
  const turn = a.to > a.from ? 1 : -1;
  return isRound(given[a.of]!) && a.to - b.from === turn ? { ...a, to: b.to + turn } : undefined;
}

/** A stretch as a piece in its own direction. */
export function pieceOf({ of, from, to }: Stretch, given: readonly Piece[]): Piece {
  return to > from ? partOf(given[of]!, from, to) : reversed(partOf(given[of]!, to, from));
}
