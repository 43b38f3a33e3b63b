import { add3, scale3, subtract3, type Vec3 } from './vec3';

/** Pieces of curves in the object frame, mm; from a to b, or a cubic Bézier curve from a to d that is drawn towards b and c. Parameter t from 0 to 1. */
export type SpacePiece =
  | { readonly kind: 'line'; readonly a: Vec3; readonly b: Vec3 }
  | { readonly kind: 'cubic'; readonly a: Vec3; readonly b: Vec3; readonly c: Vec3; readonly d: Vec3 };
export type SpaceCubic = Extract<SpacePiece, { kind: 'cubic' }>;

const mixed = (...terms: readonly (readonly [number, Vec3])[]): Vec3 =>
  terms.reduce<Vec3>((sum, [weight, point]) => add3(sum, scale3(point, weight)), [0, 0, 0]);

export function pointInSpace(piece: SpacePiece, t: number): Vec3 {
  const s = 1 - t;
  return piece.kind === 'line'
    ? mixed([s, piece.a], [t, piece.b])
    : mixed([s * s * s, piece.a], [3 * s * s * t, piece.b], [3 * s * t * t, piece.c], [t * t * t, piece.d]);
}

export function velocityInSpace(piece: SpacePiece, t: number): Vec3 {
  if (piece.kind === 'line') return subtract3(piece.b, piece.a);
  const s = 1 - t;
  const [ab, bc, cd] = [subtract3(piece.b, piece.a), subtract3(piece.c, piece.b), subtract3(piece.d, piece.c)];
  return mixed([3 * s * s, ab], [6 * s * t, bc], [3 * t * t, cd]);
}

export const endInSpace = (piece: SpacePiece): Vec3 => (piece.kind === 'line' ? piece.b : piece.d);
