import {
  circle,
  cross,
  distance,
  ellipseFrom,
  findArcThrough,
  findCircumcentre,
  findTangentArc,
  mix,
  norm,
  perpendicular,
  scale,
  subtract,
  tangentAt,
  type Arc,
  type EllipticArc,
  type Path,
  type Piece,
  type Vec,
} from '../geometry';
import { finishCorners, type CornerFault } from './corner';
import { createHandles, type Handles } from './curve';
import { findPosition, type Placing } from './place';
import type { Chain, CircleBy, DrawnOutline, EllipseOutline } from './outline';

/** What is wrong with a segment that had to be drawn as a straight line instead, or a circle that has no place. */
export type ShapeFault =
  'arc-in-a-line' | 'tangent-straight-behind' | 'place-lost' | 'circle-without-size' | CornerFault | MakingFault;
/** Why nothing could be made of what an outline follows. */
export type MakingFault =
  | 'source-lost'
  | 'made-without-scale'
  | 'combine-open'
  | 'made-unclear'
  | 'made-nothing'
  | 'made-too-many'
  | 'guide-lost';

/** An outline on its view plane: mm when scaled, else pixels, y up. Segment i of a chain is piece i; what is made of others may be several paths. */
export interface Shape {
  readonly id: string;
  readonly closed: boolean;
  readonly pieces: readonly Piece[];
  /** The pieces with their corners finished, as paths: what is shown, measured and cut. */
  readonly paths: readonly Path[];
  /** The pieces of all paths. */
  readonly finished: readonly Piece[];
  /** Of walls with openings, and of what is made of them: their paths as if those were shut, as rooms are found. None of what stands in openings. */
  readonly shut?: readonly Path[] | undefined;
  readonly nodes: readonly Vec[];
  readonly faults: readonly { readonly segment: number; readonly fault: ShapeFault }[];
}

/** Puts an outline on its plane. What has no shape (an arc whose three points lie in a line) becomes a line and a fault. */
export function shapeOf(outline: DrawnOutline, plain: Omit<Placing, 'nodeAt'>): Shape {
  if (outline.shape === 'chain') return shapeOfChain(outline, plain);
  const placing = { ...plain, nodeAt: () => undefined };
  const piece = outline.shape === 'circle' ? findCircle(outline.by, placing) : findWholeEllipse(outline, placing);
  if (!piece) return { ...shapeOfPaths(outline.id, []), faults: [{ segment: 0, fault: 'circle-without-size' }] };
  return { ...shapeOfPaths(outline.id, [{ closed: true, pieces: [piece] }]), nodes: [piece.centre] };
}

/** What stands in openings: it shuts nothing in and is not cut. */
export const isSign = ({ shut }: Pick<Shape, 'shut'>): boolean => shut?.length === 0;

/** Paths as the shape of an outline without nodes. */
export function shapeOfPaths(id: string, paths: readonly Path[]): Shape {
  const pieces = paths.flatMap((path) => path.pieces);
  return {
    id,
    closed: paths.length > 0 && paths.every(({ closed }) => closed),
    pieces,
    paths,
    finished: pieces,
    nodes: [],
    faults: [],
  };
}

/** So many nodes lean on one another backwards at the most: each waits for the next. */
const LONGEST_WAIT = 2000;

/** Places of a chain resolve among its own nodes, each once: whoever asks for a node that waits for the answer itself hears that it has no place. */
export function placingOf(chain: Chain, plain: Omit<Placing, 'nodeAt'>): Placing {
  const places = new Map(chain.nodes.map(({ id, place }) => [id, place]));
  const known = new Map<string, Vec | undefined>();
  let waiting = 0;
  const nodeAt = (id: string): Vec | undefined => {
    const place = places.get(id);
    if (known.has(id) || !place || waiting > LONGEST_WAIT) return known.get(id);
    known.set(id, undefined);
    waiting++;
    known.set(id, findPosition(place, placing));
    waiting--;
    return known.get(id);
  };
  const placing: Placing = { ...plain, nodeAt };
  return placing;
}

function findCircle(by: CircleBy, placing: Placing): Arc | undefined {
  const found = findCentre(by, placing);
  const radius = found && distance(...found);
  return found && radius ? circle(found[0], radius) : undefined;
}

/** The centre of a circle and a place on its rim. */
function findCentre(by: CircleBy, placing: Placing): readonly [Vec, Vec] | undefined {
  if (by.kind === 'rim') {
    const [centre, rim] = [findPosition(by.centre, placing), findPosition(by.rim, placing)];
    return centre && rim && [centre, rim];
  }
  const [a, b] = [findPosition(by.a, placing), findPosition(by.b, placing)];
  if (!a || !b) return undefined;
  if (by.kind === 'two') return [mix(a, b, 0.5), a];
  const c = findPosition(by.c, placing);
  const centre = c && findCircumcentre(a, b, c);
  return centre && [centre, a];
}

function findWholeEllipse({ centre, end, side }: EllipseOutline, placing: Placing): EllipticArc | undefined {
  const [middle, tip, aside] = [centre, end, side].map((place) => findPosition(place, placing));
  if (!middle || !tip || !aside) return undefined;
  const half = subtract(tip, middle);
  const reach = Math.abs(cross(half, subtract(aside, middle))) / norm(half);
  return reach > 0
    ? ellipseFrom(middle, half, scale(perpendicular(half), reach / norm(half)), 0, 2 * Math.PI)
    : undefined;
}

function shapeOfChain(chain: Chain, plain: Omit<Placing, 'nodeAt'>): Shape {
  const placing = placingOf(chain, plain);
  const faults: { segment: number; fault: ShapeFault }[] = [];
  const nodes = chain.nodes.map(({ id }, i) => {
    const position = placing.nodeAt(id);
    if (!position) faults.push({ segment: i, fault: 'place-lost' });
    return position ?? ([0, 0] as const);
  });
  const pieces: Piece[] = [];
  const handlesAt = createHandles({
    chain,
    nodes,
    placing,
    findDirection: (segment, t) => directionAt(pieces[segment] ?? pieceOf(chain, segment, nodes, [], placing), t),
  });
  chain.segments.forEach((_, i) => {
    const made = pieceOf(chain, i, nodes, pieces, placing, handlesAt);
    if (typeof made !== 'string') return void pieces.push(made);
    faults.push({ segment: i, fault: made });
    pieces.push({ kind: 'line', a: nodes[i]!, b: nodes[(i + 1) % nodes.length]! });
  });
  const finished = finishCorners(pieces, placing.scaled ? chain.nodes.map(({ corner }) => corner) : [], chain.closed);
  return {
    id: chain.id,
    closed: chain.closed,
    pieces,
    paths: [{ closed: chain.closed, pieces: finished.pieces }],
    finished: finished.pieces,
    nodes,
    faults: [...faults, ...finished.faults],
  };
}

const directionAt = (piece: Piece | ShapeFault, t: 0 | 1): Vec | undefined =>
  typeof piece === 'string' ? undefined : tangentAt(piece, t);

/** Segment i as a piece; `before` are the pieces up to it, since tangent arcs lean on what they follow. Curves need `handlesAt`. */
function pieceOf(
  chain: Chain,
  i: number,
  nodes: readonly Vec[],
  before: readonly Piece[],
  placing: Placing,
  handlesAt?: (segment: number) => Handles,
): Piece | ShapeFault {
  const segment = chain.segments[i]!;
  const [a, b] = [nodes[i]!, nodes[(i + 1) % nodes.length]!];
  if (segment.kind === 'line') return { kind: 'line', a, b };
  if (segment.kind === 'arc') {
    const through = findPosition(segment.through, placing);
    return (through && findArcThrough(a, through, b)) ?? 'arc-in-a-line';
  }
  if (segment.kind === 'ellipse') {
    const apex = findPosition(segment.apex, placing);
    return (apex && findEllipticArc(a, apex, b, segment.sweep)) ?? 'arc-in-a-line';
  }
  if (segment.kind === 'tangent') {
    const last = before.at(-1);
    return (last && findTangentArc(a, tangentAt(last, 1), b)) ?? 'tangent-straight-behind';
  }
  const [leaves, arrives] = handlesAt!(i);
  return { kind: 'cubic', a, b: leaves, c: arrives, d: b };
}

/**
 * The piece of an ellipse from a to b whose tangents there meet in an apex: where an affine map puts an arc of a circle of radius 1 that sweeps as much. Undefined where
 * the three lie in a line.
 */
function findEllipticArc(a: Vec, apex: Vec, b: Vec, sweep: number): EllipticArc | undefined {
  const half = sweep / 2;
  const [c, s] = [Math.cos(half), Math.sin(half)];
  const middle = mix(a, b, 0.5);
  const out = scale(subtract(apex, middle), c / (s * s));
  const across = scale(subtract(b, a), 1 / (2 * s));
  if (!(Math.abs(cross(out, across)) > 0)) return undefined;
  return ellipseFrom(subtract(middle, scale(out, c)), out, across, -half, sweep);
}
