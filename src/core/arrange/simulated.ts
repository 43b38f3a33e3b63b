/** For tests only: a thing in space, and scans of it from several sides, with known truth. */
import type { Random } from '../basics';
import type { Points } from '../calibrate';
import type { Vec } from '../geometry';
import { axesSeenFrom, DIRECTIONS, type Side, type Vec3 } from '../space';
import { isUpright, type Facing } from './facing';
import type { SceneFeature, Scene, SceneEvidence, SceneView } from './scene';

export interface Drawn<F extends Facing = Side> {
  readonly id: string;
  readonly side: F;
  /** mm a pixel, radians that it lies turned on its sheet, and where zero is, px. */
  readonly scale: number;
  readonly turn: number;
  readonly zero: Vec;
  /** A length of its own: between which features, and its one sigma. */
  readonly sized?: { readonly from: string; readonly to: string; readonly sigma: number };
}

export const WIDTH = 3000;
export const HEIGHT = 2400;

type Thing = Readonly<Record<string, Vec3>>;

/** Where a point of the thing lies as a view sees it, to the right and upwards, mm. */
function seenAt(side: Facing, thing: Thing, [x, y, z]: Vec3): Vec {
  if (!isUpright(side)) {
    const [u, v] = axesSeenFrom(side).map(({ direction, sign }) => sign * [x, y, z][DIRECTIONS.indexOf(direction)]!);
    return [u!, v!];
  }
  const [from, to] = [thing[side.from]!, thing[side.to]!];
  const angle = Math.atan2(to[1] - from[1], to[0] - from[0]);
  return [Math.cos(angle) * (x - from[0]) + Math.sin(angle) * (y - from[1]), z];
}

/** Where a point of the thing is on a sheet, px. */
export function drawnAt(
  { side, scale, turn, zero }: Omit<Drawn<Facing>, 'id' | 'sized'>,
  point: Vec3,
  thing: Thing = {},
): Vec {
  const [u, v] = seenAt(side, thing, point);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return [zero[0] + (c * u - s * v) / scale, zero[1] - (s * u + c * v) / scale];
}

/** How far apart two points of the thing are as a view sees them, mm. */
export function seenLength(side: Facing, thing: Thing, a: string, b: string): number {
  const [p, q] = [a, b].map((name) => seenAt(side, thing, thing[name]!)) as [Vec, Vec];
  return Math.hypot(q[0] - p[0], q[1] - p[1]);
}

export interface World<F extends Facing = Side> {
  readonly thing: Readonly<Record<string, Vec3>>;
  readonly drawn: readonly Drawn<F>[];
  /** One sigma of a click, px. */
  readonly click: number;
  readonly evidence?: readonly SceneEvidence[];
  readonly features?: (features: readonly SceneFeature[]) => readonly SceneFeature[];
}

/** What somebody points at and says of such a world; without a random everything is as it is. */
export function simulatedScene(
  { thing, drawn, click, evidence = [], features = (all) => all }: World<Facing>,
  random?: Random,
): Scene {
  const off = () => (random ? click * random.normal() : 0);
  const names = Object.keys(thing);
  const views = drawn.map((view): SceneView => {
    const points: Points = Object.fromEntries(
      names.map((name) => {
        const [x, y] = drawnAt(view, thing[name]!, thing);
        return [name, { at: [x + off(), y + off()] as Vec, sigma: click }];
      }),
    );
    return {
      id: view.id,
      picture: { width: WIDTH, height: HEIGHT, kind: 'scan' },
      side: view.side,
      points,
      evidence: ownSize(view, thing, random),
      lift: { mm: 0, sigma: 1e-9 },
      model: 'similarity',
      lens: 'none',
    };
  });
  const all = names.map((id): SceneFeature => ({ id, seen: drawn.map(({ id: view }) => ({ view, points: [id] })) }));
  return {
    views,
    features: features(all),
    evidence: evidence.map((piece) =>
      piece.kind === 'distance' && random ? { ...piece, mm: piece.mm + piece.sigma * random.normal() } : piece,
    ),
  };
}

/** The size that is printed in a view, if any is. */
function ownSize(
  { side, sized }: Drawn<Facing>,
  thing: World['thing'],
  random: Random | undefined,
): SceneView['evidence'] {
  if (!sized) return [];
  const { from, to, sigma } = sized;
  const mm = seenLength(side, thing, from, to) + (random ? sigma * random.normal() : 0);
  return [{ id: 'own', kind: 'length', from, to, mm, sigma }];
}

/** A thing of so many points in a box of 420 × 180 × 260 mm, and sheets of it that lie a little askew. */
export function randomWorld(random: Random, points: number, sides: readonly Side[], click = 1): World {
  const between = (low: number, high: number) => low + (high - low) * random.uniform();
  const thing = Object.fromEntries(
    Array.from({ length: points }, (_, i) => [
      `p${i}`,
      [between(-210, 210), between(-90, 90), between(0, 260)] as Vec3,
    ]),
  );
  const drawn = sides.map((side) => ({
    id: side,
    side,
    scale: between(0.15, 0.4),
    turn: between(-0.06, 0.06),
    zero: [between(1300, 1700), between(1500, 1900)] as Vec,
  }));
  return { thing, drawn, click };
}

/** The two points of a thing that lie farthest apart as a side sees them. */
export function farthest({ thing }: Pick<World, 'thing'>, side: Facing): readonly [string, string] {
  const names = Object.keys(thing);
  const pairs = names.flatMap((a, i) => names.slice(i + 1).map((b) => [a, b] as const));
  return pairs.reduce((best, pair) =>
    seenLength(side, thing, ...pair) > seenLength(side, thing, ...best) ? pair : best,
  );
}
