/**
 * Against practice. A hand-size part photographed close and square-on traces to about 1/32 in (common practice); a slanted one, from a
 * step aside, has to come out within what is stated. The pictures' truth is the demo generator's, whose camera is richer than any fit assumes.
 */
import { scene as square } from '../demo/scenes/blade';
import { slanted } from '../demo/scenes/slanted';
import { truthOf } from '../demo/truth';
import { fitView, measuredLength, type Observation, type FitInput, type Points } from '../src/core/calibrate';
import { createRandom } from '../src/core/calibrate/simulation';
import type { Vec } from '../src/core/geometry';

type Truth = ReturnType<typeof truthOf>;
/** The slanted scene through the lens of a phone that has corrected most of its bow, and as it is, bowed by 3 %. */
const CORRECTED = truthOf({ ...slanted, camera: { ...slanted.camera, lens: square.camera.lens } });
const BOWED = truthOf(slanted);
const INCH = 25.4;

/** Sizes on the blade: between its holes, and from end to end of its edges. */
function listSizes({ blade }: Truth): { readonly from: Vec; readonly to: Vec; readonly mm: number }[] {
  const places = [...blade.holes.map(({ px, centre }) => ({ px, mm: centre })), ...blade.strokes.map(({ to }) => to)];
  return places
    .flatMap((a, i) =>
      places
        .slice(i + 1)
        .map((b) => ({ from: a.px as Vec, to: b.px as Vec, mm: Math.hypot(a.mm[0] - b.mm[0], a.mm[1] - b.mm[1]) })),
    )
    .filter(({ mm }) => mm > 10);
}

interface Hand {
  /** One sigma of a place, px. */
  readonly sigma: number;
  shaky(at: readonly [number, number]): { readonly at: Vec; readonly sigma: number };
}

function handOf(seed: number, sigma: number): Hand {
  const random = createRandom(seed);
  return { sigma, shaky: ([x, y]) => ({ at: [x + sigma * random.normal(), y + sigma * random.normal()], sigma }) };
}

const lengthOf = (id: string, mm: number): Observation => ({
  id,
  kind: 'length',
  from: `${id}a`,
  to: `${id}b`,
  mm,
  sigma: 0.1,
});

function fitOf(truth: Truth, focal35mm: number, points: Points, evidence: readonly Observation[]) {
  const input: FitInput = {
    picture: { ...truth.picture, kind: 'photo', focal35mm },
    datum: { origin: [0, 0], direction: 0 },
    points,
    evidence,
    lift: { mm: truth.blade.rim - truth.card.rim, sigma: 0.15 },
  };
  const fit = fitView(input);
  if (!fit.ok) throw new Error(fit.code);
  return fit.value;
}

it('a part of a hand’s size, square-on and close, comes out within 1/32 in by one length and plain taps', () => {
  const truth = truthOf(square);
  const off: number[] = [];
  for (let seed = 1; seed <= 12; seed++) {
    const hand = handOf(seed, 1);
    // The rule lies along the whole part: what anybody would take.
    const [from, to] = [20, 240].map((mark) => truth.rule.marks.find((other) => other.mark === mark)!.px);
    const fit = fitOf(truth, 52, { la: hand.shaky(from!), lb: hand.shaky(to!) }, [lengthOf('l', 220)]);
    for (const size of listSizes(truth))
      off.push(measuredLength(fit, hand.shaky(size.from), hand.shaky(size.to)).value - size.mm);
  }
  expect(off.length).toBeGreaterThan(500);
  expect(off.filter((error) => Math.abs(error) <= INCH / 32).length / off.length).toBeGreaterThan(0.95);
});

it.each([
  ['a steady hand', 0.5],
  ['a finger', 2],
] as const)(
  '%s: a length that is wrong by 9 %% beside a card, a straight edge and a true length, all aside by 35°, is named alone',
  (_says, sigma) => {
    for (let seed = 1; seed <= 10; seed++) {
      const hand = handOf(seed, sigma);
      const points: Record<string, Points[string]> = {};
      const name = (id: string, at: readonly [number, number], by = hand) => {
        points[id] = { ...by.shaky(at), height: 0 };
        return id;
      };
      const edges = handOf(100 + seed, 0.2);
      const mark = (wanted: number) => BOWED.rule.marks.find((other) => other.mark === wanted)!.px;
      const [first, , , last] = BOWED.blade.holes;
      const fit = fitView({
        picture: { ...BOWED.picture, kind: 'photo', focal35mm: 27 },
        datum: { origin: [0, 0], direction: 0 },
        points,
        lift: { mm: 0, sigma: 1.5 },
        evidence: [
          {
            id: 'card',
            kind: 'rectangle',
            sides: BOWED.card.sidesPx.map((side, s) => side.map((at, i) => name(`s${s}${i}`, at, edges))),
            widthMm: BOWED.card.width,
            heightMm: BOWED.card.height,
            sigma: 0.06,
          },
          { id: 'edge', kind: 'straight', through: BOWED.rule.upperEdgePx.map((at, i) => name(`e${i}`, at)) },
          { id: 'true', kind: 'length', from: name('la', mark(20)), to: name('lb', mark(240)), mm: 220, sigma: 0.15 },
          {
            id: 'wrong',
            kind: 'length',
            from: name('wa', first!.px),
            to: name('wb', last!.px),
            mm: 0.91 * Math.hypot(132, 10),
            sigma: 0.15,
          },
        ],
      });
      expect(fit.ok && fit.value.suspects).toEqual(['wrong']);
    }
  },
);

interface Case {
  readonly says: string;
  readonly truth: Truth;
  readonly sigma: number;
  /** Lengths between marks of the rule, and whether its upper edge is said to be straight. */
  readonly lengths: readonly (readonly [number, number])[];
  readonly straight: boolean;
}

const TAP = 0.5;
const EDGE = 0.14;
const CASES: readonly Case[] = [
  {
    says: 'card and one length, taps at half a pixel',
    truth: CORRECTED,
    sigma: TAP,
    lengths: [[20, 240]],
    straight: false,
  },
  { says: 'the same, edges found at sub-pixel', truth: CORRECTED, sigma: EDGE, lengths: [[20, 240]], straight: false },
  {
    says: 'and a second long length',
    truth: CORRECTED,
    sigma: EDGE,
    lengths: [
      [20, 240],
      [0, 300],
    ],
    straight: false,
  },
  {
    says: 'and a straight edge',
    truth: CORRECTED,
    sigma: EDGE,
    lengths: [
      [20, 240],
      [0, 300],
    ],
    straight: true,
  },
  {
    says: 'all of that, the lens bowed by 3 %',
    truth: BOWED,
    sigma: EDGE,
    lengths: [
      [20, 240],
      [0, 300],
    ],
    straight: true,
  },
];

function known({ truth, lengths, straight }: Case, hand: Hand): { points: Points; evidence: Observation[] } {
  const points: Record<string, Points[string]> = {};
  const name = (id: string, at: readonly [number, number]) => {
    points[id] = hand.shaky(at);
    return id;
  };
  const sides = truth.card.sidesPx.map((side, s) => side.map((at, i) => name(`s${s}${i}`, at)));
  const marks = new Map(truth.rule.marks.map(({ mark, px }) => [mark, px]));
  const evidence: Observation[] = [
    { id: 'card', kind: 'rectangle', sides, widthMm: truth.card.width, heightMm: truth.card.height, sigma: 0.06 },
  ];
  lengths.forEach(([a, b], i) => {
    name(`l${i}a`, marks.get(a)!);
    name(`l${i}b`, marks.get(b)!);
    evidence.push(lengthOf(`l${i}`, b - a));
  });
  if (straight)
    evidence.push({ id: 'edge', kind: 'straight', through: truth.rule.upperEdgePx.map((at, i) => name(`e${i}`, at)) });
  return { points, evidence };
}

/** For each: the stated plus-minus (two sigma) of the longest hole spacing, and how its sizes come out over many hands. */
const judged = CASES.map((one) => {
  const { says, truth, sigma } = one;
  const sizes = listSizes(truth);
  let [inside, count, plusMinus, square] = [0, 0, 0, 0];
  for (let seed = 1; seed <= 16; seed++) {
    const hand = handOf(seed, sigma);
    const { points, evidence } = known(one, hand);
    const fit = fitOf(truth, 27, points, evidence);
    for (const size of sizes) {
      const { value, sigma: one } = measuredLength(fit, hand.shaky(size.from), hand.shaky(size.to));
      inside += Math.abs(value - size.mm) <= 2 * one ? 1 : 0;
      count += 1;
    }
    const [first, , , last] = truth.blade.holes;
    const spacing = measuredLength(fit, hand.shaky(first!.px), hand.shaky(last!.px));
    plusMinus += (2 * spacing.sigma) / 16;
    square += (spacing.value - Math.hypot(132, 10)) ** 2 / 16;
  }
  return { says, inside: inside / count, plusMinus, spread: Math.sqrt(square) };
});

it.each(judged.map((one) => [one.says, one] as const))('slanted by 35°: %s', (_says, { inside, plusMinus, spread }) => {
  expect(inside).toBeGreaterThanOrEqual(0.93);
  expect(spread).toBeLessThan((plusMinus / 2) * 1.15);
});

/** The table of docs/accuracy.md, for whoever refreshes it: set PRINT_TABLE to see it. */
it('better edges and more evidence bring more', () => {
  if (process.env.PRINT_TABLE)
    console.log(
      judged
        .map(
          ({ says, plusMinus, spread, inside }) =>
            `| ${says} | ±${plusMinus.toFixed(2)} | ${spread.toFixed(2)} | ${(100 * inside).toFixed(0)} % |`,
        )
        .join('\n'),
    );
  expect(judged[3]!.plusMinus).toBeLessThan(0.7 * judged[0]!.plusMinus);
});
