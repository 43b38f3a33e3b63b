/** Views laid out in projection, and folded up around the thing. */
import fc from 'fast-check';
import {
  axesSeenFrom,
  distance3,
  dot3,
  normalOf,
  SIDES,
  subtract3,
  toSpace,
  vectorOf,
  type Pose,
  type Side,
  type Vec3,
} from '../space';
import {
  lookedAt,
  PROJECTION_METHODS,
  proposeSides,
  standingFolded,
  uprightFolded,
  type Extents,
  type ProjectionMethod,
} from '.';

const EXTENTS: Extents = { across: [-100, 1500], deep: [20, 620], up: [-50, 850] };
const corners: readonly Vec3[] = EXTENTS.across.flatMap((x) =>
  EXTENTS.deep.flatMap((y) => EXTENTS.up.map((z): Vec3 => [x, y, z])),
);
/** A point of the thing as a side shows it, on its picture folded so far. */
function shownAt(side: Side, point: Vec3, projection: ProjectionMethod, fold: number): Vec3 {
  const [u, v] = axesSeenFrom(side).map((axis) => dot3(vectorOf(axis), point));
  return toSpace(standingFolded(side, EXTENTS, projection, fold), [u!, v!]);
}

describe.each(PROJECTION_METHODS)('in %s angle', (projection) => {
  it('a picture keeps its shape, whatever way it is folded', () => {
    fc.assert(
      fc.property(fc.constantFrom(...SIDES), fc.double({ min: 0, max: 1, noNaN: true }), (side, fold) => {
        const { x, y } = standingFolded(side, EXTENTS, projection, fold);
        expect([dot3(x, x), dot3(y, y), dot3(x, y)].map((value) => Math.round(1e9 * value) / 1e9 + 0)).toEqual([
          1, 1, 0,
        ]);
      }),
      { seed: 3 },
    );
  });

  it.each(SIDES)(
    'folded up, the picture of the %s stands in its own plane, and looks outward in third angle',
    (side) => {
      for (const point of corners) {
        const at = shownAt(side, point, projection, 1);
        const seen = axesSeenFrom(side).map((axis) => vectorOf(axis));
        // What it shows of the point is where the point is.
        expect(seen.every((axis) => Math.abs(dot3(axis, at) - dot3(axis, point)) < 1e-9)).toBe(true);
      }
      const pose = standingFolded(side, EXTENTS, projection, 1);
      const out = normalOf(pose);
      const middle: Vec3 = [700, 320, 400];
      const before = dot3(out, shownAt(side, middle, projection, 1)) - dot3(out, middle);
      expect(before > 0).toBe(projection === 'third');
    },
  );

  it('laid out, they lie in one plane, in projection, side by side', () => {
    const boxes = SIDES.map((side) => {
      const at = corners.map((point) => shownAt(side, point, projection, 0));
      expect(new Set(at.map(([, y]) => Math.round(1e6 * y))).size).toBe(1);
      // y down, as on a sheet.
      const [xs, ys] = [at.map(([x]) => x), at.map(([, , z]) => -z)];
      return {
        id: side as string,
        min: [Math.min(...xs), Math.min(...ys)] as const,
        max: [Math.max(...xs), Math.max(...ys)] as const,
      };
    });
    const overlap = (a: (typeof boxes)[number], b: (typeof boxes)[number]) =>
      [0, 1].every((axis) => Math.min(a.max[axis]!, b.max[axis]!) - Math.max(a.min[axis]!, b.min[axis]!) > 1e-6);
    expect(boxes.some((a, i) => boxes.slice(i + 1).some((b) => overlap(a, b)))).toBe(false);
    // A draughtsman reads the sides back off the layout.
    const read = proposeSides(boxes, projection);
    expect(Object.fromEntries(read.map(({ view, side }) => [view, side]))).toEqual(
      Object.fromEntries(SIDES.map((side) => [side, side])),
    );
  });

  it('neighbours stay joined at their edge while they fold', () => {
    for (const fold of [0, 0.3, 0.7, 1]) {
      const at = (side: Side, point: Vec3) => shownAt(side, point, projection, fold);
      const deep = EXTENTS.deep[projection === 'third' ? 0 : 1];
      for (const [side, edge] of [
        ['right', [EXTENTS.across[projection === 'third' ? 1 : 0], deep, 300]],
        ['left', [EXTENTS.across[projection === 'third' ? 0 : 1], deep, 300]],
        ['top', [300, deep, EXTENTS.up[projection === 'third' ? 1 : 0]]],
        ['bottom', [300, deep, EXTENTS.up[projection === 'third' ? 0 : 1]]],
      ] as const)
        expect(distance3(at(side, edge), at('front', edge))).toBeLessThan(1e-9);
    }
  });
});

describe.each(PROJECTION_METHODS)('a wall on an edge of the plan, in %s angle', (projection) => {
  const angles = [0, 0.4, 1.9, -2.2];
  const wallAt = (angle: number): Pose => ({
    origin: [600, 300, 0],
    x: [Math.cos(angle), Math.sin(angle), 0],
    y: [0, 0, 1],
  });
  const foldedTo = (angle: number, fold: number) => uprightFolded(wallAt(angle), EXTENTS, projection, fold);
  const inPlan = (place: Vec3, fold: number) => shownAt('top', place, projection, fold);

  it('keeps its shape, and folded up it stands on its edge, in first angle beyond the thing', () => {
    for (const angle of angles) {
      for (const fold of [0, 0.35, 1]) {
        const { x, y } = foldedTo(angle, fold);
        [dot3(x, x) - 1, dot3(y, y) - 1, dot3(x, y)].forEach((off) => expect(off).toBeCloseTo(0, 12));
      }
      const [wall, up] = [wallAt(angle), foldedTo(angle, 1)];
      expect(distance3(up.x, wall.x) + distance3(up.y, wall.y)).toBeLessThan(1e-9);
      const beyond = -dot3(subtract3(up.origin, wall.origin), normalOf(wall));
      if (projection === 'third') expect(beyond).toBeCloseTo(0, 9);
      for (const corner of corners)
        expect(-dot3(subtract3(corner, wall.origin), normalOf(wall))).toBeLessThan(
          projection === 'third' ? 1e9 : beyond + 1e-9,
        );
    }
  });

  it('laid out it lies in the sheet, seen from outside, its edge along that of the plan, and off the thing', () => {
    for (const angle of angles) {
      const [wall, laid] = [wallAt(angle), foldedTo(angle, 0)];
      expect(normalOf(laid).map((value) => Math.round(1e9 * value) / 1e9 + 0)).toEqual([0, -1, 0]);
      const hinge = EXTENTS.up[projection === 'third' ? 1 : 0];
      const [from, to] = [0, 500].map((along) => toSpace(laid, [along, hinge])) as [Vec3, Vec3];
      const [edgeFrom, edgeTo] = [0, 500].map((along) => inPlan(toSpace(wall, [along, 0]), 0)) as [Vec3, Vec3];
      expect(distance3(subtract3(to, from), subtract3(edgeTo, edgeFrom))).toBeLessThan(1e-9);
      if (projection === 'third') expect(distance3(from, edgeFrom)).toBeLessThan(1e-9);
      // All of it lies on the outer side of its edge, or in first angle beyond every corner of the thing.
      const outwards = subtract3(inPlan(toSpace(wall, [0, 0], 1), 0), edgeFrom);
      const foot = dot3(subtract3(toSpace(laid, [0, EXTENTS.up[0]]), edgeFrom), outwards);
      const top = dot3(subtract3(toSpace(laid, [0, EXTENTS.up[1]]), edgeFrom), outwards);
      const reach = corners.map((corner) => dot3(subtract3(inPlan(corner, 0), edgeFrom), outwards));
      if (projection === 'third') expect(Math.min(foot, top)).toBeGreaterThan(-1e-9);
      else expect(Math.max(foot, top)).toBeLessThan(Math.min(...reach) + 1e-9);
    }
  });
});

it('one looks from the front, from the right, from above', () => {
  const point: Vec3 = [1, 2, 3];
  const near = (a: Vec3, b: Vec3) => expect(distance3(a, b)).toBeLessThan(1e-12);
  near(lookedAt(point, 0, 0), [1, 3, -2]);
  near(lookedAt(point, Math.PI / 2, 0), [2, 3, 1]);
  near(lookedAt(point, 0, Math.PI / 2), [1, 2, 3]);
});
