/** For tests only: how well sizes of a simulated world can be known at best, by itself and from its truth: nothing of the adjustment is used. */
import { pseudoInverse, Matrix } from 'ml-matrix';
import { DIRECTIONS, type Direction, type Vec3 } from '../space';
import type { Feature } from './scene';
import { drawnAt, seenLength, type World } from './simulated';

type Thing = Readonly<Record<string, Vec3>>;

/**
 * Cramér-Rao bound, one sigma, of figures of the thing (`of`), from every click and every size: the inverse of the information in all unknowns (four numbers a view, three a point), on what is
 * determined (Kay, Fundamentals of Statistical Signal Processing, 1993, section 3.7). Coordinates that are known exactly are no unknowns.
 */
export function boundOf(
  world: World,
  known: (name: string, direction: Direction) => boolean,
  of: (thing: Thing) => readonly number[],
) {
  const names = Object.keys(world.thing);
  const free = names.flatMap((name) =>
    DIRECTIONS.filter((direction) => !known(name, direction)).map(
      (direction) => [name, DIRECTIONS.indexOf(direction)] as const,
    ),
  );
  const at = [
    ...free.map(([name, axis]) => world.thing[name]![axis]!),
    ...world.drawn.flatMap(({ scale, turn, zero }) => [Math.log(scale), turn, ...zero]),
  ];
  const thingAt = (x: readonly number[]): Thing => {
    const moved = Object.fromEntries(names.map((name) => [name, [...world.thing[name]!]]));
    free.forEach(([name, axis], i) => (moved[name]![axis] = x[i]!));
    return moved as unknown as Thing;
  };
  const observed = (x: readonly number[]) => {
    const thing = thingAt(x);
    return [
      ...world.drawn.flatMap((view, v) => {
        const [logScale, turn, zx, zy] = x.slice(free.length + 4 * v) as [number, number, number, number];
        const stand = { side: view.side, scale: Math.exp(logScale), turn, zero: [zx, zy] as const };
        const { sized } = view;
        return [
          ...names.flatMap((name) => drawnAt(stand, thing[name]!).map((value) => value / world.click)),
          ...(sized ? [seenLength(view.side, thing[sized.from]!, thing[sized.to]!) / sized.sigma] : []),
        ];
      }),
      ...(world.evidence ?? []).flatMap((piece) =>
        piece.kind === 'distance' ? [spanOf(thing, piece.from, piece.to, piece.along) / piece.sigma] : [],
      ),
    ];
  };
  const slopes = slopesOf(observed, at);
  const moves = slopesOf((x) => of(thingAt(x)), at);
  const covariance = moves.mmul(pseudoInverse(slopes.transpose().mmul(slopes))).mmul(moves.transpose());
  return covariance.diagonal().map(Math.sqrt);
}

export const spanOf = (thing: Thing, a: string, b: string, along?: Direction) => {
  const axes = along ? [DIRECTIONS.indexOf(along)] : [0, 1, 2];
  return Math.hypot(...axes.map((axis) => thing[a]![axis]! - thing[b]![axis]!));
};

function slopesOf(f: (x: readonly number[]) => readonly number[], x: readonly number[]): Matrix {
  const columns = x.map((value, i) => {
    const step = 1e-4 * Math.max(1, Math.abs(value) * 1e-2);
    const [high, low] = [f(x.with(i, value + step)), f(x.with(i, value - step))];
    return high.map((each, row) => (each - low[row]!) / (2 * step));
  });
  return new Matrix(columns).transpose();
}

/** Whether a feature's coordinate is known exactly. */
export const isKnownIn = (features: readonly Feature[]) => (name: string, direction: Direction) =>
  (features.find(({ id }) => id === name)?.mm?.[DIRECTIONS.indexOf(direction)] ?? null) !== null;
