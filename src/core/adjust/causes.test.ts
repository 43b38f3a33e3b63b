import fc from 'fast-check';
import { measureEachBy, type Cause } from './causes';

const value = fc.double({ min: -3, max: 3, noNaN: true });

describe('what independent causes swing figures by', () => {
  it('adds up as squares, to first order', () => {
    fc.assert(
      fc.property(value, value, value, (a, b, at) => {
        const causes: Cause<readonly [number, number]>[] = [(by) => [at + by, 0], (by) => [at, by]];
        const [linear, bent] = measureEachBy(([x, y]) => [a * x + b * y, x * x] as const, [at, 0], causes);
        expect(linear.sigma).toBeCloseTo(Math.hypot(a, b), 9);
        expect(bent.value).toBe(at * at);
        expect(bent.sigma).toBeCloseTo(Math.abs(2 * at), 9);
      }),
    );
  });

  it('of a cause that is one or the other is the second moment of both, however far they lie apart', () => {
    fc.assert(
      fc.property(value, value, fc.double({ min: 0.01, max: 0.5, noNaN: true }), (here, there, weight) => {
        const reach = 1 / Math.sqrt(weight);
        const cause: Cause<number> = Object.assign((by: number) => here + (by / reach) * (there - here), { reach });
        // A figure that says nothing to first order.
        const figure = (x: number) => [Math.cos(5 * (x - here))] as const;
        const [{ sigma }] = measureEachBy(figure, here, [cause]);
        expect(sigma).toBeCloseTo(Math.sqrt(weight) * Math.abs(figure(there)[0] - 1), 9);
      }),
    );
  });

  it('where there is nothing to be seen there, follows the slope', () => {
    const cause: Cause<number> = Object.assign((by: number) => by, { reach: 2 });
    const [{ sigma }] = measureEachBy((x) => [x > 1 ? NaN : 3 * x] as const, 0, [cause]);
    expect(sigma).toBeCloseTo(3, 9);
  });
});
