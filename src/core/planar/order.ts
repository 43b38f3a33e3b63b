import {
  angleOf,
  distance,
  norm,
  pieceLength,
  pointAt,
  positiveAngle,
  startOf,
  subtract,
  velocityAt,
  type Piece,
} from '../geometry';

/**
 * Pieces that leave one place and share nothing else, in counter-clockwise order: their indices. Where their directions at the place are clearly apart, these tell; else two are told apart by their directions at a quarter of the
 * shorter one, since directions at the place itself tell nothing of pieces that touch, and little of curves that begin in a cusp.
 */
export function aroundPlace(leaving: readonly Piece[]): readonly number[] {
  const all = leaving.map((_, i) => i);
  if (leaving.length < 3) return all;
  const leave = leaving.map(findLeaving);
  if (isEach(leave) && areApart(leave)) return all.sort((i, j) => leave[i]! - leave[j]!);
  const lengths = leaving.map((piece) => pieceLength(piece, 1e-3));
  const near = Math.min(...lengths) / 4;
  const cut = afterWidestGap(leaving.map((piece) => directionAt(piece, near)));
  const turned = (i: number, reach: number) => positiveAngle(directionAt(leaving[i]!, reach) - cut);
  return all.sort((i, j) => {
    const reach = Math.min(lengths[i]!, lengths[j]!) / 4;
    return turned(i, reach) - turned(j, reach);
  });
}

/** Angles of which no two are nearer tell an order: radians. */
const CLEARLY = 0.02;

/** The angle at which a piece leaves, 0 to 2π; undefined where a handle lies on its end, so that it may turn at once. */
function findLeaving(piece: Piece): number | undefined {
  const velocity = velocityAt(piece, 0);
  return piece.kind === 'cubic' && norm(velocity) < 1e-3 * distance(piece.a, piece.d)
    ? undefined
    : positiveAngle(angleOf(velocity));
}

const isEach = (angles: readonly (number | undefined)[]): angles is readonly number[] => !angles.includes(undefined);

function areApart(angles: readonly number[]): boolean {
  const sorted = [...angles].sort((a, b) => a - b);
  return sorted.every((angle, i) => positiveAngle(angle - sorted[(i + sorted.length - 1) % sorted.length]!) > CLEARLY);
}

/** The middle of the widest gap between directions: there the circle is cut open. */
function afterWidestGap(angles: readonly number[]): number {
  const sorted = angles.map(positiveAngle).sort((a, b) => a - b);
  const gaps = sorted.map((angle, i) => positiveAngle(angle - sorted[(i + sorted.length - 1) % sorted.length]!));
  const widest = Math.max(...gaps);
  return sorted[gaps.indexOf(widest)]! - widest / 2;
}

/** The direction from where a piece starts to where it has got so far away. */
function directionAt(piece: Piece, reach: number): number {
  return angleOf(subtract(pointAt(piece, parameterAt(piece, reach)), startOf(piece)));
}

function parameterAt(piece: Piece, reach: number): number {
  if (piece.kind === 'line') return reach / distance(piece.a, piece.b);
  if (piece.kind === 'arc') return (2 * Math.asin(Math.min(1, reach / (2 * piece.radius)))) / Math.abs(piece.sweep);
  const start = startOf(piece);
  return findRoot((t) => distance(pointAt(piece, t), start) - reach);
}

/**
 * Where something that is below nothing at 0 is nothing: before the half if it is above it there, else behind it; 1 where it is above at neither. Regula falsi in the Illinois form: what stays on its side twice counts half.
 * Source: Dowell & Jarratt, A modified regula falsi method for computing the root of an equation, 1971.
 */
function findRoot(at: (t: number) => number): number {
  const middle = at(0.5);
  let [low, high, below, above, side] = middle >= 0 ? [0, 0.5, at(0), middle, 0] : [0.5, 1, middle, at(1), 0];
  if (!(above > 0)) return high;
  const scale = Math.abs(below) + above;
  for (let i = 0; i < 40 && high - low > 1e-12; i++) {
    const t = (low * above - high * below) / (above - below);
    const value = at(t);
    if (value === 0) return t;
    if (value < 0) {
      if (side < 0) above /= 2;
      [low, below, side] = [t, value, -1];
    } else {
      if (side > 0) below /= 2;
      [high, above, side] = [t, value, 1];
    }
    if (Math.abs(value) < 1e-13 * scale) return t;
  }
  return high;
}
