import { isWithinReach } from '../basics';
import type { Pose, SpacePiece } from '../space';
import { findUnion, moved, pieceBounds, placed, type Bounds, type Piece } from '../geometry';

/** What leaves in a file: layers of paths, mm, y up. Only outlines; nothing else has a place in it. */
export interface Drawing {
  readonly layers: readonly DrawingLayer[];
}

export interface DrawingLayer {
  readonly name: string;
  /** `#rrggbb` */
  readonly color: string;
  readonly paths: readonly DrawnPath[];
  /** Curves that lie on no plane; only files that stand in space have them. */
  readonly inSpace?: readonly SpacePath[];
}

/** A curve in the object frame, mm, z up: pieces end to end. */
export interface SpacePath {
  readonly closed: boolean;
  readonly pieces: readonly SpacePiece[];
}

export interface DrawnPath {
  readonly closed: boolean;
  readonly pieces: readonly Piece[];
  /** Where its plane stands in the object frame, z up; absent: it lies flat. */
  readonly stands?: Pose | undefined;
}

/** The unit a file is written in. */
export type FileUnit = 'mm' | 'inch';

export const MM_PER_FILE_UNIT: Readonly<Record<FileUnit, number>> = { mm: 1, inch: 25.4 };

/** The box around a drawing, mm; undefined when nothing is drawn. */
export function findDrawingBounds(drawing: Drawing): Bounds | undefined {
  return findUnion(drawing.layers.flatMap((layer) => layer.paths.flatMap((path) => path.pieces.map(pieceBounds))));
}

/** Whether a piece is made of numbers, none of them beyond all bounds. */
export function isSound(piece: Piece, isThere = isWithinReach): boolean {
  return Object.values(piece)
    .flat()
    .every((value) => typeof value === 'string' || isThere(value as number));
}

/** The same piece in another unit. */
export function scaledPiece(piece: Piece, factor: number): Piece {
  return factor === 1 ? piece : moved(piece, placed([0, 0], 0, factor));
}
