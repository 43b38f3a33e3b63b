import { findUnion, pieceBounds, type Bounds, type Piece } from '../geometry';

/** What leaves in a file: layers of paths, mm, y up. Only outlines; nothing else has a place in it. */
export interface Drawing {
  readonly layers: readonly DrawingLayer[];
}

export interface DrawingLayer {
  readonly name: string;
  /** `#rrggbb` */
  readonly color: string;
  readonly paths: readonly DrawnPath[];
}

export interface DrawnPath {
  readonly closed: boolean;
  readonly pieces: readonly Piece[];
}

/** The unit a file is written in. */
export type FileUnit = 'mm' | 'inch';

export const MM_PER_FILE_UNIT: Readonly<Record<FileUnit, number>> = { mm: 1, inch: 25.4 };

/** The box around a drawing, mm; undefined when nothing is drawn. */
export function findDrawingBounds(drawing: Drawing): Bounds | undefined {
  return findUnion(drawing.layers.flatMap((layer) => layer.paths.flatMap((path) => path.pieces.map(pieceBounds))));
}

/** The same piece in another unit. */
export function scaledPiece(piece: Piece, factor: number): Piece {
  const at = (p: readonly [number, number]) => [p[0] * factor, p[1] * factor] as const;
  switch (piece.kind) {
    case 'line':
      return { kind: 'line', a: at(piece.a), b: at(piece.b) };
    case 'arc':
      return { ...piece, centre: at(piece.centre), radius: piece.radius * factor };
    case 'cubic':
      return { kind: 'cubic', a: at(piece.a), b: at(piece.b), c: at(piece.c), d: at(piece.d) };
  }
}
