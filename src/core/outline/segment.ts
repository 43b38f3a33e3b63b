import { add, axesOf, pointAt, scale, type EllipticArc, type Piece, type Vec } from '../geometry';
import type { Segment } from './outline';
import type { PointedPlace } from './place';

/** What editing needs of the world: the map back to the sheet, fresh ids, and the sigma of places that edits make. */
export interface Editing {
  toSheet(plane: Vec): Vec;
  newId(): string;
  readonly sigma: number;
}

export function pointedAt(plane: Vec, editing: Editing): PointedPlace {
  return { kind: 'pointed', at: editing.toSheet(plane), sigma: editing.sigma };
}

/** The segment that a piece is, between nodes at its ends; a cubic's handles are its nodes' to keep. */
export function segmentFor(piece: Piece, editing: Editing): Segment {
  switch (piece.kind) {
    case 'line':
      return { kind: 'line' };
    case 'cubic':
      return { kind: 'curve' };
    case 'arc':
      return { kind: 'arc', through: pointedAt(pointAt(piece, 0.5), editing) };
    case 'ellipse':
      return { kind: 'ellipse', apex: pointedAt(apexOf(piece), editing), sweep: piece.sweep };
  }
}

/** Where the tangents at both ends of a piece of an ellipse meet; it sweeps less than half a turn. */
function apexOf(piece: EllipticArc): Vec {
  const [major, minor] = axesOf(piece);
  const [middle, out] = [piece.start + piece.sweep / 2, 1 / Math.cos(piece.sweep / 2)];
  return add(piece.centre, add(scale(major, out * Math.cos(middle)), scale(minor, out * Math.sin(middle))));
}
