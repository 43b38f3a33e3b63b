/** Figures for drawings: how long it takes to divide a plane, to offset, and to catch the aim. */
import { inflatePathsD, EndType, JoinType, unionD, FillRule } from 'clipper2-ts';
import { circle, distance, pointAt, type Line, type Piece, type Vec } from '../src/core/geometry';
import { createSnapSearch, listSnaps } from '../src/core/outline';
import { arrange, offsetClosed } from '../src/core/planar';

const since = (work: () => unknown): number => {
  const began = performance.now();
  work();
  return performance.now() - began;
};

/** Lines and circles in a regular throw that cross each other here and there. */
function scattered(count: number): readonly Piece[] {
  return Array.from({ length: count }, (_, i): Piece => {
    const [x, y] = [(i % 100) * 10, Math.floor(i / 100) * 10];
    const turn = i * 2.399963;
    if (i % 5 === 0) return circle([x, y], 4);
    return {
      kind: 'line',
      a: [x - 7 * Math.cos(turn), y - 7 * Math.sin(turn)],
      b: [x + 7 * Math.cos(turn), y + 7 * Math.sin(turn)],
    };
  });
}

export function arrangementTime(count: number): { readonly milliseconds: number; readonly edges: number } {
  const pieces = scattered(count);
  let edges = 0;
  const milliseconds = since(() => (edges = arrange(pieces, 1e-6).edges.length));
  return { milliseconds, edges };
}

/** A closed wavy outline of so many cubics. */
function wavy(count: number): { readonly closed: true; readonly pieces: readonly Piece[] } {
  const at = (i: number, away = 0): Vec => {
    const angle = (2 * Math.PI * i) / count;
    const radius = 2000 + 4 * (i % 2) + away;
    return [radius * Math.cos(angle), radius * Math.sin(angle)];
  };
  return {
    closed: true,
    pieces: Array.from({ length: count }, (_, i): Piece => ({
      kind: 'cubic',
      a: at(i),
      b: at(i + 0.33, 2),
      c: at(i + 0.67, 2),
      d: at(i + 1),
    })),
  };
}

export function offsetTime(count: number): number {
  const path = wavy(count);
  return since(() => offsetClosed([path], 3, { corners: 'round', precision: 0.01, tolerance: 1e-6 }));
}

/** So many that none lies farther off than a hundredth of a millimetre. Source: Wang, The subdivision algorithm for finding the control polygon, 1984. */
function chordsOf(piece: Piece): number {
  if (piece.kind !== 'cubic') return 1;
  const bend = (p: Vec, q: Vec, r: Vec) => Math.hypot(p[0] - 2 * q[0] + r[0], p[1] - 2 * q[1] + r[1]);
  return Math.ceil(
    Math.sqrt((0.75 * Math.max(bend(piece.a, piece.b, piece.c), bend(piece.b, piece.c, piece.d))) / 0.01),
  );
}

function sliver({ a, b }: Line, width: number): readonly Vec[] {
  const length = distance(a, b);
  const [x, y] = [((a[1] - b[1]) / length) * width, ((b[0] - a[0]) / length) * width];
  return [
    [a[0] - x, a[1] - y],
    [b[0] - x, b[1] - y],
    [b[0] + x, b[1] + y],
    [a[0] + x, a[1] + y],
  ];
}

/** The peer's: the same outline and its offset in chords that keep to the same hundredth of a millimetre. */
export function peerOffsetTime(count: number): number {
  const chords = wavy(count)
    .pieces.flatMap((piece) => Array.from({ length: chordsOf(piece) }, (_, i) => pointAt(piece, i / chordsOf(piece))))
    .map(([x, y]) => ({ x, y }));
  return since(() => inflatePathsD([chords], 3, JoinType.Round, EndType.Polygon, 2, 4, 0.01));
}

/** The peer's: the same pieces, circles in chords that keep to a two-hundredth of a millimetre and lines as slivers of that width, since it knows areas only. */
export function peerUnionTime(count: number): number {
  const polygons = scattered(count).map((piece) =>
    (piece.kind === 'line' ? sliver(piece, 0.005) : Array.from({ length: 64 }, (_, i) => pointAt(piece, i / 64))).map(
      ([x, y]) => ({ x, y }),
    ),
  );
  return since(() => unionD(polygons, [], FillRule.NonZero, 4));
}

export function snapTime(count: number): number {
  const search = createSnapSearch(scattered(count).map((piece) => ({ piece, guide: false })));
  const caught = (x: number) =>
    listSnaps([x, 505], search([x, 505], 2), 2, { from: [0, 0], beyond: search([x, 505], 40) });
  caught(479);
  const rounds = 50;
  return since(() => Array.from({ length: rounds }, (_, i) => caught(480 + i / 3))) / rounds;
}
