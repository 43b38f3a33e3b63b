/** A size that was typed wrongly by a unit or a point is asked about, and nothing else is. */
import { MILLIMETRES } from '@/core/units';
import { findSlipped } from './value-field';

it.each([
  ['length', 80, 8.02, 'It is 8.02 mm now. Did you mean a point one place over? If not, say it once more.'],
  ['radius', 40, 8, 'It is 8.00 mm now. Did you mean a point one place over? If not, say it once more.'],
  ['distance', 2, 50.8, 'It is 50.80 mm now. Did you mean inches? If not, say it once more.'],
  ['length', 9, 8.02, undefined],
  ['radius', 4.5, 8, undefined],
  ['angle', 80, 8, undefined],
  ['up', 80, -8, undefined],
  ['length', 0, 8, undefined],
  ['length', 80, undefined, undefined],
] as const)('%s %d where it is %d', (kind, typed, now, says) =>
  expect(findSlipped(kind, typed, now, MILLIMETRES)).toBe(says),
);
