import {
  endOf,
  partOf,
  pointAt,
  reversed,
  startOf,
  turningsAlong,
  velocityAt,
  type Path,
  type Piece,
} from '../geometry';

/** Pieces one after the other along which x never falls; `isTurned`: the path runs through them the other way. */
export interface MonotoneStretch {
  readonly pieces: readonly Piece[];
  readonly isTurned: boolean;
  /** x where it begins and ends. */
  readonly from: number;
  readonly to: number;
}

/** A cut that is so near an end of a piece is the end. */
const AT_END = 1e-9;
/** What runs less far along x than this share of the whole runs upright. */
const UPRIGHT = 1e-10;

/** A path parted where x turns back, in its own order. A closed one begins where x turns back. */
export function stretchesOf(path: Path): MonotoneStretch[] {
  const parts = path.pieces.flatMap(monotoneParts);
  const ends = parts.flatMap((part) => [startOf(part)[0], endOf(part)[0]]);
  const least = UPRIGHT * Math.max(1, Math.max(...ends) - Math.min(...ends));
  const ways = parts.map((part) => wayOf(part, least));
  const first = path.closed ? beginOf(ways) : 0;
  const order = parts.map((_, i) => (i + first) % parts.length);
  const groups: { way: number; pieces: Piece[] }[] = [];
  for (const i of order) {
    const [way, group] = [ways[i]!, groups.at(-1)];
    if (group && (way === 0 || group.way === 0 || group.way === way)) {
      group.pieces.push(parts[i]!);
      group.way ||= way;
    } else groups.push({ way, pieces: [parts[i]!] });
  }
  return groups.map(({ way, pieces }) => rising(pieces, way < 0));
}

export const runsUpright = (piece: Piece) => Math.abs(endOf(piece)[0] - startOf(piece)[0]) <= AT_END;

function monotoneParts(piece: Piece): readonly Piece[] {
  const cuts = [...turningsAlong(piece, 0)].filter((t) => t > AT_END && t < 1 - AT_END).sort((a, b) => a - b);
  return [0, ...cuts].map((from, i) => partOf(piece, from, cuts[i] ?? 1));
}

function wayOf(part: Piece, least: number): number {
  const along = endOf(part)[0] - startOf(part)[0];
  return Math.abs(along) <= least ? 0 : Math.sign(along);
}

/** The first of the parts that runs another way than what came before it. */
function beginOf(ways: readonly number[]): number {
  const running = ways.flatMap((way, i) => (way === 0 ? [] : [{ way, i }]));
  return running.find(({ way }, k) => way !== running.at(k - 1)!.way)?.i ?? 0;
}

function rising(pieces: readonly Piece[], isTurned: boolean): MonotoneStretch {
  const along = isTurned ? pieces.map(reversed).reverse() : pieces;
  return { pieces: along, isTurned, from: startOf(along[0]!)[0], to: endOf(along.at(-1)!)[0] };
}

const STEPS = 80;

/** The parameter at which a piece along which x rises has an x: Newton's method, halved where that leads astray. */
export function parameterAlong(piece: Piece, x: number): number {
  if (piece.kind === 'line') return (x - piece.a[0]) / (piece.b[0] - piece.a[0]);
  let [low, high, t] = [0, 1, 0.5];
  for (let i = 0; i < STEPS && high - low > 1e-15; i++) {
    const off = pointAt(piece, t)[0] - x;
    if (off === 0) return t;
    if (off > 0) high = t;
    else low = t;
    const next = t - off / velocityAt(piece, t)[0];
    const isInside = next > low && next < high;
    if (isInside && Math.abs(next - t) < 1e-15) return next;
    t = isInside && i % 3 < 2 ? next : (low + high) / 2;
  }
  return t;
}
