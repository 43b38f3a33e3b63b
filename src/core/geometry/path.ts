import { moved, type Affine } from './affine';
import { endOf, reversed, startOf, type Piece } from './piece';
import type { Vec } from './vec';

/** Pieces end to end. A closed one ends where it begins. */
export interface Path {
  readonly closed: boolean;
  readonly pieces: readonly Piece[];
}

export const movedPath = ({ closed, pieces }: Path, map: Affine): Path => ({
  closed,
  pieces: pieces.map((piece) => moved(piece, map)),
});

export const reversedPath = ({ closed, pieces }: Path): Path => ({ closed, pieces: pieces.map(reversed).reverse() });

/** Both ends of a path; undefined without pieces. */
export function findEnds({ pieces }: Path): readonly [Vec, Vec] | undefined {
  const [first, last] = [pieces[0], pieces.at(-1)];
  return first && last && [startOf(first), endOf(last)];
}
