import type { Vec } from '../../geometry';

/**
 * A place pointed at on the sheet. Pixels; `sigma` is one sigma of each coordinate, or along the picture's edge when the place lies on
 * one: then `edge` has the direction of its normal (radians, clockwise on the screen) and one sigma across it. `height` above the plane, mm; `traced` is the height of what
 * is traced, whatever that turns out to be.
 */
export interface SheetPoint {
  readonly at: Vec;
  readonly sigma: number;
  readonly edge?: { readonly normal: number; readonly sigma: number } | undefined;
  readonly height?: number | 'traced' | undefined;
}

/** How high a place lies, when what is traced lies at `traced`. mm. */
export function heightOf({ height = 0 }: SheetPoint, traced: number): number {
  return height === 'traced' ? traced : height;
}

/** Two points that a line runs through, by name. */
export type LineEnds = readonly [string, string];

interface Piece {
  readonly id: string;
  /** Compared with the fit and never used in it. */
  readonly check?: boolean | undefined;
}

/** A stated size with its one sigma, mm. */
interface Sized {
  readonly sigma: number;
}

/** One thing that is known. Points are named and shared: the same name in two pieces is one place. mm; angles in degrees. */
export type Observation =
  | (Piece & Sized & { readonly kind: 'length'; readonly from: string; readonly to: string; readonly mm: number })
  | (Piece & { readonly kind: 'equal'; readonly lines: readonly LineEnds[]; readonly sigma?: number | undefined })
  | (Piece &
      Sized & {
        readonly kind: 'circle';
        readonly through: readonly string[];
        readonly diameterMm?: number | undefined;
      })
  | (Piece &
      Sized & {
        readonly kind: 'rectangle';
        /** Around; width is from corner 1 to 2. */
        readonly corners?: readonly string[] | undefined;
        /** Points on each of the four sides, around, two or more on one of them at least; width is the length of side 1. */
        readonly sides?: readonly (readonly string[])[] | undefined;
        readonly widthMm?: number | undefined;
        readonly heightMm?: number | undefined;
        /** Width over height, exact; for a thing whose proportion alone is known. */
        readonly proportion?: number | undefined;
      })
  | (Piece & {
      readonly kind: 'parallel' | 'square';
      readonly lines: readonly LineEnds[];
      readonly sigmaDegrees?: number | undefined;
    })
  | (Piece & {
      readonly kind: 'angle';
      readonly lines: readonly LineEnds[];
      readonly degrees: number;
      readonly sigmaDegrees?: number | undefined;
    })
  | (Piece & {
      readonly kind: 'level';
      readonly line: LineEnds;
      readonly degrees: number;
      readonly sigmaDegrees?: number | undefined;
      /** Whether it runs from its first place to its second, so that upside down is not level; else either way. */
      readonly isDirected?: boolean | undefined;
    })
  | (Piece & { readonly kind: 'straight'; readonly through: readonly string[]; readonly sigma?: number | undefined })
  | (Piece & {
      readonly kind: 'known-point';
      readonly point: string;
      readonly mm: Vec;
      readonly sigma?: number | undefined;
    });

export type ObservationKind = Observation['kind'];
export type ObservationOf<Kind extends ObservationKind> = Extract<Observation, { readonly kind: Kind }>;

/** Names of the points a piece stands on, each once. */
export function pointsOf(piece: Observation): readonly string[] {
  return [...new Set(namesIn(piece))];
}

function namesIn(piece: Observation): readonly string[] {
  switch (piece.kind) {
    case 'length':
      return [piece.from, piece.to];
    case 'circle':
    case 'straight':
      return piece.through;
    case 'rectangle':
      return piece.corners ?? piece.sides?.flat() ?? [];
    case 'level':
      return piece.line;
    case 'known-point':
      return [piece.point];
    default:
      return piece.lines.flat();
  }
}
