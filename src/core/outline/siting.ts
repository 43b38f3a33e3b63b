import { SVD } from 'ml-matrix';
import { add, applied, distance, norm, scale, subtract, type Affine, type Vec } from '../geometry';
import type { OutlineEnd, Thing } from './end';
import { saidBy, type Hold, type Said } from './hold';
import { mapOfPut, type Put } from './put';

/** What is drawn on the plane `of`, set on another plane as a whole: by what is said, and where that leaves it free as it was put by hand. */
export interface Siting {
  readonly id: string;
  /** The plane on which it is set, and the one whose drawing that is. */
  readonly plane: string;
  readonly of: string;
  readonly holds: readonly Hold[];
  readonly put: Put;
  /** How far the thing stands out all round beyond what is drawn of it. mm */
  readonly overhang?: number | undefined;
}

/** How a drawing stands on another plane. */
export interface Sited {
  readonly put: Put;
  /** From its own plane to the other. */
  readonly map: Affine;
  /** What nothing that is said tells: along which direction it may slide (unit; `everywhere`: along both), and whether it may turn. */
  readonly slides: Vec | 'everywhere' | undefined;
  readonly turns: boolean;
  /** What it leaves over to each hold: as it stands, minus as it is said. mm; a turn as the mm that it makes along its edge. */
  readonly left: ReadonlyMap<string, number>;
  /** Holds of which an end is gone, or is bent now: they are not used. */
  readonly lost: readonly string[];
}

const MOST_STEPS = 60;
/** Below this share of the best known direction, a direction is not known at all. */
const UNKNOWN = 1e-7;

/** The turn and shift of a drawing by least squares, from where it was put; what is not determined stays as it was put. Weak: of two mirror-image answers the one nearer to that is taken. */
export function siteBy(
  { holds, put }: Pick<Siting, 'holds' | 'put'>,
  findEnd: (end: OutlineEnd) => Thing | undefined,
): Sited {
  const known = holds.map((hold) => saidBy(hold, findEnd(hold.own), findEnd(hold.to)));
  const said = known.flatMap((one) => one ?? []);
  const frame = frameOf(said.flatMap(({ own }) => own));
  const { unknowns, open } = settle(said, frame.from(put), frame.put);
  const stands = frame.put(unknowns);
  const turns = open.some(([, , turn]) => Math.abs(turn) > 1e-6);
  const slides = open.length - (turns ? 1 : 0);
  return {
    put: stands,
    map: mapOfPut(stands),
    turns,
    slides: slides === 0 ? undefined : slides === 2 ? 'everywhere' : slideOf(open),
    left: new Map(said.map(({ hold, left }) => [hold.id, left(mapOfPut(stands))])),
    lost: holds.filter((_, i) => !known[i]).map(({ id }) => id),
  };
}

/** Where the middle of what is held lies, across and up, and the turn times its reach: numbers of like size, which hardly lean on each other. */
type Unknowns = readonly [number, number, number];

interface Frame {
  from(put: Put): Unknowns;
  put(unknowns: Unknowns): Put;
}

function frameOf(own: readonly Vec[]): Frame {
  const sum = own.reduce<Vec>(add, [0, 0]);
  const middle = scale(sum, 1 / Math.max(1, own.length));
  const reach = Math.max(1, ...own.map((place) => distance(place, middle)));
  return {
    from: (put) => [...applied(mapOfPut(put), middle), put.turn * reach],
    put([x, y, turned]) {
      const turn = turned / reach;
      return { turn, at: subtract([x, y], applied(mapOfPut({ at: [0, 0], turn }), middle)) };
    },
  };
}

/** Gauss and Newton's steps, each the shortest that does it, so that what is free stays where it is; halved where they would make it worse. With the directions that stay open. */
function settle(
  said: readonly Said[],
  start: Unknowns,
  putOf: Frame['put'],
): { readonly unknowns: Unknowns; readonly open: readonly Unknowns[] } {
  const leftAt = (x: Unknowns) => {
    const map = mapOfPut(putOf(x));
    return said.flatMap(({ sigma, left, apart }) => (apart?.(map) ?? [left(map)]).map((mm) => mm / sigma));
  };
  const costAt = (x: Unknowns) => leftAt(x).reduce((sum, one) => sum + one * one, 0);
  let unknowns = start;
  for (let step = 0; step < MOST_STEPS; step++) {
    const by = shortestStep(directionsAt(leftAt, unknowns).known, leftAt(unknowns));
    const cost = costAt(unknowns);
    let share = 1;
    while (share > LEAST_SHARE && costAt(stepped(unknowns, by, share)) > cost) share /= 2;
    if (share <= LEAST_SHARE || Math.hypot(...by) < ROUNDING) break;
    unknowns = stepped(unknowns, by, share);
  }
  return { unknowns, open: directionsAt(leftAt, unknowns).open };
}

/** Steps are halved down to this, and are none below that many mm. */
const LEAST_SHARE = 1e-6;
const ROUNDING = 1e-10;
/** For slopes: far above rounding and far below any bend. mm */
const STEP = 1e-3;

const AXES = [0, 1, 2] as const;
const stepped = (from: Unknowns, by: readonly number[], share = 1): Unknowns => [
  from[0] + share * by[0]!,
  from[1] + share * by[1]!,
  from[2] + share * by[2]!,
];

/** A direction of the unknowns, how much of what is left over it changes, and which. */
interface Direction {
  readonly along: Unknowns;
  readonly size: number;
  readonly changes: readonly number[];
}

/** What is said of which directions of the unknowns, by singular values. */
function directionsAt(
  leftAt: (x: Unknowns) => readonly number[],
  x: Unknowns,
): { readonly known: readonly Direction[]; readonly open: readonly Unknowns[] } {
  const columns = AXES.map((axis) => {
    const along = AXES.map((other) => (other === axis ? STEP : 0));
    const before = leftAt(stepped(x, along, -1));
    return leftAt(stepped(x, along)).map((value, i) => (value - before[i]!) / (2 * STEP));
  });
  // As many rows as unknowns, so that each of these has its direction.
  const rows = Array.from({ length: Math.max(AXES.length, columns[0]!.length) }, (_, i) =>
    columns.map((column) => column[i] ?? 0),
  );
  const { diagonal, leftSingularVectors: left, rightSingularVectors: right } = new SVD(rows);
  const all = AXES.map((k) => ({
    along: right.getColumn(k) as unknown as Unknowns,
    size: diagonal[k]!,
    changes: left.getColumn(k),
  }));
  const isKnown = ({ size }: Direction) => size > UNKNOWN * Math.max(...diagonal);
  return {
    known: all.filter(isKnown),
    open: all.filter((one) => !isKnown(one)).map(({ along }) => along),
  };
}

function shortestStep(known: readonly Direction[], left: readonly number[]): readonly number[] {
  const shares = known.map(({ size, changes }) => -left.reduce((sum, one, i) => sum + one * changes[i]!, 0) / size);
  return AXES.map((axis) => known.reduce((sum, { along }, k) => sum + shares[k]! * along[axis], 0));
}

/** Of open directions, one of which may be a turn, the one along which nothing turns. */
function slideOf(open: readonly Unknowns[]): Vec {
  const turning = open.find(([, , turn]) => Math.abs(turn) > 1e-6);
  const other = open.find((direction) => direction !== turning);
  const [x, y] =
    turning && other ? AXES.map((axis) => other[axis] - (turning[axis] * other[2]) / turning[2]) : open[0]!;
  return scale([x!, y!], 1 / norm([x!, y!]));
}
