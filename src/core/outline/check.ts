import { distance, endOf, isFullCircle, isOverlapping, listCrossings, nearestOn, pieceBounds, pieceLength, pointAt, startOf, type Bounds, type Piece, type Vec } from '../geometry';
import type { Shape, ShapeFault } from './shape';

/** What keeps an outline from being cut, with its place on the view plane and its size (mm, or px without scale). */
export type Finding =
  | { readonly kind: 'open'; readonly outline: string; readonly at: Vec; readonly other: Vec; readonly gap: number; readonly end: 'start' | 'end'; readonly partner: EndOf | undefined }
  | { readonly kind: 'crossing'; readonly outline: string; readonly at: Vec; readonly pieces: readonly [number, number] }
  | { readonly kind: 'doubled'; readonly outline: string; readonly other: string; readonly at: Vec; readonly size: number }
  | { readonly kind: 'short'; readonly outline: string; readonly segment: number; readonly at: Vec; readonly size: number }
  | { readonly kind: 'fault'; readonly outline: string; readonly segment: number; readonly at: Vec; readonly fault: ShapeFault };

export interface EndOf {
  readonly outline: string;
  readonly end: 'start' | 'end';
}

interface OpenEnd extends EndOf {
  readonly at: Vec;
}

/** `shortest`: pieces below this size are reported; `touching`: nearer than this is the same place. Both in the shapes' unit. */
export interface CheckLimits {
  readonly shortest: number;
  readonly touching: number;
}

export function checkShapes(shapes: readonly Shape[], limits: CheckLimits): readonly Finding[] {
  return [
    ...shapes.flatMap(listFaults),
    ...listOpenEnds(shapes),
    ...shapes.flatMap((shape) => listSelfCrossings(shape, limits.touching)),
    ...listDoubled(shapes, limits.touching),
    ...shapes.flatMap((shape) => listShort(shape, limits.shortest)),
  ];
}

function listFaults(shape: Shape): Finding[] {
  return shape.faults.map(({ segment, fault }) => ({
    kind: 'fault', outline: shape.id, segment, fault, at: shape.pieces[segment] ? pointAt(shape.pieces[segment], 0.5) : (shape.nodes[0] ?? [0, 0]),
  }));
}

/** Every end of an open outline, with the nearest other open end: its own other end, or another outline's. */
function listOpenEnds(shapes: readonly Shape[]): Finding[] {
  const ends = shapes.flatMap((shape): OpenEnd[] => {
    const [first, last] = [shape.pieces[0], shape.pieces.at(-1)];
    if (shape.closed || !first || !last) return [];
    return [{ outline: shape.id, end: 'start', at: startOf(first) }, { outline: shape.id, end: 'end', at: endOf(last) }];
  });
  return ends.map((end) => {
    const partner = ends.filter((other) => other !== end).reduce<OpenEnd | undefined>(
      (best, other) => (!best || distance(other.at, end.at) < distance(best.at, end.at) ? other : best), undefined);
    return {
      kind: 'open', outline: end.outline, end: end.end, at: end.at, other: partner?.at ?? end.at,
      gap: partner ? distance(end.at, partner.at) : 0, partner: partner && { outline: partner.outline, end: partner.end },
    };
  });
}

/** Crossings of an outline with itself; the shared ends of neighbouring pieces do not count. */
function listSelfCrossings(shape: Shape, touching: number): Finding[] {
  const count = shape.finished.length;
  const bounds = shape.finished.map(pieceBounds);
  const findings: Finding[] = [];
  for (let i = 0; i < count; i++) {
    for (let k = i + 1; k < count; k++) {
      if (!isOverlapping(bounds[i]!, bounds[k]!, touching)) continue;
      const [a, b] = [shape.finished[i]!, shape.finished[k]!];
      const joints = [k === i + 1 ? endOf(a) : undefined, shape.closed && i === 0 && k === count - 1 ? startOf(a) : undefined];
      for (const { point } of listCrossings(a, b)) {
        if (joints.some((joint) => joint && distance(joint, point) <= touching)) continue;
        findings.push({ kind: 'crossing', outline: shape.id, at: point, pieces: [i, k] });
      }
    }
  }
  return findings;
}

/** Pieces that lie on each other along their whole length, in any outlines. */
function listDoubled(shapes: readonly Shape[], touching: number): Finding[] {
  const all = shapes.flatMap((shape) => shape.finished.map((piece) => ({ outline: shape.id, piece, bounds: pieceBounds(piece) })));
  const findings: Finding[] = [];
  all.forEach((a, i) => {
    for (const b of all.slice(i + 1)) {
      if (!isNear(a.bounds, b.bounds, touching) || !isDoubled(a.piece, b.piece, touching)) continue;
      findings.push({ kind: 'doubled', outline: a.outline, other: b.outline, at: pointAt(a.piece, 0.5), size: pieceLength(a.piece) });
    }
  });
  return findings;
}

function isNear(a: Bounds, b: Bounds, slack: number): boolean {
  return distance(a.min, b.min) <= 2 * slack && distance(a.max, b.max) <= 2 * slack;
}

function isDoubled(a: Piece, b: Piece, touching: number): boolean {
  if (pieceLength(a) <= touching) return false;
  const samples = isFullCircle(a) ? [0, 0.3, 0.6] : [0, 0.25, 0.5, 0.75, 1];
  return samples.every((t) => nearestOn(b, pointAt(a, t)).distance <= touching) && samples.every((t) => nearestOn(a, pointAt(b, t)).distance <= touching);
}

function listShort(shape: Shape, shortest: number): Finding[] {
  return shape.pieces.flatMap((piece, segment): Finding[] => {
    const size = pieceLength(piece);
    return size < shortest ? [{ kind: 'short', outline: shape.id, segment, at: pointAt(piece, 0.5), size }] : [];
  });
}
