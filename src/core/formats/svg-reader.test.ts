/** SVG that is meant to take long or to harm: read as far as it makes sense, or refused. */
import { readSvg } from '.';

const svg = (inside: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100">${inside}</svg>`;
const LINE = '<line x1="1" y1="2" x2="3" y2="4"/>';
const linesOf = (text: string) => {
  const reading = readSvg(text);
  return reading.ok ? reading.value.paths.length : reading.code;
};

it('sixty thousand letters in a transform are no transform, and soon seen to be none', () => {
  expect(linesOf(svg(`<g transform="${'a'.repeat(60_000)}">${LINE}</g>`))).toBe(1);
  expect(linesOf(svg(`<g transform="${'rotate '.repeat(10_000)}(">${LINE}</g>`))).toBe(1);
});

it.each([30, 90, 150, 5000])('%i groups in one another are read or refused', (deep) => {
  expect([0, 1, 'svg-not-understood']).toContain(linesOf(svg('<g>'.repeat(deep) + LINE + '</g>'.repeat(deep))));
});

it('numbers that are none, and places beyond all bounds, do not come in and are counted', () => {
  const reading = readSvg(
    svg(
      `${LINE}<line x1="1e308" y1="0" x2="1" y2="1"/><circle cx="NaN" cy="0" r="3"/><g transform="scale(1e300)">${LINE}</g><rect x="1" y="1" width="Infinity" height="3"/>`,
    ),
  );
  expect(reading).toMatchObject({ ok: true, value: { ignored: 4 } });
  expect(linesOf(svg(LINE))).toBe(1);
});

it('what calls for itself, and names that every object has, do no harm', () => {
  expect(linesOf(svg(`<g id="a"><use href="#a"/>${LINE}</g>`))).toBe(20);
  expect(linesOf(svg(`<__proto__/>${LINE}`))).toBe('svg-not-understood');
  expect(linesOf(svg(`<g id="__proto__">${LINE}</g><use href="#toString"/>`))).toBe(1);
});
