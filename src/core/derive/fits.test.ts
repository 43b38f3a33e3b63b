/** What a view falls back to when all its evidence together gives no fit. */
import { refused } from '../basics';
import { adjustEvidence } from '../calibrate';
import type { Vec } from '../geometry';
import { createView, type Evidence, type EvidencePoint, type View } from '../job';
import { fitOf } from './fits';
import { scanOf } from '../job/for-tests';

jest.mock('../calibrate', () => {
  const real = jest.requireActual<typeof import('../calibrate')>('../calibrate');
  return { ...real, adjustEvidence: jest.fn(real.adjustEvidence) };
});

const sheet = scanOf(4000, 3000);
const lengthOf = (id: string, mm: number): Evidence => ({
  id,
  kind: 'length',
  groups: [[`${id}a`, `${id}b`]],
  said: { length: { value: mm, written: String(mm) } },
  guess: false,
  role: 'use',
});
const ends = (id: string, y: number, long = 2000): readonly EvidencePoint[] =>
  [
    ['a', [500, y]],
    ['b', [500 + long, y + 1]],
  ].map(([end, at]) => ({ id: `${id}${end as string}`, at: at as unknown as Vec, sigma: 1 }));
const viewOf = (
  pieces: readonly (readonly [Evidence, readonly EvidencePoint[]])[],
  model: View['model'] = 'similarity',
): View => ({
  ...createView('v', sheet),
  model,
  evidence: pieces.map(([piece]) => piece),
  points: pieces.flatMap(([, points]) => points),
});

/** Fits a view and counts how often its evidence was fitted for that. */
function fitted(view: View) {
  jest.mocked(adjustEvidence).mockClear();
  const { fit, refusal, without } = fitOf(view, sheet);
  return { scaled: fit.scaled, code: refusal?.code, without, count: jest.mocked(adjustEvidence).mock.calls.length };
}

const good = Array.from({ length: 40 }, (_, i) => [lengthOf(`l${i}`, 200), ends(`l${i}`, 100 + 60 * i)] as const);

it('of forty pieces the one that the refusal names is left away, and no other, in two fits', () => {
  for (const at of [0, 17, 39]) {
    const pieces = good.map(([piece, points], i) =>
      i === at ? ([piece, ends(piece.id, 100 + 60 * i, 0)] as const) : ([piece, points] as const),
    );
    expect(fitted(viewOf(pieces))).toEqual({
      scaled: true,
      code: 'evidence-ends-coincide',
      without: [`l${at}`],
      count: 2,
    });
  }
  const twoBad = good.map(([piece, points], i) =>
    i % 20 === 5 ? ([piece, ends(piece.id, 100 + 60 * i, 0)] as const) : ([piece, points] as const),
  );
  expect(fitted(viewOf(twoBad))).toEqual({
    scaled: true,
    code: 'evidence-ends-coincide',
    without: ['l5', 'l25'],
    count: 3,
  });
});

it.each([1, 2, 7, 11, 39])(
  'where no piece is named, the newest %i go that stand in the way, and no more, without trying one by one',
  (many) => {
    const real = jest.requireActual<typeof import('../calibrate')>('../calibrate').adjustEvidence;
    jest
      .mocked(adjustEvidence)
      .mockImplementation((input) =>
        input.evidence.length > good.length - many ? refused('fit-not-found') : real(input),
      );
    const { scaled, code, without, count } = fitted(viewOf(good));
    jest.mocked(adjustEvidence).mockImplementation(real);
    expect([scaled, code, without]).toEqual([
      true,
      'fit-not-found',
      good.slice(good.length - many).map(([{ id }]) => id),
    ]);
    expect(count).toBeLessThanOrEqual(2 + 2 * Math.ceil(Math.log2(good.length)));
  },
);

it('where nothing gives a fit the view is without scale, and says why; evidence that only checks is nothing to refuse', () => {
  const [only] = good;
  expect(fitted(viewOf([[only![0], ends('l0', 100, 0)]]))).toEqual({
    scaled: false,
    code: 'evidence-ends-coincide',
    without: ['l0'],
    count: 1,
  });
  expect(fitted(viewOf([[{ ...only![0], role: 'check' }, only![1]]]))).toMatchObject({
    scaled: false,
    code: undefined,
    without: [],
  });
  const open = viewOf(good.slice(0, 1), 'affine');
  expect(fitted(open)).toMatchObject({ scaled: false, without: ['l0'] });
  expect(fitted(open).code).toMatch(/-undetermined$/);
});
