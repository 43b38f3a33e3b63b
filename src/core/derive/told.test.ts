/** What evidence came to, told as plain data, gives the same fit as judging it anew; and what may not be judged to the end says so. */
import fc from 'fast-check';
import { allowanceOf } from '../calibrate';
import { distance, type Vec } from '../geometry';
import { createView, type Sheet, type View } from '../job';
import { createDeriver, NOTHING_TOLD, fitOf, toldIn, toldOf, type FittedView } from '.';

const sheetOf = (kind: Sheet['kind']): Sheet => ({
  id: 's',
  name: 's',
  picture: 'a'.repeat(64),
  mediaType: 'image/jpeg',
  bytes: 1,
  width: 4000,
  height: 3000,
  kind,
  taken: {},
});

/** A view whose lengths are right at 10 px/mm, but for so many. */
function viewOf(sheet: Sheet, lengths: readonly (readonly [Vec, Vec])[], wrong: number): View {
  const known = lengths.filter(([a, b]) => distance(a, b) > 300);
  return {
    ...createView('v', sheet),
    points: known.flatMap(([a, b], i) => [
      { id: `p${i}`, at: a, sigma: 1 },
      { id: `q${i}`, at: b, sigma: 1 },
    ]),
    evidence: known.map(([a, b], i) => {
      const mm = (distance(a, b) / 10) * (i < wrong ? 1.08 + 0.03 * i : 1);
      const said = { length: { value: mm, written: String(mm) } };
      return { id: `e${i}`, kind: 'length', groups: [[`p${i}`, `q${i}`]], said, guess: false, role: 'use' };
    }),
  };
}

const place = fc.tuple(fc.integer({ min: 100, max: 3900 }), fc.integer({ min: 100, max: 2900 })) as fc.Arbitrary<Vec>;
const lengths = fc.array(fc.tuple(place, place), { minLength: 5, maxLength: 9, size: 'max' });

const PLACES: readonly Vec[] = [
  [0, 0],
  [4000, 3000],
  [2000, 100],
];

/** All that a fit says that is no number. */
const saidBy = ({ fit, without, refusal, figures }: FittedView) => ({
  suspects: fit.suspects,
  suspectsKept: fit.suspectsKept,
  warnings: fit.warnings,
  parts: fit.parts.length,
  figures: [...figures].map(([id, read]) => [id, read.length]),
  without,
  refusal: refusal?.code,
});

/** The same to a twentieth of what is doubted anyway: what crept towards its end, as contradictions make it, goes on from where it was left. */
function expectSame(one: FittedView, other: FittedView): void {
  expect(saidBy(one)).toEqual(saidBy(other));
  for (const place of PLACES)
    expect(distance(one.fit.toPlane(place), other.fit.toPlane(place))).toBeLessThan(0.05 * (other.sigma ?? 1));
  if (other.sigma) expect(Math.abs(one.sigma! / other.sigma - 1)).toBeLessThan(0.05);
}

it.each(['scan', 'photo', 'drawing'] as const)('a %s is fitted as it was told', (kind) => {
  const sheet = sheetOf(kind);
  let blamed = 0;
  fc.assert(
    fc.property(lengths, fc.integer({ min: 0, max: 3 }), (of, wrong) => {
      const view = viewOf(sheet, of, wrong);
      const judged = fitOf(view, sheet);
      const told = JSON.parse(JSON.stringify(toldOf(judged)), (_, value: unknown) => value) as ReturnType<
        typeof toldOf
      >;
      const again = fitOf(view, sheet, view, { told: { ...told, refusal: judged.refusal } });
      if (judged.fit.suspects.length > 0) blamed++;
      expectSame(again, judged);
    }),
    { seed: 11, numRuns: 8 },
  );
  expect(blamed).toBeGreaterThan(2);
});

describe('where judging may not take long', () => {
  const sheet = sheetOf('photo');
  const spans = Array.from({ length: 12 }, (_, i): readonly [Vec, Vec] => [
    [200 + 250 * i, 300 + 150 * (i % 5)],
    [900 + 250 * i, 2600 - 180 * (i % 7)],
  ]);
  const view = viewOf(sheet, spans, 5);
  const job = {
    sheets: [sheet],
    views: [view],
    planes: [],
    outlines: [],
    relations: [],
    guides: [],
    features: [],
    spans: [],
  } as never;

  it('a contradiction is pending, with all pieces in the fit, until it is told what it came to', () => {
    const derive = createDeriver({ most: 100 });
    const first = derive(job).views.get('v')!;
    expect([first.isPending, first.fit.scaled]).toEqual([true, true]);
    const whole = fitOf(view, sheet);
    expect(whole.fit.suspects.length).toBeGreaterThan(0);
    const told = { ...NOTHING_TOLD, questions: new Map([[whole.question, toldOf(whole)]]) };
    const settled = derive(job, told).views.get('v')!;
    expect(settled.isPending).toBe(false);
    expectSame(settled, whole);
    // The same question has the same answer, and is not asked again.
    expect(derive(job, told).views.get('v')).toBe(settled);
  });

  it('another job with the same view takes over what the first one came to, and what is pending is not told', () => {
    const derive = createDeriver();
    const before = derive(job);
    const again = createDeriver({ most: 1 })({ ...(job as object), outlines: [] } as never, toldIn(before));
    expectSame(again.views.get('v')!, before.views.get('v')!);
    expect(toldIn(createDeriver({ most: 1 })(job)).questions.size).toBe(0);
  });

  it('what agrees is never pending', () => {
    const right = viewOf(sheet, spans, 0);
    expect(fitOf(right, sheet, right, { allowance: allowanceOf(100) }).isPending).toBe(false);
  });

  it('an allowance that is enough changes nothing', () => {
    const allowance = allowanceOf(1e6);
    const judged = fitOf(view, sheet, view, { allowance });
    expect([judged.isPending, allowance.isSpent, allowance.left < 1e6]).toEqual([false, false, true]);
    expect(judged.fit.values).toEqual(fitOf(view, sheet).fit.values);
  });
});
