import {
  distance,
  endOf,
  findEnds,
  findTurn,
  isOverlapping,
  isRound,
  listCrossings,
  nearestOn,
  pieceBounds,
  pieceLength,
  pointAt,
  startOf,
  tangentAt,
  type Path,
  type Piece,
  type Vec,
} from '../geometry';
import { listNeighbours, listRegions } from '../planar';
import type { Shape, ShapeFault } from './shape';

/** What keeps an outline from being cut, with its place on the view plane and its size (mm, or px without scale). */
export type Finding =
  | {
      readonly kind: 'open';
      readonly outline: string;
      readonly at: Vec;
      readonly other: Vec;
      readonly gap: number;
      readonly end: 'start' | 'end';
      readonly partner: EndOf | undefined;
    }
  | {
      readonly kind: 'crossing';
      readonly outline: string;
      readonly at: Vec;
      readonly pieces: readonly [number, number];
    }
  | {
      readonly kind: 'doubled';
      readonly outline: string;
      readonly other: string;
      readonly at: Vec;
      readonly size: number;
    }
  | {
      readonly kind: 'short';
      readonly outline: string;
      readonly segment: number;
      readonly at: Vec;
      readonly size: number;
    }
  /** Pieces run on with hardly a turn, where one of them bends: it was meant to be smooth. Radians. */
  | {
      readonly kind: 'kink';
      readonly outline: string;
      readonly segment: number;
      readonly at: Vec;
      readonly turn: number;
    }
  /** A region so narrow that nothing of it is left when it is cut. */
  | { readonly kind: 'sliver'; readonly at: Vec; readonly area: number; readonly width: number }
  | {
      readonly kind: 'fault';
      readonly outline: string;
      readonly segment: number;
      readonly at: Vec;
      readonly fault: ShapeFault;
    };

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
    ...shapes.flatMap(listKinks),
    ...listSlivers(shapes, limits),
  ];
}

function listFaults(shape: Shape): Finding[] {
  return shape.faults.map(({ segment, fault }) => ({
    kind: 'fault',
    outline: shape.id,
    segment,
    fault,
    at: shape.pieces[segment] ? pointAt(shape.pieces[segment], 0.5) : (shape.nodes[0] ?? [0, 0]),
  }));
}

/** Every end of an open outline, with the nearest other open end: its own other end, or another outline's. */
function listOpenEnds(shapes: readonly Shape[]): Finding[] {
  const ends = shapes.flatMap((shape): OpenEnd[] => {
    return shape.paths.flatMap((path): OpenEnd[] => {
      const ends = path.closed ? undefined : findEnds(path);
      return ends
        ? [
            { outline: shape.id, end: 'start', at: ends[0] },
            { outline: shape.id, end: 'end', at: ends[1] },
          ]
        : [];
    });
  });
  return ends.map((end) => {
    const partner = ends
      .filter((other) => other !== end)
      .reduce<OpenEnd | undefined>(
        (best, other) => (!best || distance(other.at, end.at) < distance(best.at, end.at) ? other : best),
        undefined,
      );
    return {
      kind: 'open',
      outline: end.outline,
      end: end.end,
      at: end.at,
      other: partner?.at ?? end.at,
      gap: partner ? distance(end.at, partner.at) : 0,
      partner: partner && { outline: partner.outline, end: partner.end },
    };
  });
}

/** A turn between these is a kink, radians: less shows nowhere, more is a corner. */
const KINK = { least: 0.005, most: 0.2 } as const;

/** Joints that hardly turn, at one side of which there is an arc or a curve. */
function listKinks(shape: Shape): Finding[] {
  return shape.paths.flatMap(({ pieces, closed }) =>
    pieces.flatMap((piece, segment): Finding[] => {
      const next = pieces[segment + 1] ?? (closed && pieces.length > 1 ? pieces[0] : undefined);
      if (!next || (piece.kind === 'line' && next.kind === 'line')) return [];
      const turn = Math.abs(findTurn(tangentAt(piece, 1), tangentAt(next, 0)) ?? 0);
      return turn > KINK.least && turn < KINK.most
        ? [{ kind: 'kink', outline: shape.id, segment, at: endOf(piece), turn }]
        : [];
    }),
  );
}

/** Regions narrower than the shortest piece that is let pass. */
function listSlivers(shapes: readonly Shape[], { shortest, touching }: CheckLimits): Finding[] {
  return listRegions(
    shapes.flatMap(({ finished }) => finished),
    touching / 1000,
  ).flatMap(({ area, around, inside }): Finding[] => {
    const width = (2 * area) / around.pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);
    return width < shortest ? [{ kind: 'sliver', at: inside, area, width }] : [];
  });
}

/** Crossings of an outline with itself; the shared ends of neighbouring pieces do not count. */
function listSelfCrossings(shape: Shape, touching: number): Finding[] {
  return shape.paths.flatMap((path) => crossingsOf(shape.id, path, touching));
}

function crossingsOf(outline: string, { pieces, closed }: Path, touching: number): Finding[] {
  const count = pieces.length;
  const bounds = pieces.map(pieceBounds);
  const findings: Finding[] = [];
  for (let i = 0; i < count; i++) {
    for (let k = i + 1; k < count; k++) {
      if (!isOverlapping(bounds[i]!, bounds[k]!, touching)) continue;
      const [a, b] = [pieces[i]!, pieces[k]!];
      const joints = [
        k === i + 1 ? endOf(a) : undefined,
        closed && i === 0 && k === count - 1 ? startOf(a) : undefined,
      ];
      for (const { point } of listCrossings(a, b)) {
        if (joints.some((joint) => joint && distance(joint, point) <= touching)) continue;
        findings.push({ kind: 'crossing', outline, at: point, pieces: [i, k] });
      }
    }
  }
  return findings;
}

/** Pieces that lie on each other, along their whole length or a part of it, in any outlines. */
function listDoubled(shapes: readonly Shape[], touching: number): Finding[] {
  const all = shapes.flatMap((shape) => shape.finished.map((piece) => ({ outline: shape.id, piece })));
  return listNeighbours(
    all.map(({ piece }) => pieceBounds(piece)),
    touching,
  ).flatMap(([i, k]): Finding[] => {
    const [a, b] = [all[i]!, all[k]!];
    const found = isDoubled(a.piece, b.piece, touching)
      ? { at: pointAt(a.piece, 0.5), size: pieceLength(a.piece) }
      : overlapOf(a.piece, b.piece, touching);
    return found ? [{ kind: 'doubled', outline: a.outline, other: b.outline, ...found }] : [];
  });
}

/** The stretch in which one straight piece lies on another. */
function overlapOf(a: Piece, b: Piece, touching: number): { readonly at: Vec; readonly size: number } | undefined {
  if (a.kind !== 'line' || b.kind !== 'line') return undefined;
  const ends = [
    ...[a.a, a.b].filter((end) => nearestOn(b, end).distance <= touching),
    ...[b.a, b.b].filter((end) => nearestOn(a, end).distance <= touching),
  ];
  const farthest = ends
    .flatMap((p, i) => ends.slice(i + 1).map((q) => [p, q] as const))
    .sort(([p, q], [r, t]) => distance(r, t) - distance(p, q))[0];
  const size = farthest ? distance(...farthest) : 0;
  return farthest && size > 100 * touching
    ? { at: [(farthest[0][0] + farthest[1][0]) / 2, (farthest[0][1] + farthest[1][1]) / 2], size }
    : undefined;
}

function isDoubled(a: Piece, b: Piece, touching: number): boolean {
  if (pieceLength(a) <= touching) return false;
  const samples = isRound(a) ? [0, 0.3, 0.6] : [0, 0.25, 0.5, 0.75, 1];
  return (
    samples.every((t) => nearestOn(b, pointAt(a, t)).distance <= touching) &&
    samples.every((t) => nearestOn(a, pointAt(b, t)).distance <= touching)
  );
}

function listShort(shape: Shape, shortest: number): Finding[] {
  return shape.pieces.flatMap((piece, segment): Finding[] => {
    const size = pieceLength(piece);
    return size < shortest ? [{ kind: 'short', outline: shape.id, segment, at: pointAt(piece, 0.5), size }] : [];
  });
}
