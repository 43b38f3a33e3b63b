import {
  add, circle, distance, findArcThrough, findCircumcentre, findDirection, findTangentArc, mix, norm, scale, subtract, tangentAt,
  type Piece, type Vec,
} from '../geometry';
import { findPosition, type Placing } from './place';
import type { Chain, CircleBy, Node, Outline } from './outline';

/** What is wrong with a segment that had to be drawn as a straight line instead, or a circle that has no place. */
export type ShapeFault = 'arc-in-a-line' | 'tangent-straight-behind' | 'place-lost' | 'circle-without-size';

/** An outline on its view plane: mm when scaled, else pixels, y up. Segment i of a chain is piece i. */
export interface Shape {
  readonly id: string;
  readonly closed: boolean;
  readonly pieces: readonly Piece[];
  readonly nodes: readonly Vec[];
  readonly faults: readonly { readonly segment: number; readonly fault: ShapeFault }[];
}

/** Puts an outline on its plane. What has no shape (an arc whose three points lie in a line) becomes a line and a fault. */
export function shapeOf(outline: Outline, placing: Omit<Placing, 'findNode'>): Shape {
  return outline.shape === 'chain' ? shapeOfChain(outline, placing) : shapeOfCircle(outline.id, outline.by, { ...placing, findNode: () => undefined });
}

/** Places of a chain resolve among its own nodes. */
export function placingOf(chain: Chain, placing: Omit<Placing, 'findNode'>): Placing {
  return { ...placing, findNode: (id) => chain.nodes.find((node) => node.id === id)?.place };
}

function shapeOfCircle(id: string, by: CircleBy, placing: Placing): Shape {
  const found = findCircle(by, placing);
  if (!found || !(found.radius > 0)) return { id, closed: false, pieces: [], nodes: [], faults: [{ segment: 0, fault: 'circle-without-size' }] };
  return { id, closed: true, pieces: [circle(found.centre, found.radius)], nodes: [found.centre], faults: [] };
}

function findCircle(by: CircleBy, placing: Placing): { centre: Vec; radius: number } | undefined {
  if (by.kind === 'rim') {
    const [centre, rim] = [findPosition(by.centre, placing), findPosition(by.rim, placing)];
    return centre && rim && { centre, radius: distance(centre, rim) };
  }
  const [a, b] = [findPosition(by.a, placing), findPosition(by.b, placing)];
  if (!a || !b) return undefined;
  if (by.kind === 'two') return { centre: mix(a, b, 0.5), radius: distance(a, b) / 2 };
  const c = findPosition(by.c, placing);
  const centre = c && findCircumcentre(a, b, c);
  return centre && { centre, radius: distance(centre, a) };
}

function shapeOfChain(chain: Chain, plain: Omit<Placing, 'findNode'>): Shape {
  const placing = placingOf(chain, plain);
  const faults: { segment: number; fault: ShapeFault }[] = [];
  const nodes = chain.nodes.map((node, i) => {
    const position = findPosition(node.place, placing);
    if (!position) faults.push({ segment: i, fault: 'place-lost' });
    return position ?? ([0, 0] as const);
  });
  const handles = curveHandles(chain, nodes, placing);
  const pieces: Piece[] = [];
  chain.segments.forEach((segment, i) => {
    const [a, b] = [nodes[i]!, nodes[(i + 1) % nodes.length]!];
    const line: Piece = { kind: 'line', a, b };
    if (segment.kind === 'line') pieces.push(line);
    else if (segment.kind === 'curve') pieces.push({ kind: 'cubic', a, b: handles[i]!.out, c: handles[(i + 1) % nodes.length]!.in, d: b });
    else if (segment.kind === 'arc') {
      const through = findPosition(segment.through, placing);
      const arc = through && findArcThrough(a, through, b);
      if (!arc) faults.push({ segment: i, fault: 'arc-in-a-line' });
      pieces.push(arc ?? line);
    } else {
      const before = pieces[i - 1];
      const arc = before && findTangentArc(a, tangentAt(before, 1), b);
      if (!arc) faults.push({ segment: i, fault: 'tangent-straight-behind' });
      pieces.push(arc ?? line);
    }
  });
  return { id: chain.id, closed: chain.closed, pieces, nodes, faults };
}

interface Handles {
  readonly in: Vec;
  readonly out: Vec;
}

/**
 * Handle ends of every node. Pulled handles are taken as they are; others follow the curve through the neighbours: a third
 * of the chord long, along the neighbours' chord weighted by distance (centripetal, so that it neither loops nor overshoots
 * where points stand close; Yuksel, Schaefer & Keyser, Parameterization and applications of Catmull-Rom curves, 2011).
 */
function curveHandles(chain: Chain, nodes: readonly Vec[], placing: Placing): readonly Handles[] {
  const count = nodes.length;
  const isCurve = (segment: number) => chain.segments[(segment + chain.segments.length) % Math.max(1, chain.segments.length)]?.kind === 'curve';
  return chain.nodes.map((node, i) => {
    const position = nodes[i]!;
    const before = chain.closed || i > 0 ? nodes[(i - 1 + count) % count] : undefined;
    const after = chain.closed || i < count - 1 ? nodes[(i + 1) % count] : undefined;
    const through = node.smooth && before && after && isCurve(i - 1) && isCurve(i);
    const tangent = through ? smoothTangent(before, position, after) : undefined;
    return {
      in: pulled(node, 'handleIn', position, placing) ?? automatic(position, before, tangent && scale(tangent, -1)),
      out: pulled(node, 'handleOut', position, placing) ?? automatic(position, after, tangent),
    };
  });
}

function smoothTangent(before: Vec, at: Vec, after: Vec): Vec | undefined {
  const [u, v] = [subtract(at, before), subtract(after, at)];
  const [p, q] = [Math.sqrt(norm(u)), Math.sqrt(norm(v))];
  if (p === 0 || q === 0) return undefined;
  const slope = add(scale(u, q / p), scale(v, p / q));
  return findDirection(slope);
}

function automatic(at: Vec, neighbour: Vec | undefined, tangent: Vec | undefined): Vec {
  if (!neighbour) return at;
  return tangent ? add(at, scale(tangent, distance(at, neighbour) / 3)) : mix(at, neighbour, 1 / 3);
}

function pulled(node: Node, side: 'handleIn' | 'handleOut', position: Vec, placing: Placing): Vec | undefined {
  const handle = node[side];
  if (!handle) return undefined;
  const sheet = node.place.kind === 'pointed' ? node.place.at : undefined;
  if (sheet) return placing.toPlane(add(sheet, handle));
  const origin = placing.toPlane([0, 0]);
  return add(position, subtract(placing.toPlane(handle), origin));
}
