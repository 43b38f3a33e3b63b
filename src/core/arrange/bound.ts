/** For tests only: what clicks and sizes of a simulated world say at best, by itself: nothing of the adjustment is used. */
import { pseudoInverse, Matrix } from 'ml-matrix';
import { DIRECTIONS, type Direction, type Vec3 } from '../space';
import type { Facing } from './facing';
import type { SceneFeature, Scene } from './scene';
import { drawnAt, seenLength, type World } from './simulated';

type Thing = Readonly<Record<string, Vec3>>;
type Known = (name: string, direction: Direction) => boolean;

/** All unknowns of a world in a row (three a point, those that are known exactly apart; four numbers a view), the thing that they say, and every click and size that follows, each over its sigma. */
function explicitModel(world: World<Facing>, known: Known) {
  const names = Object.keys(world.thing);
  const free = names.flatMap((name) =>
    DIRECTIONS.filter((direction) => !known(name, direction)).map(
      (direction) => [name, DIRECTIONS.indexOf(direction)] as const,
    ),
  );
  const thingAt = (x: readonly number[]): Thing => {
    const moved = Object.fromEntries(names.map((name) => [name, [...world.thing[name]!]]));
    free.forEach(([name, axis], i) => (moved[name]![axis] = x[i]!));
    return moved as unknown as Thing;
  };
  return {
    thingAt,
    truth: [
      ...free.map(([name, axis]) => world.thing[name]![axis]!),
      ...world.drawn.flatMap(({ scale, turn, zero }) => [Math.log(scale), turn, ...zero]),
    ],
    predict(x: readonly number[]): readonly number[] {
      const thing = thingAt(x);
      return [
        ...world.drawn.flatMap(({ side, sized }, v) => {
          const [logScale, turn, zx, zy] = x.slice(free.length + 4 * v) as [number, number, number, number];
          const stand = { side, scale: Math.exp(logScale), turn, zero: [zx, zy] as const };
          return [
            ...names.flatMap((name) => drawnAt(stand, thing[name]!, thing).map((value) => value / world.click)),
            ...(sized ? [seenLength(side, thing, sized.from, sized.to) / sized.sigma] : []),
          ];
        }),
        ...(world.evidence ?? []).flatMap((piece) =>
          piece.kind === 'distance' ? [spanOf(thing, piece.from, piece.to, piece.along) / piece.sigma] : [],
        ),
      ];
    },
  };
}

/**
 * Cramér-Rao bound, one sigma, of figures of the thing (`of`): the inverse of the information in all unknowns, on what is determined (Kay, Fundamentals of Statistical Signal Processing, 1993,
 * section 3.7).
 */
export function boundOf(world: World<Facing>, known: Known, of: (thing: Thing) => readonly number[]): number[] {
  const { predict, truth, thingAt } = explicitModel(world, known);
  const slopes = slopesOf(predict, truth);
  const moves = slopesOf((x) => of(thingAt(x)), truth);
  const covariance = moves.mmul(pseudoInverse(slopes.transpose().mmul(slopes))).mmul(moves.transpose());
  return covariance.diagonal().map(Math.sqrt);
}

/** The thing under which what was pointed at and said of it is likeliest: all unknowns at once, every click an observation of its own (Gauss-Newton from the truth). */
export function likeliest(world: World<Facing>, { views, evidence }: Scene, known: Known): Thing {
  const { predict, truth, thingAt } = explicitModel(world, known);
  const names = Object.keys(world.thing);
  const seen = [
    ...views.flatMap(({ points, evidence: own }) => [
      ...names.flatMap((name) => points[name]!.at.map((value) => value / world.click)),
      ...own.flatMap((piece) => (piece.kind === 'length' ? [piece.mm / piece.sigma] : [])),
    ]),
    ...evidence.flatMap((piece) => (piece.kind === 'distance' ? [piece.mm / piece.sigma] : [])),
  ];
  let at: readonly number[] = truth;
  for (let step = 0; step < 8; step++) {
    const slopes = slopesOf(predict, at);
    const off = Matrix.columnVector(predict(at).map((value, i) => seen[i]! - value));
    const by = pseudoInverse(slopes.transpose().mmul(slopes)).mmul(slopes.transpose().mmul(off));
    at = at.map((value, i) => value + by.get(i, 0));
  }
  return thingAt(at);
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
export const isKnownIn =
  (features: readonly SceneFeature[]): Known =>
  (name, direction) =>
    (features.find(({ id }) => id === name)?.mm?.[DIRECTIONS.indexOf(direction)] ?? null) !== null;
