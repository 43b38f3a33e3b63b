import fc from 'fast-check';
import { distance, mix, type Vec } from '@/core/geometry';
import {
  broughtIn,
  followed,
  inRoom,
  keptInSight,
  pannedBy,
  shownWhole,
  wayBetween,
  zoomedAbout,
  type Look,
} from './look';
import { freePart, fromBench, middleOfBench, toBench, type Insets, type Viewport } from './viewport';

const WHOLE = { min: [0, 0], max: [3000, 4000] } as const;
const phone = { width: 390, height: 565 };
const NONE: Insets = { top: 0, bottom: 0, right: 0 };

const someInsets = fc.record({
  top: fc.integer({ min: 0, max: 90 }),
  bottom: fc.integer({ min: 0, max: 380 }),
  right: fc.integer({ min: 0, max: 200 }),
});
const someZoom = fc.double({ min: 0.05, max: 4, noNaN: true });
const somePlace = fc.tuple(
  fc.double({ min: 0, max: 3000, noNaN: true }),
  fc.double({ min: 0, max: 4000, noNaN: true }),
);
const someViewport = fc
  .record({ insets: someInsets, zoom: someZoom, centre: somePlace })
  .map((given): Viewport => ({ ...phone, ...given }));
const byHand = (viewport: Viewport): Look => ({ viewport, isWhole: false });

const isIn = (viewport: Viewport, place: Vec, slack = 1e-6) => {
  const { min, max } = freePart(viewport);
  const at = fromBench(viewport, place);
  return [0, 1].every((axis) => at[axis]! >= min[axis]! - slack && at[axis]! <= max[axis]! + slack);
};

describe('with things lying over the bench', () => {
  it('places go to the screen and back, and the centre stands in the middle of what is free', () => {
    fc.assert(
      fc.property(someViewport, somePlace, (viewport, place) => {
        expect(distance(toBench(viewport, fromBench(viewport, place)), place)).toBeLessThan(1e-6);
        const { min, max } = freePart(viewport);
        expect(distance(fromBench(viewport, viewport.centre), mix(min, max, 0.5))).toBeLessThan(1e-9);
        expect(max[1] - min[1]).toBeGreaterThanOrEqual(80);
      }),
    );
  });

  it('the whole picture lies in the free part and fills it one way, whatever comes and goes', () => {
    fc.assert(
      fc.property(fc.array(someInsets, { minLength: 1, maxLength: 5 }), (rooms) => {
        const scene = { whole: WHOLE, focus: [] };
        const first = shownWhole(byHand({ ...phone, zoom: 1, centre: [0, 0] }), scene);
        const { viewport } = rooms.reduce((look, insets) => inRoom(look, { ...phone, insets }, scene), first);
        expect([WHOLE.min, WHOLE.max].every((corner) => isIn(viewport, corner))).toBe(true);
        const [free, a, b] = [freePart(viewport), fromBench(viewport, WHOLE.min), fromBench(viewport, WHOLE.max)];
        expect(
          Math.max((b[0] - a[0]) / (free.max[0] - free.min[0]), (b[1] - a[1]) / (free.max[1] - free.min[1])),
        ).toBeCloseTo(0.96, 9);
      }),
    );
  });

  it('what was moved is gone after where nothing of it is seen any more, and else left where the hand laid it', () => {
    let went = 0;
    fc.assert(
      fc.property(someViewport, somePlace, fc.integer({ min: 1, max: 300 }), (viewport, min, size) => {
        const max: Vec = [min[0] + size, min[1] + size];
        const [a, b] = [min, max].map((corner) => fromBench(viewport, corner)) as [Vec, Vec];
        const free = freePart(viewport);
        const wasSeen = [0, 1].every((axis) => a[axis]! <= free.max[axis]! && b[axis]! >= free.min[axis]!);
        const look = followed(byHand(viewport), { min, max });
        if (wasSeen) return expect(look.viewport).toBe(viewport);
        went++;
        expect(look.viewport.zoom).toBe(viewport.zoom);
        expect(isIn(look.viewport, mix(min, max, 0.5))).toBe(true);
      }),
    );
    expect(went).toBeGreaterThan(10);
  });

  it('what was set last is in the free part, and nothing is zoomed for it', () => {
    fc.assert(
      fc.property(someViewport, fc.array(somePlace, { minLength: 1, maxLength: 4 }), (viewport, focus) => {
        const seen = broughtIn(viewport, focus);
        expect(seen.zoom).toBe(viewport.zoom);
        expect(isIn(seen, focus.at(-1)!)).toBe(true);
      }),
    );
  });

  it('all of what was set is, where there is room for it', () => {
    fc.assert(
      fc.property(someViewport, somePlace, fc.double({ min: 0, max: 1, noNaN: true }), (viewport, from, part) => {
        const { min, max } = freePart(viewport);
        const room = Math.max(0, Math.min(max[0] - min[0], max[1] - min[1]) - 60) * part;
        const to: Vec = [from[0] + room / viewport.zoom, from[1] + room / viewport.zoom];
        const seen = broughtIn(viewport, [to, from]);
        expect(isIn(seen, from) && isIn(seen, to)).toBe(true);
      }),
    );
  });

  it('what lies in the free part already moves nothing', () => {
    fc.assert(
      fc.property(someViewport, (viewport) => {
        expect(broughtIn(viewport, [viewport.centre])).toBe(viewport);
        const look = byHand(viewport);
        expect(keptInSight(look, { whole: WHOLE, focus: [viewport.centre] })).toBe(look);
        expect(keptInSight(look, { whole: WHOLE, focus: [] })).toBe(look);
      }),
    );
  });

  it('goes back to where it was when what lay over it goes, unless a hand moved it meanwhile', () => {
    fc.assert(
      fc.property(someViewport, someInsets, somePlace, fc.boolean(), (viewport, insets, place, isMoved) => {
        const scene = { whole: WHOLE, focus: [place] };
        const start = byHand({ ...viewport, insets: NONE });
        const opened = inRoom(start, { ...phone, insets }, scene);
        const left = isMoved ? zoomedAbout(pannedBy(opened, [11, -7]), middleOfBench(opened.viewport), 1.5) : opened;
        const closed = inRoom(left, { ...phone, insets: NONE }, { whole: WHOLE, focus: [] });
        expect(closed.viewport).toMatchObject(
          isMoved
            ? { zoom: left.viewport.zoom, centre: left.viewport.centre }
            : { zoom: viewport.zoom, centre: viewport.centre },
        );
      }),
    );
  });

  it('is shown on the way from where every place of it was', () => {
    fc.assert(
      fc.property(someViewport, someViewport, somePlace, (from, to, place) => {
        const { factor, by } = wayBetween(from, to);
        const [x, y] = fromBench(to, place);
        expect(distance([x * factor + by[0], y * factor + by[1]], fromBench(from, place))).toBeLessThan(1e-4);
      }),
    );
  });
});
