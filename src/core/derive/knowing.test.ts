import type { Vec } from '../geometry';
import type { PointedPlace } from '../outline';
import type { FittedView } from './fits';
import { knowingIn } from './knowing';

/** A view at so many pixels a millimetre, upright three times as many as across. */
const viewOf = (perMm: number, kind: 'photo' | 'scan' | 'drawing' = 'photo', scaled = true) =>
  ({
    sheet: { kind },
    steadiness: { factor: 1.5 },
    fit: { scaled, toPlane: ([x, y]: Vec): Vec => [x / perMm, y / (3 * perMm)] },
  }) as unknown as FittedView;
const place = (normal: number): PointedPlace => ({
  kind: 'pointed',
  at: [400, 300],
  sigma: 1,
  edge: { normal, sigma: 0.13 },
});
const edgesIn = (view: FittedView, normal = 0) => knowingIn(() => view).edgesKnownTo(place(normal));

it('edges of what was photographed are known to a few hundredths of a millimetre, across each', () => {
  expect(edgesIn(viewOf(2)) / 2).toBeCloseTo(0.04, 3);
  expect(edgesIn(viewOf(2), Math.PI / 2) / 6).toBeCloseTo(0.04, 2);
});

it('and where a broken edge would show as a band, to less than a pixel', () => {
  expect(edgesIn(viewOf(200))).toBeCloseTo(0.7, 2);
  for (const [coarse, fine] of [
    [2, 5],
    [5, 20],
    [20, 100],
  ] as const)
    expect(edgesIn(viewOf(fine))).toBeGreaterThan(edgesIn(viewOf(coarse)));
});

it('of what is drawn, and of a picture without a scale, nothing is added', () => {
  expect(edgesIn(viewOf(10, 'drawing'))).toBe(0);
  expect(edgesIn(viewOf(10, 'scan'))).toBe(0);
  expect(edgesIn(viewOf(10, 'photo', false))).toBe(0);
});

it('a hand is as steady as in the view that a place names', () => {
  const views = new Map([
    [undefined, viewOf(10)],
    ['other', { ...viewOf(10), steadiness: { factor: 0.8, repetitions: 9 } }],
  ]);
  const { steadinessIn } = knowingIn((view) => views.get(view as 'other')!);
  expect([steadinessIn(), steadinessIn('other')]).toEqual([1.5, 0.8]);
});
