import { propagateMany } from '../adjust';
import { angleOf, cross, distance, findArcThrough, lineAngle, perpendicular, scale, signedAngle, subtract, tangentAt, type Vec } from '../geometry';
import type { Chain } from '../outline';
import type { Relatable } from './relatable';
import { blocksOf, findElement, seen, type Element } from './element';
import { missesOf } from './problem';
import { listGroups } from './groups';
import type { RelatingPlane } from './plane';
import type { Relation, RelationEnd, RelationKind } from './relation';
import { solveAll, type Solved } from './solve-relations';
import { spreadOf } from './spread';

/** Something that may be meant to be true. */
export interface Proposal {
  readonly kind: RelationKind;
  readonly on: readonly RelationEnd[];
  /** What it misses by now, mm, and one sigma of that. */
  readonly miss: number;
  readonly sigma: number;
}

/** Within what can be pointed: so many sigmas. */
const WITHIN = 2.5;
/** Farther off than this it is not proposed, however badly it was pointed: radians, and shares of a radius. */
const FARTHEST_TURN = 0.06;
const FARTHEST_KINK = 0.2;
const FARTHEST_RADIUS = 0.08;
/** As a share of everything's extent. */
const FARTHEST_MIRROR = 0.02;
/** What is missed by less than this share of its own sigma follows from what holds already. */
const IMPLIED = 1e-4;

const MANY = 100;

interface Piece {
  readonly end: RelationEnd;
  readonly element: Element;
  /** Direction of a line, radians. */
  readonly direction: number | undefined;
  readonly radius: number | undefined;
  readonly centre: Vec | undefined;
  /** Directions in which a chain enters and leaves it, radians; absent of whole circles. */
  readonly enters: number | undefined;
  readonly leaves: number | undefined;
}

/**
 * What may be meant to be true among outlines, beside what already is: lines level or upright, joints tangent or square, lines parallel,
 * circles of one size or about one centre, places that are mirror images about a centre line. A thing is proposed when it misses by no more than pointing allows, by the covariance of
 * the outlines as they are. Nothing that already follows is proposed. With more than a hundred places, pairs are sought only among
 * outlines that hang together already: all at once would take seconds.
 */
export function listProposals(outlines: readonly Relatable[], held: readonly Relation[], plane: RelatingPlane): readonly Proposal[] {
  const places = outlines.reduce((sum, outline) => sum + (outline.shape === 'chain' ? outline.nodes.length : 2), 0);
  if (places <= MANY) return proposalsIn(outlines, held, plane);
  return listGroups(outlines, held).flatMap((group) => proposalsIn(group.outlines, group.relations, plane));
}

function proposalsIn(outlines: readonly Relatable[], held: readonly Relation[], plane: RelatingPlane): readonly Proposal[] {
  const solved = solveAll(outlines, held, plane);
  const spread = spreadOf(solved, outlines, plane);
  if (!spread) return [];
  const pieces = listPieces(outlines, solved);
  const candidates = [...pieces.flatMap(listAlone), ...outlines.flatMap((outline) => (outline.shape === 'chain' ? listJoints(outline, pieces) : [])), ...listPairs(pieces), ...listMirrored(outlines, pieces, solved)];
  return candidates.flatMap(([kind, on]): Proposal[] => {
    const elements = on.map((end) => findElement(end, solved.known)!);
    const live = { relation: { id: '', view: '', kind, on }, on: elements };
    const misses = (x: readonly number[]) => {
      const values = spread.valuesFrom(x);
      return missesOf(live, elements.flatMap(blocksOf).map((id) => values.get(id)!));
    };
    const now = misses(spread.x);
    const covariance = propagateMany(misses, spread.x, spread.matrix);
    const ratios = now.map((miss, i) => ({ miss: Math.abs(miss), sigma: Math.sqrt(Math.max(0, covariance.get(i, i))) }));
    const worst = ratios.reduce((a, b) => (b.miss * a.sigma > a.miss * b.sigma ? b : a));
    const follows = ratios.every(({ miss, sigma }) => sigma < 1e-9 || miss < IMPLIED * sigma);
    return !follows && ratios.every(({ miss, sigma }) => miss <= WITHIN * sigma) ? [{ kind, on, ...worst }] : [];
  });
}

type Candidate = readonly [RelationKind, readonly RelationEnd[]];

function listPieces(outlines: readonly Relatable[], { known, solution }: Solved): readonly Piece[] {
  return outlines.filter(({ id }) => known.has(id)).flatMap((outline) => {
    const ends: RelationEnd[] = outline.shape === 'circle' ? [{ outline: outline.id }] : outline.segments.map((_, i) => ({ outline: outline.id, segment: outline.nodes[i]!.id }));
    return ends.flatMap((end): Piece[] => {
      const element = findElement(end, known);
      if (!element) return [];
      return [pieceOf(end, element, blocksOf(element).map((id) => solution.values.get(id)!))];
    });
  });
}

function pieceOf(end: RelationEnd, element: Element, values: readonly (readonly number[])[]): Piece {
  const it = seen(element, values);
  const [centre, radius] = it.kind === 'round' ? [it.centre, it.radius] : [undefined, undefined];
  const [a, b, c] = values.map(([x, y]): Vec => [x!, y!]);
  const piece = element.kind === 'arc' ? findArcThrough(a!, b!, c!) : undefined;
  const direction = element.kind === 'line' ? angleOf(subtract(b!, a!)) : undefined;
  return { end, element, direction, radius, centre, enters: direction ?? (piece && angleOf(tangentAt(piece, 0))), leaves: direction ?? (piece && angleOf(tangentAt(piece, 1))) };
}

/** The smallest turn between two directions of lines, either way round. */
function between(a: number, b: number): number {
  return Math.abs(lineAngle(a - b));
}

function listAlone({ end, direction }: Piece): Candidate[] {
  if (direction === undefined) return [];
  if (between(direction, 0) < FARTHEST_TURN) return [['level', [end]]];
  return between(direction, Math.PI / 2) < FARTHEST_TURN ? [['upright', [end]]] : [];
}

/** Tangent and square joints along a chain. */
function listJoints(chain: Chain, pieces: readonly Piece[]): Candidate[] {
  const own = chain.segments.map((_, i) => pieces.find(({ end }) => end.outline === chain.id && end.segment === chain.nodes[i]!.id));
  return own.flatMap((before, i): Candidate[] => {
    const after = own[i + 1] ?? (chain.closed ? own[0] : undefined);
    if (!before || !after || before === after) return [];
    if (before.radius !== undefined || after.radius !== undefined) return isNearlySmooth(before, after) ? [['tangent', [before.end, after.end]]] : [];
    const isLevelled = [before, after].every(({ direction }) => between(direction!, 0) < FARTHEST_TURN || between(direction!, Math.PI / 2) < FARTHEST_TURN);
    return !isLevelled && Math.abs(between(before.direction!, after.direction!) - Math.PI / 2) < FARTHEST_TURN ? [['square', [before.end, after.end]]] : [];
  });
}

/** Whether two pieces meet without a kink, as far as it can be seen. Where one has no direction there it is not seen. */
function isNearlySmooth(before: Piece, after: Piece): boolean {
  return before.leaves !== undefined && after.enters !== undefined && Math.abs(signedAngle(before.leaves - after.enters)) < FARTHEST_KINK;
}

/** Lines that are nearly parallel and neither level nor upright; round pieces of nearly one size, or nearly about one centre. */
function listPairs(pieces: readonly Piece[]): Candidate[] {
  const lines = pieces.filter(({ direction }) => direction !== undefined && between(direction, 0) >= FARTHEST_TURN && between(direction, Math.PI / 2) >= FARTHEST_TURN);
  const rounds = pieces.filter(({ radius }) => radius !== undefined);
  return [
    ...pairsOf(lines).flatMap(([a, b]): Candidate[] => (between(a.direction!, b.direction!) < FARTHEST_TURN ? [['parallel', [a.end, b.end]]] : [])),
    ...pairsOf(rounds).flatMap(([a, b]): Candidate[] => [
      ...(Math.abs(a.radius! / b.radius! - 1) < FARTHEST_RADIUS ? [['equal-radius', [a.end, b.end]] as const] : []),
      ...(distance(a.centre!, b.centre!) < FARTHEST_RADIUS * Math.min(a.radius!, b.radius!) ? [['concentric', [a.end, b.end]] as const] : []),
    ]),
  ];
}

/** Places that lie about a centre line (a line kept as an aid) as mirror images do, each with the one that is nearest to its image. */
function listMirrored(outlines: readonly Relatable[], pieces: readonly Piece[], { known, solution }: Solved): readonly Candidate[] {
  const aids = new Set(outlines.filter(({ aid }) => aid).map(({ id }) => id));
  const at = (end: RelationEnd): Vec => solution.values.get(blocksOf(findElement(end, known)!)[0]!) as readonly number[] as Vec;
  const places = outlines.filter(({ id, aid }) => !aid && known.has(id)).flatMap((outline): RelationEnd[] =>
    (outline.shape === 'circle' ? [{ outline: outline.id }] : outline.nodes.map(({ id }) => ({ outline: outline.id, node: id }))));
  const standing = places.map((end) => ({ end, at: at(end) }));
  const extent = Math.max(0, ...standing.flatMap(({ at: [x, y] }) => standing.map(({ at: [u, v] }) => Math.max(Math.abs(x - u), Math.abs(y - v)))));
  return pieces.filter(({ end, element }) => aids.has(end.outline) && element.kind === 'line').flatMap(({ end: axis, element }): Candidate[] => {
    const [a, b] = blocksOf(element).map((id) => solution.values.get(id) as readonly number[] as Vec) as [Vec, Vec];
    const side = (place: Vec) => cross(subtract(b, a), subtract(place, a)) / distance(a, b);
    const image = (place: Vec): Vec => subtract(place, scale(perpendicular(subtract(b, a)), (2 * side(place)) / distance(a, b)));
    const near = (place: Vec, others: typeof standing) => others.reduce<(typeof standing)[number] | undefined>((best, other) => (!best || distance(other.at, place) < distance(best.at, place) ? other : best), undefined);
    const [left, right] = [standing.filter((place) => side(place.at) > FARTHEST_MIRROR * extent), standing.filter((place) => side(place.at) < -FARTHEST_MIRROR * extent)];
    return left.flatMap((place): Candidate[] => {
      const other = near(image(place.at), right);
      return other && near(image(other.at), left) === place && distance(other.at, image(place.at)) < FARTHEST_MIRROR * extent && (other.end.node === undefined) === (place.end.node === undefined) ? [['symmetric', [place.end, other.end, axis]]] : [];
    });
  });
}

function pairsOf<T>(list: readonly T[]): (readonly [T, T])[] {
  return list.flatMap((a, i) => list.slice(i + 1).map((b) => [a, b] as const));
}
