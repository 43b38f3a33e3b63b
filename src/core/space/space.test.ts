/** Sides and poses against the six principal views of ISO 128-3 (from memory of the standard: first angle, the view from the right stands to the left). */
import * as fc from 'fast-check';
import {
  axesSeenFrom,
  cross3,
  distance3,
  dot3,
  fromSpace,
  normalOf,
  poseFacing,
  raised,
  SIDES,
  toSpace,
  type Vec3,
} from '.';

const number = fc.double({ min: -1e4, max: 1e4, noNaN: true });
const point = fc.tuple(number, number, number) as fc.Arbitrary<Vec3>;
const side = fc.constantFrom(...SIDES);

/** Where one stands who sees a side: in front of the front, to the right of the right. */
const OUTWARD = {
  front: [0, -1, 0],
  back: [0, 1, 0],
  left: [-1, 0, 0],
  right: [1, 0, 0],
  top: [0, 0, 1],
  bottom: [0, 0, -1],
} as const;

it.each(SIDES)('a plane that faces the %s looks at who stands there, right-handed', (name) => {
  const pose = poseFacing(name);
  expect(normalOf(pose).map((value) => value + 0)).toEqual([...OUTWARD[name]]);
  expect(dot3(pose.x, pose.y)).toBe(0);
  expect(dot3(cross3(pose.x, pose.y), normalOf(pose))).toBe(1);
});

it('opposite sides show the same turned over, neighbours share one direction', () => {
  const shared = (a: (typeof SIDES)[number], b: (typeof SIDES)[number]) =>
    axesSeenFrom(a).filter(({ direction }) => axesSeenFrom(b).some((other) => other.direction === direction)).length;
  expect([shared('front', 'back'), shared('left', 'right'), shared('top', 'bottom')]).toEqual([2, 2, 2]);
  expect([shared('front', 'right'), shared('front', 'top'), shared('right', 'top')]).toEqual([1, 1, 1]);
});

it('into space and back is the same place and the same height', () => {
  fc.assert(
    fc.property(side, point, number, number, number, (name, origin, x, y, height) => {
      const pose = poseFacing(name, origin);
      const back = fromSpace(pose, toSpace(pose, [x, y], height));
      expect(Math.hypot(back.at[0] - x, back.at[1] - y, back.height - height)).toBeLessThan(1e-8);
      expect(distance3(toSpace(raised(pose, height), [x, y]), toSpace(pose, [x, y], height))).toBeLessThan(1e-8);
    }),
  );
});
