import { add, distance, scale, subtract, type Vec } from './vec';

/** Velocities with which a curve leaves and arrives, in the direction of travel; undefined where an end is free. */
export interface CurveEnds {
  readonly first: Vec | undefined;
  readonly last: Vec | undefined;
}

/**
 * The handles of cubics through points, one pair for each stretch, such that direction and curvature run on without a jump from one to the next. Every stretch lasts as
 * long as the square root of its chord (centripetal: a curve that neither loops nor overshoots where points stand close); a velocity is counted in that time. A free end
 * bends as its stretch does, which is a parabola then: straight it would cut off a spiral. Needs three points. Two equal neighbours share what is around them without a curve between. Source: de Boor, A Practical Guide to Splines, chapter IV.
 */
export function evenHandles(
  points: readonly Vec[],
  closed: boolean,
  ends: CurveEnds = { first: undefined, last: undefined },
): readonly (readonly [Vec, Vec])[] {
  const count = points.length - (closed ? 0 : 1);
  const next = (i: number) => points[(i + 1) % points.length]!;
  const times = Array.from({ length: count }, (_, i) => durationOf(points[i]!, next(i)));
  const velocities = closed ? aroundVelocities(points, times) : alongVelocities(points, times, ends);
  return times.map((time, i) => {
    const [from, to] = [velocities[i]!, velocities[(i + 1) % points.length]!];
    return [add(points[i]!, scale(from, time / 3)), subtract(next(i), scale(to, time / 3))];
  });
}

/** How long a stretch lasts; never nothing, so that equal points are no division by it. */
export const durationOf = (a: Vec, b: Vec): number => Math.sqrt(Math.max(distance(a, b), Number.MIN_VALUE ** 0.25));

/** One row of a system that is full on the diagonal and its two neighbours only. */
interface Row {
  readonly before: number;
  readonly own: number;
  readonly after: number;
  readonly right: Vec;
}

/** What keeps the second derivative from jumping at a point between two stretches. */
function rowBetween(a: Vec, at: Vec, b: Vec, timeBefore: number, timeAfter: number): Row {
  const [before, after] = [1 / timeBefore, 1 / timeAfter];
  return {
    before,
    own: 2 * (before + after),
    after,
    right: add(scale(subtract(at, a), 3 * before * before), scale(subtract(b, at), 3 * after * after)),
  };
}

function alongVelocities(points: readonly Vec[], times: readonly number[], { first, last }: CurveEnds): readonly Vec[] {
  const end = points.length - 1;
  return solved(
    points.map((at, i): Row => {
      const fixed = i === 0 ? first : i === end ? last : undefined;
      if (fixed) return { before: 0, own: 1, after: 0, right: fixed };
      if (i === 0) return { before: 0, own: 1, after: 1, right: scale(subtract(points[1]!, at), 2 / times[0]!) };
      if (i === end)
        return { before: 1, own: 1, after: 0, right: scale(subtract(at, points[i - 1]!), 2 / times[i - 1]!) };
      return rowBetween(points[i - 1]!, at, points[i + 1]!, times[i - 1]!, times[i]!);
    }),
  );
}

/** Around a closed curve the system's corners are full too: solved as a plain one with a correction of rank one (Sherman and Morrison, 1950). */
function aroundVelocities(points: readonly Vec[], times: readonly number[]): readonly Vec[] {
  const count = points.length;
  if (count < 3) return points.map((): Vec => [0, 0]);
  const rows = points.map((at, i) =>
    rowBetween(
      points[(i + count - 1) % count]!,
      at,
      points[(i + 1) % count]!,
      times[(i + count - 1) % count]!,
      times[i]!,
    ),
  );
  const [corner, first, last] = [rows[0]!.before, rows[0]!, rows.at(-1)!];
  const gamma = -first.own;
  const plain = rows.map((row, i): Row =>
    i === 0
      ? { ...row, before: 0, own: row.own - gamma }
      : i === count - 1
        ? { ...row, after: 0, own: row.own - (last.after * corner) / gamma }
        : row,
  );
  const [y, z] = [
    solved(plain),
    solved(
      plain.map((row, i) => ({ ...row, right: [i === 0 ? gamma : i === count - 1 ? last.after : 0, 0] as const })),
    ),
  ];
  const along = (v: readonly Vec[], axis: 0 | 1) => v[0]![axis] + (corner / gamma) * v[count - 1]![axis];
  const share = ([0, 1] as const).map((axis) => along(y, axis) / (1 + along(z, 0)));
  return y.map((value, i): Vec => [value[0] - share[0]! * z[i]![0], value[1] - share[1]! * z[i]![0]]);
}

/** Gaussian elimination down the diagonal and back. */
function solved(rows: readonly Row[]): readonly Vec[] {
  const down: { readonly after: number; readonly right: Vec }[] = [];
  for (const { before, own, after, right } of rows) {
    const above = down.at(-1);
    const pivot = own - before * (above?.after ?? 0);
    down.push({
      after: after / pivot,
      right: scale(subtract(right, scale(above?.right ?? [0, 0], before)), 1 / pivot),
    });
  }
  const values: Vec[] = [];
  for (const { after, right } of down.reverse()) values.unshift(subtract(right, scale(values[0] ?? [0, 0], after)));
  return values;
}
