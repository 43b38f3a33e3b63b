import fc from 'fast-check';
import { add3, cross3, scale3, subtract3, toSpace, type Pose, type Vec3 } from '../space';
import { chooseModel, type ModelName } from './models';
import { atHeight, OWN_PLANE } from './projection';
import { toPlane, toSheet } from './sheet-map';

/** From a camera's middle, or from afar along one way. */
type Seen = { readonly from: Vec3 } | { readonly along: Vec3 };

const PICTURE = { width: 4000, height: 3000, kind: 'photo', focal35mm: 27 } as const;
/** Spread evenly: doubles of a range are mostly next to nothing. */
const number = (least: number, most: number) =>
  fc.integer({ min: 0, max: 1e6 }).map((share) => least + ((most - least) * share) / 1e6);
const unit = (v: Vec3): Vec3 => scale3(v, 1 / Math.hypot(...v));

/** Any pose of a face that is seen from above, slanted by up to 60 degrees. */
const pose: fc.Arbitrary<Pose> = fc
  .record({
    slant: number(0, 1),
    way: number(0, 6.3),
    turn: number(0, 6.3),
    at: fc.tuple(number(-99, 99), number(-99, 99), number(-30, 30)),
  })
  .map(({ slant, way, turn, at: [x, y, z] }) => {
    const normal: Vec3 = [Math.sin(slant) * Math.cos(way), Math.sin(slant) * Math.sin(way), Math.cos(slant)];
    const across = unit(cross3([0, 1, 0], normal));
    const up = cross3(normal, across);
    const along = add3(scale3(across, Math.cos(turn)), scale3(up, Math.sin(turn)));
    return { origin: [x, y, z], x: along, y: cross3(normal, along) };
  });

/** Where the ray through a point meets the view's own plane. */
function footOf(point: Vec3, seen: Seen): [number, number] {
  const along = 'along' in seen ? seen.along : subtract3(point, seen.from);
  const [x, y] = subtract3(point, scale3(along, point[2] / along[2]));
  return [x, y];
}

function expectSeen(
  name: ModelName,
  numbers: readonly number[],
  at: Pose,
  seen: Seen,
  frame = { turns: false, shifts: false },
) {
  const model = chooseModel(PICTURE, name, 'none', frame);
  const [own, map] = [model.mapAt(numbers, OWN_PLANE), model.mapAt(numbers, at)];
  for (const place of [
    [0, 0],
    [40, -25],
    [-31, 7],
  ] as const) {
    const [x, y] = toPlane(map, toSheet(own, footOf(toSpace(at, place), seen)));
    expect(x).toBeCloseTo(place[0], 6);
    expect(y).toBeCloseTo(place[1], 6);
  }
}

it('a camera sees every plane by the rays through its middle, however that is turned and shifted', () =>
  fc.assert(
    fc.property(
      pose,
      number(-0.5, 0.5),
      number(-0.5, 0.5),
      number(0, 6.3),
      number(-50, 50),
      (at, across, up, turn, shift) => {
        const [away, focal] = [Math.log(500), Math.log(1.2)];
        // It stands 500 mm above zero of the frame in which it is neither turned nor shifted.
        expectSeen(
          'camera',
          [away, across, up, focal, turn, shift, -shift],
          at,
          { from: [shift, -shift, 500] },
          { turns: true, shifts: true },
        );
      },
    ),
  ));

it('what is seen from afar is seen at its foot, on slanted planes too', () =>
  fc.assert(
    fc.property(pose, number(-0.1, 0.1), (at, stretch) => {
      expectSeen('two-scale', [Math.log(300), stretch], at, { along: [0, 0, 1] });
    }),
  ));

it('a height is a pose: what is as far up as half the way to the camera is seen at twice its size', () => {
  const model = chooseModel(PICTURE, 'camera', 'none', { turns: false, shifts: false });
  const numbers = [Math.log(500), 0, 0, Math.log(1.2)];
  const [own, half] = [OWN_PLANE, atHeight(250)].map((at) => toPlane(model.mapAt(numbers, at), [3000, 800]));
  expect(half![0]).toBeCloseTo(own![0] / 2, 9);
  expect(half![1]).toBeCloseTo(own![1] / 2, 9);
});

it('from behind a face is seen where its mirror image is seen from before, in its own axes', () =>
  fc.assert(
    fc.property(pose, number(-0.5, 0.5), number(-0.5, 0.5), (at, across, up) => {
      const [plain, behind] = [PICTURE, { ...PICTURE, mirrored: true }].map((picture) =>
        // Its middle lies aside of zero: it looks at that.
        chooseModel(picture, 'auto', 'auto', { turns: false, shifts: false }),
      );
      const numbers = [Math.log(500), across, up, Math.log(1.2), 0.02, 0, 0.01, 0.02];
      const exchanged = ([x, y, z]: Vec3): Vec3 => [-x, y, z];
      const image = { origin: exchanged(at.origin), x: exchanged(at.x), y: exchanged(at.y) };
      const [own, seen] = [behind!.mapAt(numbers, at), plain!.mapAt(numbers, image)].map((map) =>
        toPlane(map, [2900, 700]),
      );
      expect(own![0]).toBeCloseTo(seen![0], 6);
      expect(own![1]).toBeCloseTo(seen![1], 6);
      const [flat, mirrored] = [plain, behind].map((model) => toPlane(model!.mapAt(numbers, OWN_PLANE), [2900, 700]));
      expect(mirrored).toEqual([expect.closeTo(-flat![0], 9), expect.closeTo(flat![1], 9)]);
    }),
  ));
