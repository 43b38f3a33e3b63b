import type { Measured } from '../adjust';
import {
  add,
  angleOf,
  distance,
  findUnion,
  lineAngle,
  moved,
  pieceBounds,
  placed,
  pieceLength,
  polar,
  subtract,
  type Piece,
  type Vec,
} from '../geometry';
import type { Outline, Shape } from '../outline';
import { measureShapes, type Figured } from './figures';
import type { FittedView } from './fits';

/** How wide and high outlines are together: level and upright, and along their own longest edge where that lies askew. mm, one sigma each. */
export interface Extent {
  readonly width: Measured;
  readonly height: Measured;
  readonly own: { readonly angle: number; readonly along: Measured; readonly across: Measured } | undefined;
}

/** An edge that runs nearer than this to level or upright lies in the file's own axes; one farther off than the other is no part that lies askew. Radians. */
const STRAIGHT = 1e-4;
const ASKEW = Math.PI / 4;
/** More outlines than this are not measured each time something changes: their plus-minus takes as long as each of their points. */
const MOST = 60;

/** What lies between the outermost copies reaches no farther and runs no other way. */
const OUTERMOST = { copies: 'outermost' } as const;

/** Undefined where nothing is drawn, or too much to be measured at once. */
export function measureExtent(
  outlines: readonly Outline[],
  figured: Figured,
  shapes: ReadonlyMap<string, Shape>,
): Extent | undefined {
  const drawn = outlines.flatMap(({ id }) => shapes.get(id)?.finished ?? []);
  if (drawn.length === 0 || outlines.length > MOST) return undefined;
  const side = (angle: number, axis: 0 | 1) =>
    measureShapes(
      outlines,
      figured,
      (varied) =>
        spanOf(
          [...varied.values()].flatMap(({ finished }) => finished),
          angle,
          axis,
        ),
      OUTERMOST,
    );
  const angle = slopeOfLongest(drawn);
  const lies = angle !== undefined && Math.abs(angle) > STRAIGHT && Math.abs(angle) < ASKEW;
  return {
    width: side(0, 0),
    height: side(0, 1),
    own: lies ? { angle, along: side(angle, 0), across: side(angle, 1) } : undefined,
  };
}

/** By how much an edge has to run off level, in its own sigmas, to be called askew. */
const SURELY = 3;

/** How the longest straight edge of outlines runs off level or upright, whichever is nearer, where that is more than pointing explains; undefined where it does not, or nothing is straight. Radians, one sigma. */
export function findAskew(
  outlines: readonly Outline[],
  figured: Figured,
  shapes: ReadonlyMap<string, Shape>,
): Measured | undefined {
  const pieces = outlines.flatMap(({ id }) => shapes.get(id)?.pieces ?? []);
  if (outlines.length > MOST || slopeOfLongest(pieces) === undefined) return undefined;
  const askew = measureShapes(
    outlines,
    figured,
    (varied) => slopeOfLongest([...varied.values()].flatMap((shape) => shape.pieces)) ?? NaN,
    OUTERMOST,
  );
  return Math.abs(askew.value) > Math.max(STRAIGHT, SURELY * askew.sigma) ? askew : undefined;
}

/** The datum of a view whose level runs by an angle (radians) off what it is now: its zero stays. */
export function datumTurned(
  { view: { datum }, fit }: Pick<FittedView, 'view' | 'fit'>,
  angle: number,
): { readonly origin: Vec; readonly direction: number } {
  const zero = fit.toPlane(datum.origin);
  const pixel = distance(zero, fit.toPlane([datum.origin[0] + 1, datum.origin[1]]));
  const along = fit.toSheet(add(zero, polar(100 * pixel, angle)));
  return { origin: datum.origin, direction: angleOf(subtract(along, datum.origin)) };
}

/** How far pieces reach along or across a direction. */
function spanOf(pieces: readonly Piece[], angle: number, axis: 0 | 1): number {
  const turn = placed([0, 0], -angle);
  const box = findUnion(pieces.map((piece) => pieceBounds(moved(piece, turn))));
  return box ? box.max[axis] - box.min[axis] : NaN;
}

/** How the longest straight edge runs, against level or upright, whichever is nearer; undefined without one. Radians. */
function slopeOfLongest(pieces: readonly Piece[]): number | undefined {
  const lines = pieces.flatMap((piece) => (piece.kind === 'line' ? [piece] : []));
  if (lines.length === 0) return undefined;
  const { a, b } = lines.reduce((longest, line) => (pieceLength(line) > pieceLength(longest) ? line : longest));
  const slope = lineAngle(angleOf(subtract(b, a)));
  return slope - (Math.PI / 2) * Math.round(slope / (Math.PI / 2));
}
