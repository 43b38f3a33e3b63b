/** How a picture lies on the bench when it is worked along an edge. */
import { createDeriver } from '@/core/derive';
import { distance, type Vec } from '@/core/geometry';
import { addEvidence, addSheet, createView, setWorkAlong, type Evidence } from '@/core/job';
import { jobOf, scanOf } from '@/core/job/for-tests';
import { acrossFrom, layingBy, squaredUp, turned } from './laying';

const ALONG = 0.3;
/** A map of 5 px a millimetre whose corners are known: across is right, up is up. */
const corner = (id: string, [x, y]: Vec): Evidence => ({
  id,
  kind: 'known-point',
  groups: [[id]],
  said: { across: { value: x, written: '' }, up: { value: y, written: '' } },
  guess: false,
  role: 'use',
});
const sheet = scanOf(2000, 1000);
const job = jobOf([
  addSheet(sheet, createView('v', sheet)),
  ...(
    [
      ['a', [0, 1000], [0, 0]],
      ['b', [2000, 1000], [400, 0]],
      ['c', [0, 0], [0, 200]],
    ] as const
  ).map(([id, at, mm]) => addEvidence('v', corner(id, mm), [{ id, at, sigma: 0.1 }])),
  setWorkAlong('v', -ALONG, ALONG),
]);
const fitted = createDeriver()(job).views.get('v')!;

it.each([
  ['as it was taken', layingBy(turned(fitted)!)],
  ['squared up', layingBy(squaredUp(fitted))],
])('%s, what runs along the edge lies level, and every place comes back', (_, laying) => {
  const [from, to] = [
    laying.fromPlane([100, 50]),
    laying.fromPlane([100 + 90 * Math.cos(ALONG), 50 + 90 * Math.sin(ALONG)]),
  ];
  expect([to[0] - from[0], to[1] - from[1]]).toEqual([expect.closeTo(450, 3), expect.closeTo(0, 3)]);
  for (const at of [
    [10, 20],
    [1990, 700],
    [400, 990],
  ] as const) {
    expect(distance(laying.toSheet(laying.toBench(at)), at)).toBeLessThan(1e-6);
    expect(distance(laying.toBench(at), laying.fromPlane(fitted.fit.toPlane(at)))).toBeLessThan(1e-6);
  }
});

it("what lies across is told in the plane's own axes, whichever way the view is turned", () => {
  const [x, y] = acrossFrom([700, 300], fitted.fit);
  expect([x > 700, y]).toEqual([true, expect.closeTo(300, 3)]);
});

it('its figures stay in the axes that are known', () => {
  const [x, y] = fitted.fit.toPlane([1000, 500]);
  expect([x, y]).toEqual([expect.closeTo(200, 3), expect.closeTo(100, 3)]);
});
