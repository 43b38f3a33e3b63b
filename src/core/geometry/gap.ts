import { listCrossings } from './intersect';
import { isOverlapping, nearestOn, pieceBounds, type Bounds } from './measure';
import { pointAt, type Piece } from './piece';
import { distance, type Vec } from './vec';
import { windingNumber } from './winding';

/** A place of one thing and a place of another, and how far apart they are. */
export interface Gap {
  readonly from: Vec;
  readonly to: Vec;
  /** Below nothing where the two overlap: how far the one reaches into the other, or out of it when most of it lies within. */
  readonly value: number;
}

/** Where a curved piece is tried for a nearest place: more would find no other. */
const TRIES = [0, 0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875, 1];
const MOST_STEPS = 60;

/** The places at which two lists of pieces are nearest to each other; undefined without pieces. Weak: curves that come near in many places may hide the nearest one. */
export function findNearest(a: readonly Piece[], b: readonly Piece[]): Gap | undefined {
  const boxes = b.map(pieceBounds);
  let best: Gap | undefined;
  for (const piece of a) {
    const box = pieceBounds(piece);
    b.forEach((other, i) => {
      if (best && apart(box, boxes[i]!) >= best.value) return;
      const found = nearestPair(piece, other, isOverlapping(box, boxes[i]!));
      if (!best || found.value < best.value) best = found;
    });
  }
  return best;
}

/** How far apart two boxes are at least. */
const apart = (a: Bounds, b: Bounds): number =>
  Math.hypot(...([0, 1] as const).map((axis) => Math.max(0, a.min[axis] - b.max[axis], b.min[axis] - a.max[axis])));

function nearestPair(a: Piece, b: Piece, mayCross: boolean): Gap {
  const [crossing] = mayCross ? listCrossings(a, b) : [];
  if (crossing) return { from: crossing.point, to: crossing.point, value: 0 };
  const tries = [
    ...triesOn(a).map((at) => settled(a, b, at)),
    ...triesOn(b).map((at) => settled(a, b, nearestOn(a, at).point)),
  ];
  return tries.reduce((best, found) => (found.value < best.value ? found : best));
}

const triesOn = (piece: Piece): readonly Vec[] =>
  (piece.kind === 'line' ? [0, 1] : TRIES).map((t) => pointAt(piece, t));

/** To and fro between the nearest places of both, until they stay. */
function settled(a: Piece, b: Piece, start: Vec): Gap {
  let [from, to] = [start, nearestOn(b, start).point];
  for (let step = 0; step < MOST_STEPS; step++) {
    const next = nearestOn(a, to).point;
    if (distance(next, from) < 1e-12 * (1 + Math.hypot(...from))) break;
    [from, to] = [next, nearestOn(b, next).point];
  }
  return { from, to, value: distance(from, to) };
}

const SAMPLES = 32;

/**
 * How far two outlines are apart, below nothing where they cross and the second is closed: how far the first reaches into it, or out of it when most of it lies within.
 * Undefined without pieces. Weak: how deep it reaches is sought from 32 places on each piece.
 */
export function findGap(a: readonly Piece[], b: readonly Piece[], isClosed: boolean): Gap | undefined {
  const nearest = findNearest(a, b);
  if (!nearest || nearest.value > 0 || !isClosed) return nearest;
  const samples = a.flatMap((piece) =>
    Array.from({ length: SAMPLES + 1 }, (_, i) => ({
      piece,
      t: i / SAMPLES,
      isWithin: windingNumber(b, pointAt(piece, i / SAMPLES)) !== 0,
    })),
  );
  const within = samples.filter(({ isWithin }) => isWithin);
  const isMostlyWithin = 2 * within.length > samples.length;
  const over = isMostlyWithin ? samples.filter(({ isWithin }) => !isWithin) : within;
  const deepest = over
    .map(({ piece, t }) => reachFrom(piece, t, b))
    .reduce<Gap | undefined>((most, gap) => (!most || gap.value < most.value ? gap : most), undefined);
  return deepest ?? nearest;
}

/** How far a place of a piece is from others, made the most of around it. */
function reachFrom(piece: Piece, at: number, others: readonly Piece[]): Gap {
  const gapAt = (t: number): Gap => {
    const from = pointAt(piece, t);
    const foot = others
      .map((other) => nearestOn(other, from))
      .reduce((best, found) => (found.distance < best.distance ? found : best));
    return { from, to: foot.point, value: -foot.distance };
  };
  let [low, high] = [Math.max(0, at - 1 / SAMPLES), Math.min(1, at + 1 / SAMPLES)];
  for (let step = 0; step < 40; step++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    if (gapAt(a).value < gapAt(b).value) high = b;
    else low = a;
  }
  const [middle, own] = [gapAt((low + high) / 2), gapAt(at)];
  return middle.value < own.value ? middle : own;
}
