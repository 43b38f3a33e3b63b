/** A sheet that is drawn at a ratio, and whose own size says it is as large as the thing. */
import fc from 'fast-check';
import { addEvidence, addSheet, createView, resolutionEvidence, type Command, type Evidence, type Sheet } from '../job';
import { jobOf } from '../job/for-tests';
import { findDrawingRatio, MM_PER_INCH } from '../units';
import { createDeriver, drawnAtOf, ratioFor } from '.';

const SHEET: Sheet = {
  id: 's',
  name: 'Bench',
  picture: 'c'.repeat(64),
  mediaType: 'image/png',
  bytes: 1,
  width: 2480,
  height: 1754,
  kind: 'scan',
  taken: { dpi: 150 },
};
const PX = 150 / MM_PER_INCH;

/** A size of so many mm over so many of the paper, used or held back. */
function sized(id: string, mm: number, onPaper: number, role: Evidence['role'] = 'use', row = 300): Command {
  const points = [0, onPaper * PX].map((x, i) => ({ id: `${id}${i}`, at: [200 + x, row] as const, sigma: 0.5 }));
  return addEvidence(
    'v',
    {
      id,
      kind: 'length',
      groups: [points.map((point) => point.id)],
      said: { length: { value: mm, written: String(mm) } },
      guess: false,
      role,
    },
    points,
  );
}

/** The sheet as its file tells: drawn at so many times smaller. */
function fittedWith(drawn: number, sheet: Sheet, ...more: readonly Command[]) {
  let count = 0;
  const { evidence, points } = resolutionEvidence(sheet, 150, drawn, () => `own${count++}`);
  const job = jobOf([addSheet(sheet, createView('v', sheet)), addEvidence('v', evidence, points), ...more]);
  return createDeriver()(job).views.get('v')!;
}
const found = (drawn: number, ...more: readonly Command[]) => drawnAtOf(fittedWith(drawn, SHEET, ...more));

it('a printed size names the ratio, used or held back, whatever was said of it before', () => {
  expect(found(1, sized('long', 1500, 150))).toMatchObject({ ratio: 10, dpi: 150, said: 1500 });
  expect(found(1, sized('long', 1500, 150, 'check'))).toMatchObject({ ratio: 10 });
  expect(found(10, sized('long', 3000, 150))!.ratio).toBe(20);
  expect(found(10, sized('long', 150, 150))!.ratio).toBe(1);
  // A quarter of an inch to the foot, off as far as a copier stretches.
  expect(found(1, sized('wall', 3657.6 * 1.01, 76.2))!.ratio).toBe(48);
  const alone = fittedWith(1, { ...SHEET, taken: {} }, sized('long', 1500, 150));
  expect(drawnAtOf(alone)).toMatchObject({ ratio: 10, dpi: expect.closeTo(150, 6) });
});

it('of no usual ratio it says only how many times larger the thing is', () => {
  const fitted = found(1, sized('long', 1500, 141.2))!;
  expect(fitted.ratio).toBeUndefined();
  expect(fitted.times).toBeCloseTo(1500 / 141.2, 2);
});

it.each([
  ['a size that agrees', [sized('long', 150, 150)]],
  ['one that is a little wrong', [sized('long', 165, 150)]],
  ['two that tell of different ratios', [sized('long', 1500, 150), sized('high', 1700, 85, 'check', 600)]],
  ['nothing', []],
])('%s names no ratio', (_, more) => expect(found(1, ...more)).toBeUndefined());

it('nothing is said where the sheet says nothing of its size, or that is left aside', () => {
  const bare = createDeriver()(jobOf([addSheet(SHEET, createView('v', SHEET)), sized('long', 1500, 150)]));
  expect(drawnAtOf(bare.views.get('v')!)).toBeUndefined();
  expect(ratioFor(1500, 150, bare.views.get('v')!)).toBeUndefined();
});

it('a size that is being typed is asked about in the same way', () => {
  const fitted = fittedWith(1, SHEET);
  expect([ratioFor(1500, 150, fitted), ratioFor(151, 150, fitted), ratioFor(1500, 141.2, fitted)]).toEqual([
    10,
    undefined,
    undefined,
  ]);
});

it('every usual ratio is itself, a hundredth off, and lies apart from the next', () => {
  const ratios = fc.constantFrom(0.1, 0.2, 0.5, 1, 2, 5, 10, 12, 20, 24, 25, 48, 50, 96, 100, 200, 500, 1000, 2500);
  const off = fc.integer({ min: -10, max: 10 }).map((thousandths) => 1 + thousandths / 1000);
  fc.assert(fc.property(ratios, off, (ratio, share) => findDrawingRatio(ratio * share) === ratio));
  expect([3, 7, 0.3, 33, 1e9].map((times) => findDrawingRatio(times))).toEqual(
    [3, 7, 0.3, 33, 1e9].map(() => undefined),
  );
});
