import type { PDFPageProxy } from 'pdfjs-dist';
import { composed, type Affine } from '@/core/geometry';

type Operators = Readonly<Record<string, number>>;

/** How the library writes a path: a number for what is done, then its places. */
const [MOVE, LINE, CURVE, QUADRATIC, CLOSE] = [0, 1, 2, 3, 4];
const LETTERS: Readonly<Record<number, readonly [letter: string, numbers: number]>> = {
  [MOVE]: ['M', 2],
  [LINE]: ['L', 2],
  [CURVE]: ['C', 6],
  [QUADRATIC]: ['Q', 4],
  [CLOSE]: ['Z', 0],
};
const STROKES = ['stroke', 'closeStroke', 'fillStroke', 'eoFillStroke', 'closeFillStroke', 'closeEOFillStroke'];
const FILLS = ['fill', 'eoFill'];
/** More than this is a picture made of strokes and no drawing. */
const MOST_PATHS = 200_000;

/**
 * The vector lines of a page as an SVG of the page's true paper size, what is stroked and what is filled on layers of their own. Undefined when there are none, or
 * too many. Text, shadings, patterns and what a clip leaves out are not told apart.
 */
export async function linesOfPage(page: PDFPageProxy, operators: Operators): Promise<string | undefined> {
  const { fnArray, argsArray } = await page.getOperatorList();
  const viewport = page.getViewport({ scale: 1 });
  const layers: Record<'strokes' | 'fills', string[]> = { strokes: [], fills: [] };
  const saved: Affine[] = [];
  let map = viewport.transform as unknown as Affine;
  const isOne = (operator: number, names: readonly string[]) => names.some((name) => operators[name] === operator);
  for (const [i, operator] of fnArray.entries()) {
    const given = argsArray[i] as unknown[] | null;
    if (isOne(operator, ['save', 'paintFormXObjectBegin'])) {
      saved.push(map);
      const matrix = operator === operators.paintFormXObjectBegin ? given?.[0] : undefined;
      if (Array.isArray(matrix) && matrix.length === 6) map = composed(map, matrix as unknown as Affine);
    } else if (isOne(operator, ['restore', 'paintFormXObjectEnd'])) map = saved.pop() ?? map;
    else if (operator === operators.transform && given) map = composed(map, given as unknown as Affine);
    else if (operator === operators.constructPath && given) {
      const layer = isOne(given[0] as number, STROKES)
        ? 'strokes'
        : isOne(given[0] as number, FILLS)
          ? 'fills'
          : undefined;
      const data = (given[1] as unknown[])[0];
      if (layer && (data instanceof Float32Array || Array.isArray(data)))
        layers[layer].push(pathOf(data as ArrayLike<number>, map));
    }
    if (layers.strokes.length + layers.fills.length > MOST_PATHS) return undefined;
  }
  if (layers.strokes.length + layers.fills.length === 0) return undefined;
  const { width, height } = viewport;
  const groups = Object.entries(layers)
    .filter(([, paths]) => paths.length > 0)
    .map(([name, paths]) => `<g id="${name}">${paths.join('')}</g>`);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}pt" height="${height}pt" viewBox="0 0 ${width} ${height}" fill="none" stroke="black">${groups.join('')}</svg>`;
}

function pathOf(data: ArrayLike<number>, map: Affine): string {
  let d = '';
  for (let at = 0; at < data.length;) {
    const [letter, numbers] = LETTERS[data[at]!] ?? ['', 0];
    if (letter === '') break;
    d += letter + Array.from({ length: numbers }, (_, i) => data[at + 1 + i]).join(' ');
    at += 1 + numbers;
  }
  return `<path transform="matrix(${map.join(' ')})" d="${d}"/>`;
}
