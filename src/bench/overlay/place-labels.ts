import { add, distance, findDirection, mix, perpendicular, scale, subtract, type Vec } from '@/core/geometry';

/** Something on the drawing that wants words beside it. CSS px of the bench. */
export interface LabelWish {
  readonly key: string;
  /** Of its slip of paper. */
  readonly size: Vec;
  /** Where its middle may stand, the best first. */
  readonly places: readonly LabelPlace[];
}

export interface LabelPlace {
  readonly at: Vec;
  /** The place that a thin line leads from, where it does not stand on what it belongs to. */
  readonly from?: Vec | undefined;
}

/** A line that no label of others may hide. */
export interface LabelLine {
  /** The key of the label that belongs to it. */
  readonly of: string;
  readonly from: Vec;
  readonly to: Vec;
}

/** `isFolded`: there was no room for the words, and a mark stands for them. */
export interface PlacedLabel extends LabelPlace {
  readonly key: string;
  readonly isFolded: boolean;
}

/** Between two slips, CSS px. */
const GAP = 3;
/** A mark that stands for words, CSS px. */
export const MARK_SIZE: Vec = [16, 16];

interface Slip {
  readonly at: Vec;
  readonly size: Vec;
}

const isOver = (a: Slip, b: Slip, gap: number) =>
  [0, 1].every((axis) => Math.abs(a.at[axis]! - b.at[axis]!) < (a.size[axis]! + b.size[axis]!) / 2 + gap);

type Segment = Pick<LabelLine, 'from' | 'to'>;

/** Whether a segment goes through a slip. */
export const isCrossed = (slip: Slip, segment: Segment): boolean => findShareWithin(slip, segment) !== undefined;

/** From which to which share of itself a segment runs within a box, by the slabs of its sides (Kay & Kajiya, Ray tracing complex scenes, 1986). */
function findShareWithin({ at, size }: Slip, { from, to }: Segment): readonly [number, number] | undefined {
  let [enter, leave] = [0, 1];
  for (const axis of [0, 1] as const) {
    const [start, way] = [from[axis], to[axis] - from[axis]];
    const sides = [at[axis] - size[axis] / 2, at[axis] + size[axis] / 2];
    if (way === 0) {
      if (start <= sides[0]! || start >= sides[1]!) return undefined;
      continue;
    }
    const [near, far] = sides.map((side) => (side - start) / way).sort((a, b) => a - b) as [number, number];
    [enter, leave] = [Math.max(enter, near), Math.min(leave, far)];
  }
  return enter < leave ? [enter, leave] : undefined;
}

const isWithin = ({ at, size }: Slip, [width, height]: Vec) =>
  at[0] >= size[0] / 2 && at[1] >= size[1] / 2 && at[0] <= width - size[0] / 2 && at[1] <= height - size[1] / 2;

/**
 * Finds every label a place where it lies on no other and no line of others runs under it; one that has none becomes a mark, which lies on no label either. What can stand wholly
 * on the bench (`room`: its width and height) does. Those that come first choose first: the same wishes always give the same places.
 */
export function placeLabels(
  wishes: readonly LabelWish[],
  lines: readonly LabelLine[],
  room: Vec,
): readonly PlacedLabel[] {
  const slips: Slip[] = [];
  const leads: LabelLine[] = [];
  const marks: { readonly at: Vec; readonly key: string; readonly index: number }[] = [];
  const placed: PlacedLabel[] = [];
  const isFree = (key: string, slip: Slip) =>
    !slips.some((other) => isOver(slip, other, GAP)) &&
    ![...lines, ...leads].some((line) => line.of !== key && isCrossed(slip, line));
  const canLead = ({ at, from }: LabelPlace) => !from || !slips.some((slip) => isCrossed(slip, { from, to: at }));
  wishes.forEach((wish, index) => {
    const slipAt = ({ at }: LabelPlace): Slip => ({ at, size: wish.size });
    const within = wish.places.filter((place) => isWithin(slipAt(place), room));
    const places = within.length > 0 ? within : wish.places;
    const found = places.find((place) => isFree(wish.key, slipAt(place)) && canLead(place));
    if (!found) return void marks.push({ at: places[0]!.at, key: wish.key, index });
    slips.push({ at: found.at, size: wish.size });
    if (found.from) leads.push({ of: wish.key, from: found.from, to: found.at });
    placed[index] = { ...found, key: wish.key, isFolded: false };
  });
  // Marks come last: they are small, and none takes the room of words.
  for (const { at, key, index } of marks) placed[index] = { key, at: markPlace(at, slips), isFolded: true };
  return placed;
}

/** The nearest place around one at which a mark lies on no label; on other marks it may. */
function markPlace(at: Vec, slips: readonly Slip[]): Vec {
  const STEP = 6;
  for (let ring = 0; ; ring++) {
    for (let i = 0; i < Math.max(1, 6 * ring); i++) {
      const turn = (i * Math.PI) / (3 * Math.max(1, ring));
      const place: Vec = [at[0] + ring * STEP * Math.cos(turn), at[1] + ring * STEP * Math.sin(turn)];
      if (!slips.some((slip) => isOver({ at: place, size: MARK_SIZE }, slip, 0))) return place;
    }
  }
}

/** Kept clear of a figure on both sides along its line, and beside it. CSS px. */
const CLEAR = 12;
const BESIDE = 5;
/** Along its line, for a figure that finds others in the middle. */
const ALONG = [0.5, 0.36, 0.64, 0.22, 0.78];

/**
 * Where the figure of a dimension may stand: on its line where that has room for it, in the middle of what of it lies on the bench (`room`: its width and height), beyond an end where it would hide what is
 * measured, or beside it.
 */
export function placesAlong(from: Vec, to: Vec, [width, height]: Vec, room: Vec): readonly LabelPlace[] {
  const length = distance(from, to);
  const u = findDirection(subtract(to, from)) ?? [1, 0];
  const n = perpendicular(u);
  const reach = (axis: Vec) =>
    Math.min(width / 2 / Math.max(Math.abs(axis[0]), 1e-9), height / 2 / Math.max(Math.abs(axis[1]), 1e-9));
  const half = reach(u) + CLEAR;
  const on = ALONG.filter((t) => Math.min(t, 1 - t) * length > half).map((t): LabelPlace => ({ at: mix(from, to, t) }));
  // So far from the rims that the whole slip is on the bench.
  const inner = { at: scale(room, 0.5), size: subtract(room, [width, height]) };
  const [enter, leave] = findShareWithin(inner, { from, to }) ?? [0, 0];
  const seen = (leave - enter) * length > 1 ? [{ at: mix(from, to, (enter + leave) / 2) }] : [];
  const beyond: LabelPlace[] = [
    { at: add(to, scale(u, half)), from: to },
    { at: subtract(from, scale(u, half)), from },
  ];
  // As far across as the slip reaches that way, and once more as far.
  const across = (Math.abs(n[0]) * width + Math.abs(n[1]) * height) / 2 + BESIDE;
  const beside = [across, -across, 2.4 * across, -2.4 * across].flatMap((by) =>
    [0.5, 0.25, 0.75].map((t): LabelPlace => {
      const foot = mix(from, to, t);
      return { at: add(foot, scale(n, by)), from: foot };
    }),
  );
  return [...on, ...seen.filter(() => on.length > 0), ...beyond, ...beside];
}

/** Where words about a place may stand: on it or around it, the nearest first. */
export function placesAround(at: Vec, [width, height]: Vec): readonly LabelPlace[] {
  const [dx, dy] = [width / 2 + 10, height + GAP];
  const steps: readonly Vec[] = [
    [0, 0],
    [0, dy],
    [0, -dy],
    [0, 2 * dy],
    [0, -2 * dy],
    [dx, dy / 2],
    [-dx, dy / 2],
    [dx, -dy / 2],
    [-dx, -dy / 2],
    [0, 3 * dy],
    [0, -3 * dy],
  ];
  return steps.map((step, i) => ({ at: add(at, step), ...(i > 2 ? { from: at } : {}) }));
}
