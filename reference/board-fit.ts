import { propagate } from '../src/core/adjust';
import {
  fitView,
  firstNumberOf,
  measuredLength,
  type Observation,
  type Fit,
  type LineEnds,
  type Points,
} from '../src/core/calibrate';
import type { Vec } from '../src/core/geometry';

/** Side of a square, mm: `square_size` of left_intrinsics.yml. How true a print is: assumed. */
export const SQUARE = 25;
const PRINT_SIGMA = 0.05;
/**
 * One sigma of a saddle, px. The leftovers within a photograph come to half of it; the rest is for what neighbouring corners have in
 * common: paper that is not quite flat, and a lens of more terms than two.
 */
export const SADDLE_SIGMA = 0.12;
/** The evidence stands on these columns; everything else on the board is only asked for. */
const KNOWN_COLUMNS = 5;

const name = (column: number, row: number) => `${column}/${row}`;

/** What is told of a board: straight rows and columns of a part of it, parallel and square to each other, and one square's sides. */
export function evidenceOfPart(rows = 6): Observation[] {
  const columns = Array.from({ length: KNOWN_COLUMNS }, (_, c) => c);
  const lines = Array.from({ length: rows }, (_, r) => r);
  const alongRow = (r: number): LineEnds => [name(0, r), name(KNOWN_COLUMNS - 1, r)];
  const alongColumn = (c: number): LineEnds => [name(c, 0), name(c, rows - 1)];
  const side = (id: string, to: string): Observation => ({
    id,
    kind: 'length',
    from: name(2, 2),
    to,
    mm: SQUARE,
    sigma: PRINT_SIGMA,
  });
  return [
    ...lines.map((r): Observation => ({ id: `row ${r}`, kind: 'straight', through: columns.map((c) => name(c, r)) })),
    ...columns.map((c): Observation => ({
      id: `column ${c}`,
      kind: 'straight',
      through: lines.map((r) => name(c, r)),
    })),
    { id: 'rows', kind: 'parallel', lines: lines.map(alongRow) },
    { id: 'columns', kind: 'parallel', lines: columns.map(alongColumn) },
    { id: 'square', kind: 'square', lines: [alongRow(0), alongColumn(0)] },
    side('across', name(3, 2)),
    side('up', name(2, 3)),
  ];
}

export function pointsOf(board: readonly (readonly Vec[])[]): Points {
  return Object.fromEntries(
    board.flatMap((column, c) => column.map((at, r) => [name(c, r), { at, sigma: SADDLE_SIGMA, height: 0 }])),
  );
}

/** What somebody would say who looks for no lens: a rectangle of two by two squares or more, lengths beside it, and last, lines near the rims. */
export function listFew(): Readonly<Record<string, readonly Observation[]>> {
  const corners = [name(1, 1), name(4, 1), name(4, 3), name(1, 3)];
  const rectangle: Observation = {
    id: 'rectangle',
    kind: 'rectangle',
    corners,
    widthMm: 3 * SQUARE,
    heightMm: 2 * SQUARE,
    sigma: PRINT_SIGMA,
  };
  const lengthOf = (id: string, from: string, to: string, squares: number): Observation => ({
    id,
    kind: 'length',
    from,
    to,
    mm: squares * SQUARE,
    sigma: PRINT_SIGMA,
  });
  const one = lengthOf('one', name(0, 5), name(5, 5), 5);
  const two = lengthOf('two', name(6, 0), name(6, 4), 4);
  const straight = (id: string, through: string[]): Observation => ({ id, kind: 'straight', through });
  const columns = Array.from({ length: 9 }, (_, c) => c);
  const rows = Array.from({ length: 6 }, (_, r) => r);
  const lines = [
    straight(
      'row 0',
      columns.map((c) => name(c, 0)),
    ),
    straight(
      'row 5',
      columns.map((c) => name(c, 5)),
    ),
    straight(
      'column 0',
      rows.map((r) => name(0, r)),
    ),
    straight(
      'column 8',
      rows.map((r) => name(8, r)),
    ),
  ];
  return {
    'a rectangle': [rectangle],
    'a rectangle and a length': [rectangle, one],
    'a rectangle and two lengths': [rectangle, one, two],
    'all that and four straight lines': [rectangle, one, two, ...lines],
  };
}

export function fitBoard(points: Points, evidence: readonly Observation[] = evidenceOfPart()): Fit {
  const fit = fitView({
    picture: { width: 640, height: 480, kind: 'photo' },
    datum: { origin: [0, 480], direction: 0 },
    points,
    evidence,
    lift: { mm: 0, sigma: 1e-9 },
  });
  if (!fit.ok) throw new Error(`${fit.code} ${JSON.stringify(fit.detail)}`);
  return fit.value;
}

/** Lengths that reach into the other part of the board, with what they are in truth. */
const ASKED = [
  [
    [5, 0],
    [8, 5],
  ],
  [
    [5, 5],
    [8, 0],
  ],
  [
    [8, 0],
    [8, 5],
  ],
  [
    [5, 2],
    [8, 2],
  ],
  [
    [0, 0],
    [8, 5],
  ],
  [
    [0, 5],
    [8, 0],
  ],
  [
    [6, 1],
    [7, 1],
  ],
  [
    [0, 3],
    [8, 3],
  ],
] as const;

export function measureElsewhere(fit: Fit, points: Points): { readonly off: number; readonly sigma: number }[] {
  return ASKED.map(([[c1, r1], [c2, r2]]) => {
    const { value, sigma } = measuredLength(fit, points[name(c1, r1)]!, points[name(c2, r2)]!);
    return { off: value - SQUARE * Math.hypot(c2 - c1, r2 - r1), sigma };
  });
}

/** How far the lens draws a place from where it belongs, px, at a distance from the middle, by the fit and its doubt. */
export function lensShift(fit: Fit, radius: number): { readonly value: number; readonly sigma: number } {
  const first = firstNumberOf(fit.model!, 'lens');
  const share = radius / 400;
  const shift = (values: readonly number[]) => radius * (values[first]! * share ** 2 + values[first + 1]! * share ** 4);
  return propagate(shift, fit.values, fit.covariance);
}

/** The same by the published model, which goes the other way: from straight to bowed, in units of the focal length. */
export function publishedShift(radius: number): number {
  const [focal, k1, k2, k3] = [535.91573396163199, -0.26637260909660682, -0.038588898922304653, 0.23839153080878486];
  let straight = radius;
  for (let i = 0; i < 50; i++) {
    const square = (straight / focal) ** 2;
    straight = radius / (1 + square * (k1 + square * (k2 + square * k3)));
  }
  return straight - radius;
}
