import {
  add,
  distance,
  enclosedArea,
  findUnion,
  listCrossings,
  nearestOn,
  perpendicular,
  pieceBounds,
  pointAt,
  scale,
  tangentAt,
  windingNumber,
  withoutFalseBow,
  type Path,
  type Piece,
  type Vec,
} from '../geometry';
import { arrange, edgeOf, isForward, twin, type Cycle, type Arrangement } from './arrangement';
import { along, type Boundary } from './boundary';

/** A part of the plane that outlines shut in: its rim counter-clockwise, its holes clockwise. */
export interface Region {
  readonly around: Boundary;
  readonly holes: readonly Boundary[];
  /** Without the holes. Square of the paths' unit. */
  readonly area: number;
  /** A place that lies in it. */
  readonly inside: Vec;
  /** Which of the given pieces run along its rim and its holes. */
  readonly of: readonly number[];
}

/**
 * Every region that pieces shut in, down to slivers, smallest first. Ends that hang loose shut in nothing and are left out of the rims. `tolerance` in the
 * pieces' unit: what is nearer is one place.
 */
export function listRegions(pieces: readonly Piece[], tolerance: number): readonly Region[] {
  const arrangement = arrange(pieces.map(withoutFalseBow), tolerance);
  const regions = arrangement.faces.map(({ around, holes }): Region => {
    const rim = pathOf(arrangement, around);
    const inner = holes.flatMap((hole) => (hole.area < 0 ? [pathOf(arrangement, hole)] : []));
    const area = inner.reduce((rest, path) => rest + enclosedArea(path.pieces), around.area);
    const of = [around, ...holes].flatMap(({ halves }) =>
      halves.flatMap((half) => arrangement.edges[edgeOf(half)]!.sources.map((source) => source.of)),
    );
    return { around: rim, holes: inner, area, inside: insideOf(rim, inner, tolerance), of: [...new Set(of)] };
  });
  return regions.sort((a, b) => a.area - b.area);
}

/** The rim of a cycle without the edges that it runs along to and fro. */
function pathOf({ pieceOf, edges }: Arrangement, { halves }: Cycle): Boundary {
  const all = new Set(halves);
  const kept = halves.filter((half) => !all.has(twin(half)));
  const sources = kept.map((half) => along(edges[edgeOf(half)]!.sources[0]!, isForward(half)));
  return { closed: true, pieces: kept.map(pieceOf), sources };
}

/**
 * A place in a region: straight in from the middle of its longest piece, half-way to the next rim, so that a rim which moves a little does not run over it. Where that cannot be told (a ray that grazes), the farthest in that
 * halving finds.
 */
function insideOf(around: Path, holes: readonly Path[], tolerance: number): Vec {
  const rims = [around, ...holes].flatMap(({ pieces }) => pieces);
  const longest = around.pieces.reduce((best, piece) => (spanOf(piece) > spanOf(best) ? piece : best));
  const [middle, left] = [pointAt(longest, 0.5), perpendicular(tangentAt(longest, 0.5))];
  const inFrom = (reach: number) => add(middle, scale(left, reach));
  const { min, max } = findUnion(around.pieces.map(pieceBounds))!;
  const ray: Piece = { kind: 'line', a: middle, b: inFrom(2 * distance(min, max)) };
  const across = rims
    .flatMap((piece) => listCrossings(ray, piece))
    .map(({ point }) => distance(middle, point))
    .filter((reach) => reach > tolerance);
  const halfWay = inFrom(Math.min(...across) / 2);
  if (across.length > 0 && windingNumber(rims, halfWay) === 1) return halfWay;
  for (let reach = 0.4 * spanOf(longest); reach > tolerance / 4; reach /= 2)
    if (windingNumber(rims, inFrom(reach)) === 1) return inFrom(reach);
  return middle;
}

const spanOf = (piece: Piece): number =>
  Math.hypot(...([0, 1] as const).map((axis) => pointAt(piece, 1)[axis] - pointAt(piece, 0)[axis])) || 1;

const GRID = 12;

/** A place well inside a region, for its name: of a grid over it the one that is farthest from every rim. */
export function wellInside({ around, holes, inside }: Pick<Region, 'around' | 'holes' | 'inside'>): Vec {
  const rims = [around, ...holes].flatMap(({ pieces }) => pieces);
  const { min, max } = findUnion(around.pieces.map(pieceBounds))!;
  const away = (place: Vec) => Math.min(...rims.map((piece) => nearestOn(piece, place).distance));
  const places = Array.from({ length: GRID * GRID }, (_, i): Vec => [
    min[0] + (((i % GRID) + 0.5) / GRID) * (max[0] - min[0]),
    min[1] + ((Math.floor(i / GRID) + 0.5) / GRID) * (max[1] - min[1]),
  ]);
  const within = places.filter((place) => windingNumber(rims, place) === 1);
  return within.reduce<{ readonly place: Vec; readonly away: number }>(
    (best, place) => (away(place) > best.away ? { place, away: away(place) } : best),
    { place: inside, away: away(inside) },
  ).place;
}
