import type { Measured } from '../adjust';
import { done, refused, type Result } from '../basics';
import { findUnion, moved, pieceBounds, type Affine } from '../geometry';
import type { Job } from '../job';
import { endsOfSegment, type MadeOutline, type Opening, type Outline, type Shape } from '../outline';
import { cross3, dot3, normalOf, scale3, subtract3, toSpace, type Pose, type Vec3 } from '../space';
import type { Derived } from './derived';
import { measureEachOfShapes } from './figures';
import { poseOnLayer } from './levels';
import { placedUnder } from './on-edges';
import { listStanding } from './on-sites';

/** How an opening of a wall stands in its plan, as another view shows it. mm */
export type OpeningStands = Pick<Opening, 'corner' | 'way' | 'distance' | 'width' | 'sill' | 'head'>;

export interface OpeningRead {
  /** The wall in the plan, the node at which its stretch there ends, and how long that is, mm. */
  readonly wall: string;
  readonly last: string;
  readonly length: number;
  readonly stands: OpeningStands;
}

/** By how much an opening of the plan stands otherwise than it was read now: the farthest that any of its sides is off, mm. Without end where it is in another wall, or in another stretch of it. */
export function offFromRead(
  opening: Opening,
  wall: string,
  { wall: readIn, last, length, stands }: OpeningRead,
): number {
  const isOn = opening.corner === stands.corner && opening.way === 'on';
  const isBack = opening.corner === last && opening.way === 'back';
  if (wall !== readIn || (!isOn && !isBack)) return Infinity;
  const left = isOn ? opening.distance : length - opening.distance - opening.width;
  const { sill = 0, head } = stands;
  return Math.max(
    Math.abs(left - stands.distance),
    Math.abs(left + opening.width - stands.distance - stands.width),
    Math.abs((opening.sill ?? 0) - sill),
    head === undefined ? 0 : Math.abs((opening.head ?? head) - head),
  );
}

/** An opening as it was read now; what it is called and filled with stays. */
export function asRead({ id, name, fill, read }: Opening, { stands }: OpeningRead): Opening {
  return {
    id,
    ...stands,
    ...(name === undefined ? {} : { name }),
    ...(fill ? { fill } : {}),
    ...(read === undefined ? {} : { read }),
  };
}

type Reading = { readonly job: Job; readonly derived: Derived };

const UP: Vec3 = [0, 0, 1];
/** A view that leans by more shows no wall, and a wall that runs by more aside of it is another one. Sine of the angle. */
const ASKEW = 0.06;
/** An opening may reach so far beyond the end of its wall's line: what pointing leaves. mm */
const BEYOND = 30;
/** What begins no higher above the floor begins at it. mm */
const THRESHOLD = 30;
/** Narrower or lower nothing is an opening. mm */
const LEAST = 1;
/** What takes up more of a wall is the wall itself, or what stands before it. Share of its length. */
const WIDEST = 0.9;

/**
 * An outline that is drawn in an elevation, as an opening of the wall that is met first there, in whichever plan stands under it: how far from the corner where the wall's line begins, how wide, and from where to where above the floor, which is the level of
 * the wall's layer. By its outermost places. Refused: its view does not stand upright, it is not closed, or no straight wall lies behind all of it that is clearly wider. Weak: one that is not a rectangle is taken as the one around it.
 */
export function readOpening(outline: Outline, { job, derived }: Reading): Result<OpeningRead> {
  const pose = poseOf(outline.plane, { job, derived });
  if (!pose || Math.abs(dot3(normalOf(pose), UP)) > ASKEW) return refused('opening-not-upright');
  const out = normalOf(pose);
  const along = unit(cross3(UP, out));
  const seen = boundsIn(pose, along, derived.shapes.get(outline.id));
  const isOpen = outline.shape === 'chain' && !outline.closed;
  if (isOpen || !seen || seen.high - seen.low < LEAST || seen.to - seen.from < LEAST) return refused('opening-empty');
  const walls = job.outlines
    .filter((wall): wall is MadeOutline => wall.shape === 'made' && wall.plane !== outline.plane)
    .flatMap((wall) => listSegments(wall, { job, derived }))
    .flatMap((segment) => standsBehind(segment, { pose, along, out }, seen) ?? []);
  const first = walls.sort((a, b) => b.near - a.near)[0];
  if (!first) return refused('opening-no-wall');
  const { near: _near, ...read } = first;
  return done(read);
}

/** How wide an outline of an elevation is, seen level, and where it begins and ends in height, each with its plus-minus; undefined where its view does not stand. How high that itself stands is taken as it is. mm, one sigma. */
export function sizesRead(
  outline: Outline,
  { job, derived }: Reading,
): Readonly<Record<'width' | 'low' | 'high', Measured>> | undefined {
  const pose = poseOf(outline.plane, { job, derived });
  if (!pose) return undefined;
  const along = unit(cross3(UP, normalOf(pose)));
  const [width, low, high] = measureEachOfShapes([outline], { job, derived }, (shapes) => {
    const seen = boundsIn(pose, along, shapes.get(outline.id));
    return seen ? ([seen.to - seen.from, seen.low, seen.high] as const) : ([NaN, NaN, NaN] as const);
  });
  return { width, low, high };
}

/** Where the plane of a view stands, by whichever view shows it. */
const poseOf = (plane: string, { job, derived }: Reading): Pose | undefined =>
  listStanding(job, derived).find(({ view }) => derived.views.get(view)?.view.plane === plane)?.pose;

const unit = (vector: Vec3): Vec3 => scale3(vector, 1 / Math.hypot(...vector));

/** From where to where along a direction from the zero of a plane, and how high in space. mm */
interface Seen {
  readonly from: number;
  readonly to: number;
  readonly low: number;
  readonly high: number;
}

function boundsIn(pose: Pose, along: Vec3, shape: Shape | undefined): Seen | undefined {
  const [x, y] = [pose.x, pose.y].map((axis) => [dot3(axis, along), dot3(axis, UP)] as const) as [
    readonly [number, number],
    readonly [number, number],
  ];
  const upright: Affine = [...x, ...y, 0, pose.origin[2]];
  const box = findUnion(
    (shape?.paths ?? []).flatMap(({ pieces }) => pieces.map((piece) => pieceBounds(moved(piece, upright)))),
  );
  return box && { from: box.min[0], to: box.max[0], low: box.min[1], high: box.max[1] };
}

/** A straight stretch of a wall's line, in space. */
interface WallSegment {
  readonly wall: string;
  /** The node at which it begins. */
  readonly corner: string;
  readonly last: string;
  readonly ends: readonly [Vec3, Vec3];
}

function listSegments(wall: MadeOutline, { job, derived }: Reading): readonly WallSegment[] {
  const placed = wall.recipe.kind === 'strip' ? placedUnder(wall.plane, { job, derived }) : undefined;
  if (!placed) return [];
  const layer = job.layers.find(({ id }) => id === wall.layer) ?? {};
  const pose = poseOnLayer(placed, layer, derived.arranged);
  return wall.recipe.of.flatMap((id) => {
    const line = job.outlines.find((outline) => outline.id === id);
    if (line?.shape !== 'chain') return [];
    return (derived.shapes.get(id)?.pieces ?? []).flatMap((piece, i): readonly WallSegment[] => {
      const nodes = endsOfSegment(line, i);
      if (piece.kind !== 'line' || !nodes) return [];
      return [
        {
          wall: wall.id,
          corner: nodes[0].id,
          last: nodes[1].id,
          ends: [toSpace(pose, piece.a), toSpace(pose, piece.b)],
        },
      ];
    });
  });
}

interface Looking {
  readonly pose: Pose;
  readonly along: Vec3;
  readonly out: Vec3;
}

/** How an opening stands in a wall that runs along the view and lies behind all of it, and how near to who looks that is. */
function standsBehind({ wall, corner, last, ends }: WallSegment, { pose, along, out }: Looking, seen: Seen) {
  const [a, b] = ends.map((end) => subtract3(end, pose.origin)) as [Vec3, Vec3];
  const [from, to] = [dot3(a, along), dot3(b, along)];
  const length = Math.hypot(...subtract3(b, a));
  const aside = Math.abs(dot3(subtract3(b, a), out));
  const reaches = Math.min(from, to) - BEYOND <= seen.from && seen.to <= Math.max(from, to) + BEYOND;
  if (aside > ASKEW * length || !reaches || seen.to - seen.from > WIDEST * length) return undefined;
  const floor = ends[0][2];
  const sill = seen.low - floor;
  const stands: OpeningStands = {
    corner,
    way: 'on',
    distance: Math.max(0, from < to ? seen.from - from : from - seen.to),
    width: seen.to - seen.from,
    ...(sill > THRESHOLD ? { sill } : {}),
    ...(seen.high > floor ? { head: seen.high - floor } : {}),
  };
  return { wall, last, length, stands, near: Math.max(dot3(a, out), dot3(b, out)) };
}
