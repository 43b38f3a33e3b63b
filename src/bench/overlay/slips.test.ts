import fc from 'fast-check';
import type { Vec } from '@/core/geometry';
import { apart } from './slips';

it('lays a few slips so that none covers another, and moves none that is alone', () => {
  const place = fc.tuple(fc.double({ min: 0, max: 300, noNaN: true }), fc.double({ min: 0, max: 300, noNaN: true }));
  fc.assert(fc.property(fc.array(place, { minLength: 1, maxLength: 4 }), (places) => {
    const size: Vec = [90, 22];
    const laid = apart(places.map((at) => ({ at, size })));
    expect(laid[0]).toEqual(places[0]);
    laid.forEach((a, i) => laid.slice(i + 1).forEach((b) => expect(Math.abs(a[0] - b[0]) >= 90 || Math.abs(a[1] - b[1]) >= 22).toBe(true)));
  }));
});
