import fc from 'fast-check';
import {
  findUnitSlip,
  formatAngle,
  formatLength,
  parseAngle,
  parseLength,
  parseRatio,
  formatRatio,
  parseSize,
  MM_PER_INCH,
  type Units,
} from '.';

const mm: Units = { style: 'mm', denominator: 16 };

describe('lengths as people write them', () => {
  // International inch: 25.4 mm by definition (1959 agreement); foot = 12 in.
  const written: readonly (readonly [string, number])[] = [
    ['412', 412],
    ['412mm', 412],
    ['412 mm', 412],
    ['412 millimetres', 412],
    ['41.2 cm', 412],
    ['41,2 cm', 412],
    ['0.412 m', 412],
    ['.5', 0.5],
    ['0,125', 0.125],
    ['4.12 dm', 412],
    ['250 um', 0.25],
    ['1 km', 1e6],
    ['14"', 355.6],
    ['14″', 355.6],
    ["14''", 355.6],
    ['14 in', 355.6],
    ['14 inches', 355.6],
    ['1 inch', 25.4],
    ['5/16', 7.9375],
    ['5/16 in', 7.9375],
    ['5/16"', 7.9375],
    ['3/4', 19.05],
    ['1/3', 25.4 / 3],
    ['1 5/16"', 33.3375],
    ['1-5/16"', 33.3375],
    ['3 1/2', 88.9],
    ['1½"', 38.1],
    ['⅜', 9.525],
    ['2 ft', 609.6],
    ['2 feet', 609.6],
    ["2'", 609.6],
    ['2′', 609.6],
    [`1' 4 1/2"`, 419.1],
    ["1' 4 1/2", 419.1],
    [`17'-5"`, 5308.6],
    [`17' 5"`, 5308.6],
    [`5' - 2"`, 1473.2],
    ['6 ft 2', 1879.6],
    ['6 ft 2 in', 1879.6],
    ['1 yd', 914.4],
    ['30 thou', 0.762],
    ['7 + 3 5/8 in', 269.875],
    ['7 in + 3 5/8 in', 269.875],
    ['1 m + 3 mm', 1003],
    ['10 - 2 cm', 80],
    ['7-2', 5],
    ['7 - 2', 5],
    ['2 x 19.05', 38.1],
    ['2x19.05', 38.1],
    ['2 × 3/4 in', 38.1],
    ['12" x 2', 609.6],
    ['412/2', 206],
    ['3 * 2 + 1', 7],
    ['2*(3+4)', 14],
    ['1.234,5', 1234.5],
    ['1,234.5', 1234.5],
    ['12,345,678', 12345678],
    ['85.60', 85.6],
    ['−4', -4],
    ['-4', -4],
    ['about 3 ft', 914.4],
    ['ca. 12 cm', 120],
    ['~ 12', 12],
  ];
  it.each(written)('%s', (text, expected) => {
    const length = parseLength(text, 'mm');
    expect(length).toMatchObject({ ok: true });
    if (length.ok) expect(length.value.mm).toBeCloseTo(expected, 9);
  });

  it.each([
    ['46 ± 0.2', 46, 0.2],
    ['46 +/- 0.2', 46, 0.2],
    ['46 +- 0.2 mm', 46, 0.2],
    ['14" ± 1/16', 355.6, 1.5875],
    ['100 ± 2%', 100, 2],
    ['1 m ± 3 mm', 1000, 3],
    ['46 ± 0.2 cm', 460, 2],
  ])('%s has a plus-minus', (text, value, plusMinus) => {
    const length = parseLength(text, 'mm');
    if (!length.ok) throw new Error(length.code);
    expect(length.value.mm).toBeCloseTo(value, 9);
    expect(length.value.plusMinus).toBeCloseTo(plusMinus, 9);
  });

  it('marks a guess', () => {
    expect(parseLength('about 3 ft', 'mm')).toMatchObject({ value: { guess: true } });
    expect(parseLength('3 ft', 'mm')).toMatchObject({ value: { guess: false } });
  });

  it('takes a bare number in the unit of the job', () => {
    expect(parseLength('12', 'inch')).toMatchObject({ value: { mm: 12 * MM_PER_INCH } });
    expect(parseLength('12', 'm')).toMatchObject({ value: { mm: 12000 } });
  });

  it.each([
    ['', 'length-empty'],
    ['  ', 'length-empty'],
    ['abc', 'not-understood'],
    ['5 foo', 'not-understood'],
    ['1,250', 'number-ambiguous'],
    ['12..5', 'number-not-understood'],
    ['2 x 3 in x 4 in', 'length-times-length'],
    ['3/0', 'divided-by-zero'],
    ['5 mm / 2 mm', 'length-divided-by-length'],
    ['5 +', 'written-length-ends-early'],
    ['+5', 'number-expected'],
    ['(5', 'bracket-not-closed'],
    ['7 + 3 in + 2 mm', 'unit-unclear'],
    ['46 ± 0', 'plus-minus-not-positive'],
    ['1 000', 'not-understood'],
    ['mm', 'number-expected'],
    ['2000000 km', 'length-too-large'],
    ['5 ± 3000000 m', 'length-too-large'],
  ])('refuses %s with %s', (text, code) => {
    expect(parseLength(text, 'mm')).toMatchObject({ ok: false, code });
  });

  it('refuses what no hand writes: twenty thousand brackets, a number of a hundred digits, so many turns', () => {
    expect(parseLength('('.repeat(20_000), 'mm')).toMatchObject({ ok: false, code: 'written-too-long' });
    expect(parseLength(`1${'0'.repeat(150)}`, 'mm')).toMatchObject({ ok: false, code: 'length-too-large' });
    expect(parseAngle(`1${'0'.repeat(150)}`)).toMatchObject({ ok: false, code: 'angle-not-understood' });
    expect(parseAngle('9'.repeat(400))).toMatchObject({ ok: false, code: 'angle-not-understood' });
    expect(parseAngle('720')).toMatchObject({ ok: true });
  });

  it('wants sizes larger than zero', () => {
    expect(parseSize('0', 'mm')).toMatchObject({ code: 'length-not-positive' });
    expect(parseSize('-3', 'mm')).toMatchObject({ code: 'length-not-positive' });
  });

  it('never throws, whatever is typed', () => {
    fc.assert(fc.property(fc.string(), (text) => typeof parseLength(text, 'mm').ok === 'boolean'));
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom(...'0123456789.,/+-x*() \'"±%mincft'.split('')) }),
        (text) => typeof parseLength(text, 'inch').ok === 'boolean',
      ),
      { numRuns: 2000 },
    );
  });
});

describe('what is written is read again', () => {
  const styles = ['mm', 'cm', 'm', 'inch', 'inch-fraction', 'feet-inches'] as const;
  /** The last place that is written. mm */
  const STEPS = { mm: 0.01, cm: 0.01, m: 0.1, inch: 0.0254, 'inch-fraction': 25.4 / 64, 'feet-inches': 25.4 / 64 };
  it.each(styles)('in %s', (style) => {
    fc.assert(
      fc.property(fc.double({ min: -1e5, max: 1e5, noNaN: true }), (value) => {
        const units: Units = { style, denominator: 64 };
        const read = parseLength(formatLength(value, units), style);
        expect(read.ok && Math.abs(read.value.mm - value) <= STEPS[style] / 2 + 1e-6).toBe(true);
      }),
    );
  });

  it('shows two sigma and never claims more than is known', () => {
    expect(formatLength(412.64, mm, 0.14)).toBe('412.6 mm ±0.3');
    expect(formatLength(412.64, mm, 0.06)).toBe('412.64 mm ±0.12');
    expect(formatLength(412.64, mm, 7)).toBe('413 mm ±14');
    expect(formatLength(7.9375, { style: 'inch-fraction', denominator: 16 })).toBe('5/16"');
    expect(formatLength(5308.6, { style: 'feet-inches', denominator: 16 })).toBe(`17' 5"`);
    expect(formatLength(304.7, { style: 'feet-inches', denominator: 2 })).toBe(`1' 0"`);
    fc.assert(
      fc.property(fc.double({ min: 1e-3, max: 1e3, noNaN: true }), (sigma) => {
        const margin = Number(formatLength(100, mm, sigma).split('±')[1]);
        expect(margin).toBeGreaterThanOrEqual(2 * sigma - 1e-9);
        expect(margin).toBeLessThanOrEqual(4 * sigma + 1e-6);
      }),
    );
  });
});

it('reads angles and slopes', () => {
  const degrees = (text: string) => {
    const angle = parseAngle(text);
    return angle.ok ? (angle.value * 180) / Math.PI : angle.code;
  };
  expect(degrees('45')).toBeCloseTo(45, 12);
  expect(degrees('-12,5°')).toBeCloseTo(-12.5, 12);
  // Common practice of roofers: a 12 in 12 pitch is 45°, 3 in 12 is 14.04°.
  expect(degrees('12 in 12')).toBeCloseTo(45, 12);
  expect(degrees('3 in 12')).toBeCloseTo(14.036, 3);
  expect(degrees('100%')).toBeCloseTo(45, 12);
  expect(degrees('steep')).toBe('angle-not-understood');
  expect(formatAngle(Math.PI / 6)).toBe('30.00°');
});

describe('a slipped unit', () => {
  it.each([
    [13.45, 13450, 'metres'],
    [14, 168, 'feet instead of inches'],
    [10, 254, 'inches'],
    [3, 914.4, 'feet'],
    [41.2, 412, 'a point one place over'],
    [412, 41.2, 'a point one place over'],
  ])('%p that comes to %p is asked about', (typed, comesTo, says) => {
    expect(findUnitSlip(typed, comesTo)?.says).toBe(says);
  });
  it('is not suspected of a size that is near, or merely wrong', () => {
    for (const comesTo of [100, 104, 150, 300]) expect(findUnitSlip(100, comesTo)).toBeUndefined();
  });
});

describe('a ratio as it is printed', () => {
  it.each([
    ['1:50', 50],
    ['1 : 20', 20],
    ['2:1', 0.5],
    ['50', 50],
    ['1/4" = 1\'', 48],
    ['1 cm = 2 m', 200],
    ['3/16 in = 1 ft', 64],
    ['1:2,5', 2.5],
  ])('%s', (text, ratio) => {
    const read = parseRatio(text);
    expect(read.ok && read.value).toBeCloseTo(ratio, 9);
  });
  it.each(['', 'half', '1:0', '0:1', '1:2:3', '1 = ', '= 1 m', '1" = nothing'])('%s is none', (text) =>
    expect(parseRatio(text).ok).toBe(false),
  );
  it('reads what it writes', () => {
    for (const ratio of [1, 2, 0.5, 48, 50, 0.1, 12.5])
      expect(parseRatio(formatRatio(ratio))).toMatchObject({ ok: true, value: expect.closeTo(ratio, 9) });
  });
});
