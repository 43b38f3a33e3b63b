import { applied, moved, placed, type Affine } from './affine';
import type { Gap } from './gap';
import { listCrossings } from './intersect';
import { nearestOn, turningsAlong } from './measure';
import { partOf } from './part';
import { pointAt, type Line, type Piece } from './piece';
import { angleOf, distance, subtract, type Vec } from './vec';

/**
 * How far pieces keep from an edge: square to it beside it, from its ends elsewhere on its near side (`inner` 1: to its left), below nothing beyond it; with the place of theirs that comes nearest. What lies past its ends and beyond
 * is the affair of other edges. Undefined where nothing is left. Plane unit.
 */
export function findClearance(pieces: readonly Piece[], edge: Line, inner: 1 | -1): Gap | undefined {
  const length = distance(edge.a, edge.b);
  const [back, into] = framesOf(edge, inner);
  const gaps = pieces
    .map((piece) => moved(piece, into))
    .flatMap((piece) => listParts(piece, length))
    .flatMap((part) => gapsOf(part, length));
  if (gaps.length === 0) return undefined;
  const { from, to, value } = gaps.reduce((least, gap) => (gap.value < least.value ? gap : least));
  return { from: applied(back, from), to: applied(back, to), value };
}

/** From the frame of an edge (along it, and inwards from it), and into that. */
function framesOf({ a, b }: Line, inner: 1 | -1): readonly [Affine, Affine] {
  const angle = angleOf(subtract(b, a));
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const [ax, ay] = a;
  return [placed(a, angle, 1, inner), [c, -inner * s, s, inner * c, -c * ax - s * ay, inner * (s * ax - c * ay)]];
}

/** A piece cut where it crosses the edge's line, and the square ones at its ends: every part lies beside the edge, or past one end of it, on one side. */
function listParts(piece: Piece, length: number): readonly Piece[] {
  const extremes = ([0, 1] as const).flatMap((axis) => turningsAlong(piece, axis));
  const places = [0, ...extremes, 1].map((t) => pointAt(piece, t));
  const reach = 2 * Math.max(1, length, ...places.map(([x, y]) => Math.max(Math.abs(x), Math.abs(y))));
  const lines: readonly Line[] = [
    { kind: 'line', a: [-reach, 0], b: [reach, 0] },
    ...[0, length].map((x): Line => ({ kind: 'line', a: [x, -reach], b: [x, reach] })),
  ];
  const cuts = lines.flatMap((line) => listCrossings(piece, line).map(({ ta }) => ta)).sort((a, b) => a - b);
  return [0, ...cuts].flatMap((from, i) => {
    const to = cuts[i] ?? 1;
    return to > from ? [partOf(piece, from, to)] : [];
  });
}

/** How near a part comes, where it can be nearest. */
function gapsOf(part: Piece, length: number): readonly Gap[] {
  const [x, y] = pointAt(part, 0.5);
  const end: Vec | undefined = x < 0 ? [0, 0] : x > length ? [length, 0] : undefined;
  if (end && y < 0) return [];
  if (end) {
    const { point, distance: value } = nearestOn(part, end);
    return [{ from: point, to: end, value }];
  }
  return [0, ...turningsAlong(part, 1), 1]
    .map((t) => pointAt(part, t))
    .map((from): Gap => ({ from, to: [from[0], 0], value: from[1] }));
}
