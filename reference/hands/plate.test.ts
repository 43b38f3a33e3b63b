/**
 * A plate traced on photographs from our own generator (bevels, shadows, walls of holes seen aslant, lenses of 20 to 120 mm, up to 40° aside, told or not), by hands of every kind that
 * point as the app takes it: every size on it against its plus-minus, per kind of size, hand and evidence.
 */
import { HANDS, Photograph } from './photo-hand';
import { KNOWN, tracePlate, type Read } from './plate-run';
import { drawWorld, type CameraKind } from './world';

const FOCAL: readonly (readonly [number, number])[] = [
  [24, 30],
  [20, 28],
  [40, 60],
  [65, 120],
];
const WORLDS = 12;

interface Judged extends Read {
  readonly hand: string;
  readonly known: string;
  /** By how many of its sigmas it is off. */
  readonly off: number;
}

function judgeWorld(i: number): readonly Judged[] {
  const kind: CameraKind = { focal35mm: FOCAL[i % 4]!, tilt: [0, 40], told: i % 8 < 4, fill: [0.75, 0.95] };
  const photo = new Photograph(drawWorld(kind, 77300 + i));
  return Object.entries(HANDS).flatMap(([hand, how]) =>
    Object.entries(KNOWN).flatMap(([known, pieces]) => {
      const read = tracePlate(photo, pieces, how);
      expect(read).toBeDefined();
      return read!.map((one) => ({ ...one, hand, known, off: Math.abs(one.value - one.truth) / one.sigma }));
    }),
  );
}

const sizes: Judged[] = [];
beforeAll(() => {
  for (let i = 0; i < WORLDS; i++) sizes.push(...judgeWorld(i));
  if (process.env.PRINT_TABLE)
    console.log(
      `beyond four sigma: ${sizes.filter(({ off }) => off > 4).length} of ${sizes.length}\n`,
      (['hand', 'known', 'what'] as const)
        .flatMap((by) =>
          [...new Set(sizes.map((size) => size[by]))].map(
            (name) => `| ${name} | ${(100 * withinTwo(sizes.filter((size) => size[by] === name))).toFixed(1)} % |`,
          ),
        )
        .join('\n'),
    );
}, 900_000);

const withinTwo = (of: readonly Judged[]) => of.filter(({ off }) => off <= 2).length / of.length;

it('nineteen of twenty sizes lie within their plus-minus, and hardly any beyond twice that', () => {
  expect(sizes).toHaveLength(WORLDS * Object.keys(HANDS).length * Object.keys(KNOWN).length * 11);
  expect(withinTwo(sizes)).toBeGreaterThan(0.925);
  expect(withinTwo(sizes)).toBeLessThan(0.975);
  expect(sizes.filter(({ off }) => off > 4).length / sizes.length).toBeLessThan(0.004);
});

// A dozen pictures of sizes that hang together: 95 ± 5 of 100.
it.each(Object.keys(HANDS))('by %s', (hand) => {
  expect(withinTwo(sizes.filter((size) => size.hand === hand))).toBeGreaterThan(0.92);
});

it.each(Object.keys(KNOWN))('with %s', (known) => {
  expect(withinTwo(sizes.filter((size) => size.known === known))).toBeGreaterThan(0.92);
});

it.each(['diameter', 'spacing', 'width', 'radius', 'angle'] as const)('of each %s', (what) => {
  expect(withinTwo(sizes.filter((size) => size.what === what))).toBeGreaterThan(0.9);
});
