import {
  add,
  cross,
  distance,
  dot,
  findDirection,
  norm,
  pointAt,
  scale,
  subtract,
  type Piece,
  type Vec,
} from '../geometry';

/** An arc up to here lies within its ends and where their tangents meet, and that not far off. Radians. */
const MOST_SWEEP = 2.5;
/** Places that hold a piece have to lie apart from the other by so much of how far they reach: then what of it comes near the joint is the joint. */
const CLEARLY = 0.05;

/** Ends that two pieces share, as parameters of both: 0 or 1. */
type Meeting = readonly [number, number];

/**
 * What two pieces share, where a line that parts them tells: one end, or nothing. Undefined where they may share more: then it has to be looked for. The line is sought through the joint, or along the chord of either; it parts them
 * if it parts what holds them: a cubic lies within its control points, and an arc within its ends and the crossing of its tangents.
 */
export function findMeetings(a: Piece, b: Piece, tolerance: number): readonly Meeting[] | undefined {
  const [holdsA, holdsB] = [listHolding(a), listHolding(b)];
  if (!holdsA || !holdsB) return undefined;
  // Two that share both ends are parted by no line.
  const meeting = ENDS.find(([ta, tb]) => distance(endAt(holdsA, ta), endAt(holdsB, tb)) <= tolerance);
  if (!meeting) return isApart(holdsA, holdsB, tolerance) || isApart(holdsB, holdsA, tolerance) ? [] : undefined;
  const [from, to] = [
    meeting[0] === 1 ? holdsA : [...holdsA].reverse(),
    meeting[1] === 0 ? holdsB : [...holdsB].reverse(),
  ];
  return isParted(from, to, tolerance) ? [meeting] : undefined;
}

/** Whether a line along the chord of the first parts the two. */
function isApart(first: readonly Vec[], second: readonly Vec[], tolerance: number): boolean {
  const [start, end] = [first[0]!, first[first.length - 1]!];
  const chord = subtract(end, start);
  const beside = (places: readonly Vec[]) => places.map((place) => cross(chord, subtract(place, start)));
  const [here, there] = [beside(first), beside(second)];
  const gap = Math.max(Math.min(...there) - Math.max(...here), Math.min(...here) - Math.max(...there));
  return gap > SURELY * tolerance * norm(chord);
}

/** So many tolerances apart, nothing is one place by rounding. */
const SURELY = 100;

const ENDS = [
  [1, 0],
  [0, 1],
  [0, 0],
  [1, 1],
] as const;

const endAt = (holding: readonly Vec[], t: 0 | 1): Vec => (t === 0 ? holding[0]! : holding[holding.length - 1]!);

/** Places from one end to the other between which a piece lies; undefined where there are none as few. */
function listHolding(piece: Piece): readonly Vec[] | undefined {
  if (piece.kind === 'line') return [piece.a, piece.b];
  if (piece.kind === 'cubic') return [piece.a, piece.b, piece.c, piece.d];
  if (piece.kind !== 'arc' || Math.abs(piece.sweep) > MOST_SWEEP) return undefined;
  const middle = pointAt(piece, 0.5);
  const reach = 1 / Math.cos(piece.sweep / 2);
  return [pointAt(piece, 0), add(piece.centre, scale(subtract(middle, piece.centre), reach)), pointAt(piece, 1)];
}

/** Whether a line through where the first ends and the second begins parts the two. */
function isParted(from: readonly Vec[], to: readonly Vec[], tolerance: number): boolean {
  const joint = to[0]!;
  const [arrives, leaves] = [
    findDirection(subtract(joint, from[from.length - 2]!)),
    findDirection(subtract(to[1]!, joint)),
  ];
  const across = arrives && leaves && findDirection(add(arrives, leaves));
  return (
    across !== undefined &&
    isBeyond(from.slice(0, -1), joint, scale(across, -1), tolerance) &&
    isBeyond(to.slice(1), joint, across, tolerance)
  );
}

function isBeyond(places: readonly Vec[], joint: Vec, across: Vec, tolerance: number): boolean {
  return places.every((place) => {
    const away = subtract(place, joint);
    const ahead = dot(away, across);
    return ahead > SURELY * tolerance && ahead > CLEARLY * distance(place, joint);
  });
}
