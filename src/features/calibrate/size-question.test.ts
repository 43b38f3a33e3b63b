/** What is asked before a length is used that the rest makes much smaller or larger. */
import { createDeriver } from '@/core/derive';
import { addEvidence, addSheet, createView, resolutionEvidence, type Sheet } from '@/core/job';
import { jobOf, scanOf } from '@/core/job/for-tests';
import { MILLIMETRES } from '@/core/units';
import { findSizeQuestion } from './size-question';

const SHEET: Sheet = { ...scanOf(2480, 1754), id: 's', taken: { dpi: 150 } };

/** A scan that tells its own size, or nothing. */
function fittedWith(isTold: boolean) {
  let count = 0;
  const { evidence, points } = resolutionEvidence(SHEET, 150, 1, () => `p${count++}`);
  const told = isTold ? [addEvidence('v', evidence, points)] : [];
  return createDeriver()(jobOf([addSheet(SHEET, createView('v', SHEET)), ...told])).views.get('v');
}
const asked = (typed: number, comesTo: number, isTold: boolean) =>
  findSizeQuestion(
    { value: comesTo, sigma: 0.2 },
    { sizes: { length: { value: typed, written: String(typed) } }, plusMinus: undefined, guess: false },
    MILLIMETRES,
    fittedWith(isTold),
  );

it.each([
  [
    1500,
    150,
    true,
    'The sheet itself has 150.0 mm ±0.4 here. Set it, if it is drawn at 1:10. Or did you mean a point one place over?',
  ],
  [750, 150, true, 'The sheet itself has 150.0 mm ±0.4 here. Set it, if it is drawn at 1:5.'],
  [1500, 150, false, 'By the rest this is 150.0 mm ±0.4. Did you mean a point one place over?'],
  [750, 150, false, undefined],
  [151, 150, true, undefined],
  [0, 150, true, undefined],
])('%d where it is %d', (typed, comesTo, isTold, says) => expect(asked(typed, comesTo, isTold)).toBe(says));

it('asks nothing before both places are there, or a length is typed', () => {
  expect(findSizeQuestion(undefined, undefined, MILLIMETRES, fittedWith(true))).toBeUndefined();
  expect(findSizeQuestion({ value: 9, sigma: 1 }, undefined, MILLIMETRES, undefined)).toBeUndefined();
});
