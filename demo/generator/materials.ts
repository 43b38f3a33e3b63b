import { smooth } from './noise';

/** Linear-ish colours in 0…255 by place on the thing (mm). */
export type Color = readonly [number, number, number];
export type Material = (x: number, y: number) => Color;

const shade = (color: Color, by: number): Color => [color[0] * by, color[1] * by, color[2] * by];

/** Boards of an oiled bench: long grain along x, a joint every 92 mm. */
export const wood: Material = (x, y) => {
  const board = Math.floor((y + 400) / 92);
  const grain = smooth(x * 0.012 + board * 7, y * 0.55 + 3 * smooth(x * 0.01, y * 0.05, 3), 11);
  const fine = smooth(x * 0.08, y * 4.2, 23);
  const joint = Math.min(1, Math.abs(((y + 400) % 92) - 46) / 0.4 - 45.2 / 0.4 + 2.2);
  const dark = joint > 1 ? 0.55 : 1;
  return shade([188, 148, 104], (0.78 + 0.26 * grain + 0.09 * (fine - 0.5)) * dark);
};

/** Brushed steel: fine streaks along x, cloudy tarnish. */
export const steel: Material = (x, y) => {
  const streak = smooth(x * 0.09, y * 9, 41);
  const cloud = smooth(x * 0.05, y * 0.05, 43);
  return shade([122, 127, 131], 0.84 + 0.16 * streak + 0.16 * (cloud - 0.5));
};

/** A plain club card: pale green with a darker band, no lettering. */
export const card: Material = (_x, y) => (y > 36 && y < 44 ? [70, 112, 92] : [214, 224, 208]);

/** A steel rule: a stroke each millimetre from the lower edge, longer at 5 and 10; the strokes begin `zero` mm from its end. */
export function rule(zero: number, length: number): Material {
  const numerals = rulerNumerals(zero, length);
  return (x, y) => {
    const base = shade([206, 208, 206], 0.93 + 0.09 * smooth(x * 0.06, y * 7, 57));
    const mark = Math.round(x - zero);
    const reach = mark % 10 === 0 ? 9 : mark % 5 === 0 ? 6.5 : 4;
    const onStroke = mark >= 0 && mark <= length && Math.abs(x - zero - mark) < 0.11 && y < reach;
    return onStroke || numerals(x, y) ? [34, 36, 38] : base;
  };
}

/** Seven strokes a figure, as on a pocket counter: top, upper left, upper right, middle, lower left, lower right, bottom. */
const FIGURES = [
  '1110111',
  '0010010',
  '1011101',
  '1011011',
  '0111010',
  '1101011',
  '1101111',
  '1010010',
  '1111111',
  '1111011',
];

function rulerNumerals(zero: number, length: number): (x: number, y: number) => boolean {
  const bars: (readonly [number, number, number, number])[] = [];
  for (let mark = 0; mark <= length; mark += 10) {
    const text = String(mark);
    [...text].forEach((figure, i) => {
      const [left, low] = [zero + mark + 0.6 + i * 2.3, 10.2];
      const places: (readonly [number, number, number, number])[] = [
        [0, 3, 1.6, 3.3],
        [0, 1.6, 0.3, 3.3],
        [1.3, 1.6, 1.6, 3.3],
        [0, 1.5, 1.6, 1.8],
        [0, 0, 0.3, 1.7],
        [1.3, 0, 1.6, 1.7],
        [0, 0, 1.6, 0.3],
      ];
      [...FIGURES[Number(figure)]!].forEach((on, n) => {
        const [a, b, c, d] = places[n]!;
        if (on === '1') bars.push([left + a, low + b, left + c, low + d]);
      });
    });
  }
  return (x, y) => y > 9 && y < 15 && bars.some(([a, b, c, d]) => x > a && x < c && y > b && y < d);
}
