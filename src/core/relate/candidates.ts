import {
  angleOf,
  cross,
  distance,
  dot,
  findArcThrough,
  lineAngle,
  norm,
  perpendicular,
  scale,
  signedAngle,
  subtract,
  tangentAt,
  type Vec,
} from '../geometry';
import type { Chain } from '../outline';
import { blocksOf, findElement, seen, type Element } from './element';
import type { Relatable } from './relatable';
import type { RelationEnd, RelationKind } from './relation';
import type { Solved } from './solve-relations';

/** Farther off than this it is not proposed, however badly it was pointed: radians, and shares of a radius. */
const FARTHEST_TURN = 0.06;
const FARTHEST_KINK = 0.35;
const FARTHEST_RADIUS = 0.08;
/** As a share of everything's extent. */
const FARTHEST_MIRROR = 0.02;
/** Lines that lie on one line may be off it by this share of the longer one's length. */
const FARTHEST_OFF = 0.03;

/** A segment or a circle as it lies now. */
export interface DrawnPiece {
  readonly end: RelationEnd;
  /** Ends of a line. */
  readonly ends: readonly [Vec, Vec] | undefined;
  readonly element: Element;
  /** Direction of a line, radians. */
  readonly direction: number | undefined;
  readonly radius: number | undefined;
  readonly centre: Vec | undefined;
  /** Directions in which a chain enters and leaves it, radians; absent of whole circles. */
  readonly enters: number | undefined;
  readonly leaves: number | undefined;
}

export type Candidate = readonly [RelationKind, readonly RelationEnd[]];

export function listPieces(outlines: readonly Relatable[], { known, solution }: Solved): readonly DrawnPiece[] {
  return outlines
    .filter(({ id }) => known.has(id))
    .flatMap((outline) => {
      const ends: RelationEnd[] =
        outline.shape === 'circle'
          ? [{ outline: outline.id }]
          : outline.segments.map((_, i) => ({ outline: outline.id, segment: outline.nodes[i]!.id }));
      return ends.flatMap((end): DrawnPiece[] => {
        const element = findElement(end, known);
        if (!element) return [];
        return [
          pieceOf(
            end,
            element,
            blocksOf(element).map((id) => solution.values.get(id)!),
          ),
        ];
      });
    });
}

function pieceOf(end: RelationEnd, element: Element, values: readonly (readonly number[])[]): DrawnPiece {
  const it = seen(element, values);
  const [centre, radius] = it.kind === 'round' ? [it.centre, it.radius] : [undefined, undefined];
  const [a, b, c] = values.map(([x, y]): Vec => [x!, y!]);
  const piece = element.kind === 'arc' ? findArcThrough(a!, b!, c!) : undefined;
  const direction = element.kind === 'line' ? angleOf(subtract(b!, a!)) : undefined;
  return {
    end,
    ends: element.kind === 'line' ? [a!, b!] : undefined,
    element,
    direction,
    radius,
    centre,
    enters: direction ?? (piece && angleOf(tangentAt(piece, 0))),
    leaves: direction ?? (piece && angleOf(tangentAt(piece, 1))),
  };
}

/** The smallest turn between two directions of lines, either way round. */
function between(a: number, b: number): number {
  return Math.abs(lineAngle(a - b));
}

/** A line that is nearly level or upright. */
export function listAlone({ end, direction }: DrawnPiece): Candidate[] {
  if (direction === undefined) return [];
  if (between(direction, 0) < FARTHEST_TURN) return [['level', [end]]];
  return between(direction, Math.PI / 2) < FARTHEST_TURN ? [['upright', [end]]] : [];
}

/** Tangent and square joints along a chain; what is level and upright is square by that. */
export function listJoints(
  chain: Chain,
  pieces: readonly DrawnPiece[],
  isSettled: (piece: DrawnPiece) => boolean,
): Candidate[] {
  const own = chain.segments.map((_, i) =>
    pieces.find(({ end }) => end.outline === chain.id && end.segment === chain.nodes[i]!.id),
  );
  return own.flatMap((before, i): Candidate[] => {
    const after = own[i + 1] ?? (chain.closed ? own[0] : undefined);
    if (!before || !after || before === after) return [];
    if (before.radius !== undefined || after.radius !== undefined)
      return isNearlySmooth(before, after) ? [['tangent', [before.end, after.end]]] : [];
    const isSquare = Math.abs(between(before.direction!, after.direction!) - Math.PI / 2) < FARTHEST_TURN;
    return isSquare && !(isSettled(before) && isSettled(after)) ? [['square', [before.end, after.end]]] : [];
  });
}

/** Whether two pieces meet without a kink, as far as it can be seen. Where one has no direction there it is not seen. */
function isNearlySmooth(before: DrawnPiece, after: DrawnPiece): boolean {
  return (
    before.leaves !== undefined &&
    after.enters !== undefined &&
    Math.abs(signedAngle(before.leaves - after.enters)) < FARTHEST_KINK
  );
}

/**
 * Lines that are nearly parallel, each with the longest that runs as it does, and those that lie on one line, across a gap too; round pieces of nearly one
 * size, or nearly about one centre. What is level or upright is parallel by that.
 */
export function listPairs(pieces: readonly DrawnPiece[], isSettled: (piece: DrawnPiece) => boolean): Candidate[] {
  const lines = pieces.filter(({ direction }) => direction !== undefined).sort((a, b) => lengthOf(b) - lengthOf(a));
  const rounds = pieces.filter(({ radius }) => radius !== undefined);
  return [
    ...listFamilies(lines.filter((line) => !isSettled(line))).flatMap(([first, ...others]) =>
      others.map((line): Candidate => ['parallel', [first!.end, line.end]]),
    ),
    ...pairsOf(lines).flatMap(([a, b]): Candidate[] => (isInLine(a, b) ? [['collinear', [a.end, b.end]]] : [])),
    ...pairsOf(rounds).flatMap(([a, b]): Candidate[] => [
      ...(Math.abs(a.radius! / b.radius! - 1) < FARTHEST_RADIUS ? [['equal-radius', [a.end, b.end]] as const] : []),
      ...(distance(a.centre!, b.centre!) < FARTHEST_RADIUS * Math.min(a.radius!, b.radius!)
        ? [['concentric', [a.end, b.end]] as const]
        : []),
    ]),
  ];
}

const lengthOf = ({ ends }: DrawnPiece) => (ends ? distance(...ends) : 0);

/** Lines that run alike, each family with its longest first. */
function listFamilies(lines: readonly DrawnPiece[]): DrawnPiece[][] {
  const families: DrawnPiece[][] = [];
  for (const line of lines) {
    const family = families.find(([first]) => between(first!.direction!, line.direction!) < FARTHEST_TURN);
    if (family) family.push(line);
    else families.push([line]);
  }
  return families;
}

/** Whether the shorter of two lines lies beyond an end of the longer one, and nearly on it. */
function isInLine(
  { ends: [a, b] = NOWHERE, direction }: DrawnPiece,
  { ends = NOWHERE, direction: other }: DrawnPiece,
): boolean {
  const along = subtract(b, a);
  const length = norm(along);
  const places = ends.map((end) => dot(subtract(end, a), along) / length);
  const isBeyond = places.every((place) => place >= 0.98 * length) || places.every((place) => place <= 0.02 * length);
  return (
    isBeyond &&
    between(direction!, other!) < FARTHEST_TURN &&
    ends.every((end) => Math.abs(cross(along, subtract(end, a))) < FARTHEST_OFF * length * length)
  );
}

const NOWHERE: readonly [Vec, Vec] = [
  [NaN, NaN],
  [NaN, NaN],
];

/** Places that lie about a centre line (a line kept as an aid) as mirror images do, each with the one that is nearest to its image. */
export function listMirrored(
  outlines: readonly Relatable[],
  pieces: readonly DrawnPiece[],
  { known, solution }: Solved,
): readonly Candidate[] {
  const aids = new Set(outlines.filter(({ aid }) => aid).map(({ id }) => id));
  const at = (end: RelationEnd): Vec =>
    solution.values.get(blocksOf(findElement(end, known)!)[0]!) as readonly number[] as Vec;
  const places = outlines
    .filter(({ id, aid }) => !aid && known.has(id))
    .flatMap((outline): RelationEnd[] =>
      outline.shape === 'circle'
        ? [{ outline: outline.id }]
        : outline.nodes.map(({ id }) => ({ outline: outline.id, node: id })),
    );
  const standing = places.map((end) => ({ end, at: at(end) }));
  const extent = Math.max(
    0,
    ...standing.flatMap(({ at: [x, y] }) =>
      standing.map(({ at: [u, v] }) => Math.max(Math.abs(x - u), Math.abs(y - v))),
    ),
  );
  return pieces
    .filter(({ end, element }) => aids.has(end.outline) && element.kind === 'line')
    .flatMap(({ end: axis, element }): Candidate[] => {
      const line = blocksOf(element).map((id) => solution.values.get(id) as readonly number[] as Vec) as [Vec, Vec];
      return listImages(standing, line, FARTHEST_MIRROR * extent).map(([one, other]) => [
        'symmetric',
        [one.end, other.end, axis],
      ]);
    });
}

interface Standing {
  readonly end: RelationEnd;
  readonly at: Vec;
}

/** Places of one kind on both sides of a line, farther off than `reach`, each the nearest to the other's mirror image and within `reach` of it. */
function listImages(standing: readonly Standing[], [a, b]: readonly [Vec, Vec], reach: number) {
  const side = (place: Vec) => cross(subtract(b, a), subtract(place, a)) / distance(a, b);
  const image = (place: Vec): Vec =>
    subtract(place, scale(perpendicular(subtract(b, a)), (2 * side(place)) / distance(a, b)));
  const near = (place: Vec, others: readonly Standing[]) =>
    others.reduce<Standing | undefined>(
      (best, other) => (!best || distance(other.at, place) < distance(best.at, place) ? other : best),
      undefined,
    );
  const left = standing.filter((place) => side(place.at) > reach);
  const right = standing.filter((place) => side(place.at) < -reach);
  return left.flatMap((place): (readonly [Standing, Standing])[] => {
    const other = near(image(place.at), right);
    return other &&
      near(image(other.at), left) === place &&
      distance(other.at, image(place.at)) < reach &&
      (other.end.node === undefined) === (place.end.node === undefined)
      ? [[place, other]]
      : [];
  });
}

function pairsOf<T>(list: readonly T[]): (readonly [T, T])[] {
  return list.flatMap((a, i) => list.slice(i + 1).map((b) => [a, b] as const));
}
