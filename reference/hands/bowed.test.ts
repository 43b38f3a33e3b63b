/** A page that bows up between its long sides: it is said that it is not flat, nobody's word is taken for wrong, and the plus-minus grows with it. */
import { fitView, measuredLength, type Observation, type Fit, type Points } from '../../src/core/calibrate';
import { distance, type Vec } from '../../src/core/geometry';
import { drawWorld, type World } from './world';

/** How high a page stands that is up to `rise` mm off its table, in the middle between its long sides. */
const heightAt = (rise: number, y: number) => rise * (1 - (y / 105) ** 2);

const ASKED: readonly (readonly [Vec, Vec])[] = [
  [
    [-80, 60],
    [70, 60],
  ],
  [
    [-20, -60],
    [-20, 90],
  ],
  [
    [20, 0],
    [110, 80],
  ],
  [
    [60, 20],
    [80, 20],
  ],
];

function pageWith(
  known: 'a grid of known places' | 'its sides and three ruled lines',
  rise: number,
  seed: number,
): { readonly world: World; readonly fit: Fit } {
  const world = drawWorld({ focal35mm: [24, 30], tilt: [0, 25], told: true, fill: [0.8, 0.9] }, seed);
  const points: Record<string, Points[string]> = {};
  const point = (at: Vec): string => {
    const [x, y] = world.see(at, heightAt(rise, at[1]));
    const id = `p${Object.keys(points).length}`;
    points[id] = { at: [x + 0.3 * world.random.normal(), y + 0.3 * world.random.normal()], sigma: 0.5, height: 0 };
    return id;
  };
  const sides: readonly (readonly Vec[])[] = [
    [
      [-100, -105],
      [100, -105],
    ],
    [
      [148.5, -70],
      [148.5, 70],
    ],
    [
      [100, 105],
      [-100, 105],
    ],
    [
      [-148.5, 70],
      [-148.5, -70],
    ],
  ];
  const evidence: Observation[] =
    known === 'a grid of known places'
      ? [-120, -40, 40, 120].flatMap((x) =>
          [-90, -30, 30, 90].map((y): Observation => ({
            id: `${x} ${y}`,
            kind: 'known-point',
            point: point([x, y]),
            mm: [x, y],
            sigma: 0.1,
          })),
        )
      : [
          {
            id: 'sheet',
            kind: 'rectangle',
            sides: sides.map((side) => side.map(point)),
            widthMm: 297,
            heightMm: 210,
            sigma: 0.5,
          },
          ...[-120, 0, 120].map((x): Observation => ({
            id: `line ${x}`,
            kind: 'straight',
            through: [-90, -45, 0, 45, 90].map((y) => point([x, y])),
          })),
        ];
  const fit = fitView({
    picture: world.picture,
    datum: { origin: [0, 0], direction: 0 },
    points,
    evidence,
    lift: { mm: 0, sigma: 1e-9 },
  });
  if (!fit.ok) throw new Error(fit.code);
  return { world, fit: fit.value };
}

const PAGES = 12;

/** The mean plus-minus of the sizes that are asked for (one sigma), and how many of them lie within two. */
function read(known: Parameters<typeof pageWith>[0], rise: number) {
  const pages = Array.from({ length: PAGES }, (_, i) => pageWith(known, rise, 900 + i));
  const sizes = pages.flatMap(({ world, fit }) =>
    ASKED.map(([a, b]) => {
      const [p, q] = [a, b].map((at) => ({ at: world.see(at, heightAt(rise, at[1])), sigma: 0.01, height: 0 })) as [
        Points[string],
        Points[string],
      ];
      const { value, sigma } = measuredLength(fit, p, q);
      return { sigma, isWithin: Math.abs(value - distance(a, b)) <= 2 * sigma };
    }),
  );
  return {
    said: pages.filter(({ fit }) => fit.warnings.includes('not-flat')).length,
    named: pages.reduce((sum, { fit }) => sum + fit.suspects.length, 0),
    sigma: sizes.reduce((sum, { sigma }) => sum + sigma, 0) / sizes.length,
    within: sizes.filter(({ isWithin }) => isWithin).length / sizes.length,
  };
}

describe.each(['a grid of known places', 'its sides and three ruled lines'] as const)('by %s', (known) => {
  const flat = read(known, 0);

  it('a flat page is flat', () => {
    expect(flat).toMatchObject({ said: 0, named: 0 });
  });

  it('a page that rises by 4 and 8 mm is not, nothing is blamed, and most sizes are within a plus-minus that is several times as wide', () => {
    for (const rise of [4, 8]) {
      const bowed = read(known, rise);
      expect(bowed.said).toBeGreaterThanOrEqual(10);
      expect(bowed.named).toBe(0);
      expect(bowed.sigma).toBeGreaterThan(3 * flat.sigma);
      // The rest is said and not measured: how a page bows is no number of the map.
      expect(bowed.within).toBeGreaterThan(0.5);
    }
  });
});
