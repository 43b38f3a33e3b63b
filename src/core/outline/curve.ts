import {
  add,
  distance,
  durationOf,
  evenHandles,
  findDirection,
  mix,
  norm,
  polar,
  scale,
  subtract,
  type Vec,
} from '../geometry';
import type { Chain, Node, Segment } from './outline';
import type { Placing } from './place';

/** A chain on its plane, as far as its curves need to know it. */
export interface ChainOnPlane {
  readonly chain: Chain;
  readonly nodes: readonly Vec[];
  readonly placing: Placing;
  /** The direction of a segment that is no curve at its start (0) or its end (1). Not asked of a tangent arc before it is known. */
  findDirection(segment: number, t: 0 | 1): Vec | undefined;
}

export type Handles = readonly [Vec, Vec];

/**
 * The handles of curve segments, to be asked for in their order. A pulled handle is taken as it is; others are a third of the chord long, less by the node's tension. They follow the
 * node's own direction where it has one; on a smooth node else the line or arc on the other side, or, between two curve segments, the neighbours' chords weighted by
 * distance (centripetal, so that the curve neither loops nor overshoots where points stand close; Yuksel, Schaefer & Keyser, Parameterization and applications of
 * Catmull-Rom curves, 2011). On a corner they lie on the chord. Curves that bend evenly have no jump in curvature from one end, corner or pulled handle to the next.
 */
export function createHandles(standing: ChainOnPlane): (segment: number) => Handles {
  const { chain } = standing;
  const runs = chain.even ? listRuns(chain) : [];
  const known = new Map<number, Handles>();
  return (segment) => {
    const run = runs.find(({ segments }) => segments.includes(segment));
    if (run && !known.has(segment))
      evenHandlesOf(standing, run).forEach((handles, i) => known.set(run.segments[i]!, handles));
    return (
      known.get(segment) ?? [
        handleOf(standing, segment, 'out', segment),
        handleOf(standing, (segment + 1) % chain.nodes.length, 'in', segment),
      ]
    );
  };
}

const isCurve = (chain: Chain, segment: number): boolean => findSegment(chain, segment)?.kind === 'curve';

/** Segment by number; on a closed chain −1 is the last one. */
function findSegment(chain: Chain, index: number): Segment | undefined {
  const count = chain.segments.length;
  return chain.closed && count > 0 ? chain.segments[(index + count) % count] : chain.segments[index];
}

/** `asking`: the first segment that is not known yet. */
function handleOf(standing: ChainOnPlane, index: number, side: 'in' | 'out', asking: number): Vec {
  const { chain, nodes, placing } = standing;
  const [node, at] = [chain.nodes[index]!, nodes[index]!];
  const pulledTo = pulled(node, side === 'in' ? 'handleIn' : 'handleOut', at, placing);
  if (pulledTo) return pulledTo;
  const count = nodes.length;
  const neighbour = nodes[(index + (side === 'out' ? 1 : count - 1)) % count]!;
  const share = (1 - (node.tension ?? 0)) / 3;
  const tangent = findTangent(standing, index, side, asking);
  return tangent
    ? add(at, scale(tangent, (side === 'out' ? 1 : -1) * distance(at, neighbour) * share))
    : mix(at, neighbour, share);
}

/** Direction of travel through a node; undefined at a free end or corner, and where the other side leans on this one. */
function findTangent(standing: ChainOnPlane, index: number, side: 'in' | 'out', asking: number): Vec | undefined {
  const { chain, nodes } = standing;
  const node = chain.nodes[index]!;
  if (node.direction !== undefined) return polar(1, node.direction);
  const count = nodes.length;
  const other = side === 'out' ? index - 1 : index;
  const segment = node.smooth ? findSegment(chain, other) : undefined;
  if (!segment) return undefined;
  const wrapped = (other + chain.segments.length) % chain.segments.length;
  if (segment.kind === 'curve')
    return smoothTangent(nodes[(index + count - 1) % count]!, nodes[index]!, nodes[(index + 1) % count]!);
  return segment.kind === 'tangent' && (side === 'in' || wrapped >= asking)
    ? undefined
    : standing.findDirection(wrapped, side === 'out' ? 1 : 0);
}

function smoothTangent(before: Vec, at: Vec, after: Vec): Vec | undefined {
  const [u, v] = [subtract(at, before), subtract(after, at)];
  const [p, q] = [Math.sqrt(norm(u)), Math.sqrt(norm(v))];
  if (p === 0 || q === 0) return undefined;
  const slope = add(scale(u, q / p), scale(v, p / q));
  return findDirection(slope);
}

function pulled(node: Node, side: 'handleIn' | 'handleOut', position: Vec, placing: Placing): Vec | undefined {
  const handle = node[side];
  if (!handle) return undefined;
  if (node.place.kind === 'pointed') return placing.toPlane(add(node.place.at, handle), node.place.view);
  const origin = placing.toPlane([0, 0]);
  return add(position, subtract(placing.toPlane(handle), origin));
}

/** Curve segments one after the other with nothing between them that stops a curve from running on evenly. */
interface Run {
  readonly segments: readonly number[];
  /** It closes on itself evenly too. */
  readonly isRing: boolean;
}

/** Runs of two or more segments: a single one has nothing to be even with. */
function listRuns(chain: Chain): readonly Run[] {
  const { length } = chain.segments;
  const curves = chain.segments.flatMap(({ kind }, i) => (kind === 'curve' ? [i] : []));
  const runsOn = (node: number) => {
    const { smooth, direction, handleIn, handleOut } = chain.nodes[node % chain.nodes.length]!;
    return (
      smooth && direction === undefined && !handleIn && !handleOut && isCurve(chain, node - 1) && isCurve(chain, node)
    );
  };
  if (chain.closed && curves.length === length && curves.every(runsOn)) return [{ segments: curves, isRing: true }];
  const runs = curves
    .filter((i) => !runsOn(i))
    .map((begin): Run => {
      const segments = [begin];
      for (let i = (begin + 1) % length; i !== begin && isCurve(chain, i) && runsOn(i); i = (i + 1) % length)
        segments.push(i);
      return { segments, isRing: false };
    });
  return runs.filter(({ segments }) => segments.length > 1);
}

/** The handles of a run that bends evenly: at its ends they stay as they were, in length too, but for a free end. */
function evenHandlesOf(standing: ChainOnPlane, { segments, isRing }: Run): readonly Handles[] {
  const { chain, nodes } = standing;
  const [begin, end] = [segments[0]!, (segments.at(-1)! + 1) % nodes.length];
  const points = isRing ? nodes : [...segments.map((i) => nodes[i]!), nodes[end]!];
  if (isRing) return evenHandles(points, true);
  const asking = Math.min(...segments);
  const velocity = (node: number, side: 'in' | 'out', towards: Vec): Vec | undefined => {
    const isHeld =
      chain.nodes[node]![side === 'in' ? 'handleIn' : 'handleOut'] !== undefined ||
      findTangent(standing, node, side, asking) !== undefined;
    const by = subtract(handleOf(standing, node, side, asking), nodes[node]!);
    return isHeld ? scale(by, (side === 'in' ? -3 : 3) / durationOf(nodes[node]!, towards)) : undefined;
  };
  return evenHandles(points, false, {
    first: velocity(begin, 'out', points[1]!),
    last: velocity(end, 'in', points.at(-2)!),
  });
}
