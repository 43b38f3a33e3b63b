import fc from 'fast-check';
import { tiltOf } from './tilt';

const DEGREE = Math.PI / 180;

/** Where a phone's camera looks, in the frame of a table (x right, y away, z up), by the rotation that the standard writes out (W3C Device Orientation, section 3.2, alpha 0). */
function axisOf(beta: number, gamma: number): readonly [number, number, number] {
  const [cb, sb, cg, sg] = [
    Math.cos(beta * DEGREE),
    Math.sin(beta * DEGREE),
    Math.cos(gamma * DEGREE),
    Math.sin(gamma * DEGREE),
  ];
  return [-sg, sb * cg, -cb * cg];
}

it('a phone over a table tells where its camera looks, as the fit counts it: right and down are positive', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -20, max: 20, noNaN: true }),
      fc.double({ min: -20, max: 20, noNaN: true }),
      (beta, gamma) => {
        const [x, y, z] = axisOf(beta, gamma);
        const { across, up } = tiltOf({ beta, gamma }, 0, 'above');
        // The fit's camera meets the plane, a unit below it, at tan(across)/cos(up) and -tan(up).
        expect(Math.tan(across * DEGREE) / Math.cos(up * DEGREE)).toBeCloseTo(x / -z, 9);
        expect(-Math.tan(up * DEGREE)).toBeCloseTo(y / -z, 9);
      },
    ),
    { seed: 3, numRuns: 100 },
  );
});

it('turned to its side, what was across is up', () => {
  const lying = tiltOf({ beta: 1, gamma: 2 }, 90, 'above');
  expect(lying.across).toBeCloseTo(-1, 9);
  expect(lying.up).toBeCloseTo(2, 9);
});

it('standing upright before a wall it is square-on at 90°', () => {
  expect(tiltOf({ beta: 90, gamma: 0 }, 0, 'front')).toEqual({ across: 0, up: 0 });
  expect(tiltOf({ beta: 87, gamma: 0 }, 0, 'front').up).toBeCloseTo(3, 9);
});
