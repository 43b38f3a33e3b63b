import { applied, moved, placed } from './affine';
import type { Gap } from './gap';
import { listCrossings } from './intersect';
import { nearestOn, turningsAlong } from './measure';
import { pointAt, type Line, type Piece } from './piece';
import { angleOf, distance, subtract, type Vec } from './vec';

/**
 * How far pieces keep from an edge: square to it beside it, from its ends elsewhere on its near side (`inner` 1: to its left), below nothing beyond it; with the place of theirs that comes nearest. What lies past its ends and beyond
 * is the affair of other edges. Undefined where nothing is left. Plane unit.
 */
export function findClearance(pieces: readonly Piece[], edge: Line, inner: 1 | -1): Gap | undefined {
  const length = distance(edge.a, edge.b);
  // Along the edge, and inwards from it.
  const [back, into] = framesOf(edge, inner);
  const beside = pieces.map((piece) => moved(piece, into)).flatMap((piece) => placesOf(piece, length));
  const gaps = beside.flatMap(([x, y]): readonly Gap[] => {
    const foot: Vec = [Math.max(0, Math.min(length, x)), 0];
    if (x < 0 || x > length) return y > 0 ? [{ from: [x, y], to: foot, value: distance([x, y], foot) }] : [];
    return [{ from: [x, y], to: foot, value: y }];
  });
  if (gaps.length === 0) return undefined;
  const { from, to, value } = gaps.reduce((least, gap) => (gap.value < least.value ? gap : least));
  return { from: applied(back, from), to: applied(back, to), value };
}

/** From the frame of an edge, and into it. */
function framesOf({ a, b }: Line, inner: 1 | -1): readonly [Parameters<typeof moved>[1], Parameters<typeof moved>[1]] {
  const angle = angleOf(subtract(b, a));
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const [ax, ay] = a;
  return [placed(a, angle, 1, inner), [c, -inner * s, s, inner * c, -c * ax - s * ay, inner * (s * ax - c * ay)]];
}

/** In the frame of an edge of some length: the places of a piece of which one comes nearest to it. */
function placesOf(piece: Piece, length: number): readonly Vec[] {
  const own = [0, ...turningsAlong(piece, 1), 1].map((t) => pointAt(piece, t));
  const reach = 1 + Math.max(...own.map(([, y]) => Math.abs(y))) * 2;
  const past = [0, length].flatMap((x) => [
    ...listCrossings(piece, { kind: 'line', a: [x, -reach], b: [x, reach] }).map(({ point }): Vec => [x, point[1]]),
    nearestOn(piece, [x, 0]).point,
  ]);
  return [...own, ...past];
}
