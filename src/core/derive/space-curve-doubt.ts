import { measureEachBy, type Measured } from '../adjust';
import type { Adjustment } from '../calibrate';
import type { DrawnSpaceCurve, Job } from '../job';
import { add3, cross3, distance3, dot3, scale3, velocityInSpace, type SpacePiece, type Vec3 } from '../space';
import type { Derived } from './derived';
import { pointedAlone } from './figures';
import { causesOfStands, shiftsUnder, type OtherwiseInSpace } from './moved-in-space';
import { curveSideOf, type CurveSide } from './space-curves';
import { samplesOf, type Sample } from './space-curve-samples';

/** How surely a curve in space is known. mm, object frame; one sigma. */
export interface CurveDoubt {
  readonly length: Measured;
  /** At places along it, from its beginning to its end, how far off it may lie across, deep and up. Along itself only ends can be off. */
  readonly along: readonly { readonly at: Vec3; readonly sigma: Vec3 }[];
}

/**
 * The plus-minus of a curve in space and of its length: every independent cause moves the two outlines in their views, each view's map and stand among the others included, and the curve with them to where the two walls that stand on
 * them still meet. First order. Undefined where a view does not stand, or an outline comes to be of other pieces. Weak: where both outlines run square to what the views share, the walls touch, and it comes out too small; sizes that are said on
 * an outline do not make its view's map surer here.
 */
export function doubtOfCurve(
  drawn: DrawnSpaceCurve,
  job: Pick<Job, 'outlines' | 'guides' | 'sitings' | 'features'>,
  derived: Derived,
): CurveDoubt | undefined {
  const made = derived.spaceCurve(drawn.id);
  const [first, second] = drawn.of.map((id) => sideAmong(id, job, derived));
  if (!made?.ok || !first || !second) return undefined;
  const both: readonly [CurveSide, CurveSide] = [first.side, second.side];
  const among: readonly [Adjustment, Adjustment] = [first.among, second.among];
  const samples = samplesOf(made.value.pieces, made.value.closed, both);
  const outlines = drawn.of.flatMap((id) => job.outlines.find((outline) => outline.id === id) ?? []);
  const pointed = pointedAlone(outlines, { job, derived });
  const asPointed = pointed.shapesAt({});
  const figures = (otherwise: OtherwiseInSpace) => {
    const shift = shiftsUnder(otherwise, asPointed, pointed.shapesAt(otherwise));
    const shiftIn = (which: 0 | 1, seen: Sample['seen'][0]) =>
      shift({ ...seen, outline: drawn.of[which], path: 0, standing: both[which].standing, among: among[which] });
    const places = samples.map((sample) =>
      add3(
        sample.at,
        shiftOf(sample, (which) => shiftIn(which, sample.seen[which])),
      ),
    );
    return [lengthThrough(places), ...places.flat()];
  };
  const [length, ...coordinates] = measureEachBy<OtherwiseInSpace, readonly number[]>(figures, {}, [
    ...pointed.causes,
    ...causesOfStands(among),
  ]);
  return {
    length: { value: lengthOfAll(made.value.pieces), sigma: length!.sigma },
    along: samples.map(({ at }, i) => ({
      at,
      sigma: coordinates.slice(3 * i, 3 * i + 3).map(({ sigma }) => sigma) as unknown as Vec3,
    })),
  };
}

/** An outline of a curve in its view, and what that came to among the others. */
function sideAmong(
  id: string,
  job: Parameters<typeof doubtOfCurve>[1],
  derived: Derived,
): { readonly side: CurveSide; readonly among: Adjustment } | undefined {
  const side = curveSideOf(id, { job, derived });
  const among = side.ok ? derived.arranged.among(side.value.standing.view) : undefined;
  return side.ok && among ? { side: side.value, among } : undefined;
}

/** By how much a place of the curve moves: onto both moved walls, and along itself only where an outline ends. */
function shiftOf({ towards, seen, ends }: Sample, shift: (which: 0 | 1) => Vec3): Vec3 {
  const moves = [shift(0), shift(1)] as const;
  const rest = ends === undefined ? 0 : dot3(towards, moves[ends]);
  return meeting(
    [seen[0].normal, seen[1].normal, towards],
    [dot3(seen[0].normal, moves[0]), dot3(seen[1].normal, moves[1]), rest],
  );
}

/** Walls that all but touch leave the place along them open: so little of a unit holds it where it is. */
const HELD = 1e-6;

/** The least displacement that goes so far along three directions (the normal equations, held a little: Tikhonov, 1963). */
function meeting(rows: readonly [Vec3, Vec3, Vec3], right: readonly [number, number, number]): Vec3 {
  const column = (i: 0 | 1 | 2): Vec3 => rows.reduce<Vec3>((sum, row) => add3(sum, scale3(row, row[i])), [0, 0, 0]);
  const [a, b, c] = ([0, 1, 2] as const).map((i) =>
    add3(column(i), scale3([Number(i === 0), Number(i === 1), Number(i === 2)], HELD)),
  ) as [Vec3, Vec3, Vec3];
  const d = rows.reduce<Vec3>((sum, row, i) => add3(sum, scale3(row, right[i]!)), [0, 0, 0]);
  const whole = dot3(a, cross3(b, c));
  return [dot3(d, cross3(b, c)) / whole, dot3(a, cross3(d, c)) / whole, dot3(a, cross3(b, d)) / whole];
}

const lengthThrough = (places: readonly Vec3[]): number =>
  places.slice(1).reduce((sum, place, i) => sum + distance3(place, places[i]!), 0);

const CHORDS = 64;

/** Length along pieces, by the speed at the middles of many parts. mm */
function lengthOfAll(pieces: readonly SpacePiece[]): number {
  const lengthOf = (piece: SpacePiece) =>
    piece.kind === 'line'
      ? distance3(piece.a, piece.b)
      : Array.from({ length: CHORDS }, (_, i) => Math.hypot(...velocityInSpace(piece, (i + 0.5) / CHORDS))).reduce(
          (sum, speed) => sum + speed / CHORDS,
          0,
        );
  return pieces.reduce((sum, piece) => sum + lengthOf(piece), 0);
}
