/** Fillets of 3 to 40 mm in corners that turn by 60 to 120°, drawn with every tool, by a free hand and along the picture's edge: their radii lie within their plus-minus. */
import { createRandom } from '../../src/core/calibrate/simulation';
import { countTangentProposed, drawFillet, type FilletTool, type Hand } from './fillets';

const TRIALS = 60;

/** Of so many fillets: how many radii lie within two sigma of the truth, how many beyond four, and half of the plus-minus in the middle. `off`: how far contacts are off, mm; else as far as nobody sees. */
function draw(
  radius: number,
  tool: FilletTool,
  { caught, tangent, off }: { readonly caught: boolean; readonly tangent: boolean; readonly off?: number },
) {
  const random = createRandom(5 + radius);
  const hand: Hand = {
    normal: random.normal,
    across: caught ? 0.15 : 0.6,
    caught,
    contacts: off,
    astray:
      off === undefined ? () => Math.sqrt(3) * (2 * random.uniform() - 1) : () => Math.sign(random.uniform() - 0.5),
  };
  const read = Array.from({ length: TRIALS }, () =>
    drawFillet(radius, ((60 + 60 * random.uniform()) * Math.PI) / 180, tool, hand, tangent)!,
  );
  const misses = read.map(({ value, sigma }) => Math.abs(value - radius) / sigma);
  return {
    within: misses.filter((miss) => miss <= 2).length,
    far: misses.filter((miss) => miss > 4).length,
    sigma: read.map(({ sigma }) => sigma).sort((a, b) => a - b)[TRIALS / 2]!,
  };
}

const RADII = [3, 12, 40];

describe.each([{ caught: false }, { caught: true }])('with edges caught: $caught', ({ caught }) => {
  it.each<{ tool: FilletTool; tangent: boolean }>([
    { tool: 'arc', tangent: false },
    { tool: 'arc', tangent: true },
    { tool: 'tangent arc', tangent: false },
    { tool: 'tangent arc', tangent: true },
    { tool: 'circle', tangent: false },
  ])('by $tool, tangent taken: $tangent', ({ tool, tangent }) => {
    const drawn = RADII.map((radius) => draw(radius, tool, { caught, tangent }));
    const total = RADII.length * TRIALS;
    expect(drawn.reduce((sum, { within }) => sum + within, 0) / total).toBeGreaterThan(0.93);
    expect(drawn.reduce((sum, { far }) => sum + far, 0)).toBeLessThanOrEqual(1);
    // Smaller ones too: no kind of fillet hides behind the others.
    drawn.forEach(({ within }) => expect(within).toBeGreaterThanOrEqual(0.9 * TRIALS));
  });
});

it.each([0.5, 1, 1.5])('R12 whose contacts are %d mm off lies within its plus-minus, by every tool', (off) => {
  for (const caught of [false, true]) {
    for (const tool of ['arc', 'tangent arc'] as const) {
      for (const tangent of [false, true])
        expect(draw(12, tool, { caught, tangent, off }).within).toBeGreaterThanOrEqual(0.95 * TRIALS);
    }
  }
});

it('taking tangent makes radii better known', () => {
  for (const radius of [6, 40]) {
    expect(draw(radius, 'arc', { caught: true, tangent: true }).sigma).toBeLessThan(
      0.5 * draw(radius, 'arc', { caught: true, tangent: false }).sigma,
    );
    expect(draw(radius, 'tangent arc', { caught: false, tangent: true }).sigma).toBeLessThan(
      0.8 * draw(radius, 'tangent arc', { caught: false, tangent: false }).sigma,
    );
  }
});

it('is proposed to be tangent, once at each joint', () => {
  const random = createRandom(3);
  const counts = [6, 12, 40].flatMap((radius) =>
    Array.from({ length: 20 }, () => {
      const hand: Hand = {
        normal: random.normal,
        across: 0.15,
        caught: true,
        astray: () => Math.sqrt(3) * (2 * random.uniform() - 1),
      };
      return countTangentProposed(radius, ((60 + 60 * random.uniform()) * Math.PI) / 180, 'arc', hand);
    }),
  );
  expect(Math.max(...counts)).toBe(2);
  expect(counts.filter((count) => count === 2).length).toBeGreaterThan(0.9 * counts.length);
});
