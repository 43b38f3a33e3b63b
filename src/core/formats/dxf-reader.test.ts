/** Files that are cut short, mixed up or full of nonsense: read as far as they make sense, or refused, and always done with. */
import { readDxf, summarize, type FileReading } from '.';

type Group = readonly [code: number, value: string | number];
const asText = (groups: readonly Group[]) => groups.map(([code, value]) => `${code}\n${value}\n`).join('');
const section = (name: string, groups: readonly Group[]): readonly Group[] => [
  [0, 'SECTION'],
  [2, name],
  ...groups,
  [0, 'ENDSEC'],
];
const table = (name: string, groups: readonly Group[]): readonly Group[] => [
  [0, 'TABLE'],
  [2, name],
  [70, 1],
  ...groups,
  [0, 'ENDTAB'],
];
const vertex = (x: number, y: number, bulge = 0): readonly Group[] => [
  [0, 'VERTEX'],
  [8, '0'],
  [10, x],
  [20, y],
  [42, bulge],
];

const DRAWN: readonly Group[] = [
  [0, 'LINE'],
  [8, '0'],
  [10, 0],
  [20, 0],
  [11, 10],
  [21, 0],
  [0, 'ARC'],
  [8, '0'],
  [10, 5],
  [20, 5],
  [40, 3],
  [50, 0],
  [51, 90],
  [0, 'CIRCLE'],
  [8, 'holes'],
  [10, 3],
  [20, 3],
  [40, 2],
  [0, 'LWPOLYLINE'],
  [8, '0'],
  [90, 3],
  [70, 1],
  [10, 0],
  [20, 0],
  [42, 1],
  [10, 10],
  [20, 0],
  [10, 10],
  [20, 10],
  [0, 'POLYLINE'],
  [8, '0'],
  [66, 1],
  [70, 1],
  ...vertex(0, 0, 1),
  ...vertex(10, 0),
  ...vertex(10, 10),
  [0, 'SEQEND'],
  [8, '0'],
  [0, 'ELLIPSE'],
  [8, '0'],
  [10, 0],
  [20, 0],
  [11, 10],
  [21, 0],
  [40, 0.5],
  [41, 0],
  [42, 6.283185307179586],
  [0, 'SPLINE'],
  [8, '0'],
  [70, 8],
  [71, 3],
  [72, 8],
  [73, 4],
  ...[0, 0, 0, 0, 1, 1, 1, 1].map((knot): Group => [40, knot]),
  [10, 1],
  [20, 0],
  [10, 1],
  [20, 2],
  [10, 3],
  [20, 2],
  [10, 4],
  [20, 0],
  [0, 'INSERT'],
  [8, '0'],
  [2, 'peg'],
  [10, 50],
  [20, 50],
  [70, 3],
  [71, 2],
  [44, 10],
  [45, 10],
  [0, 'TEXT'],
  [8, '0'],
  [10, 0],
  [20, 0],
  [40, 2.5],
  [1, 'note'],
];
const LAYERS: readonly Group[] = [
  [0, 'LAYER'],
  [2, '0'],
  [70, 0],
  [62, 7],
  [0, 'LAYER'],
  [2, 'holes'],
  [70, 1],
  [62, 1],
  [0, 'LAYER'],
  [2, 'off'],
  [70, 0],
  [62, -3],
];
const whole = (units = 4, drawn = DRAWN) =>
  asText([
    ...section('HEADER', [
      [9, '$ACADVER'],
      [1, 'AC1015'],
      [9, '$INSUNITS'],
      [70, units],
    ]),
    ...section('TABLES', [
      ...table('VPORT', [
        [0, 'VPORT'],
        [2, '*ACTIVE'],
        [10, 0],
        [20, 0],
      ]),
      ...table('LAYER', LAYERS),
    ]),
    ...section('BLOCKS', [
      [0, 'BLOCK'],
      [8, '0'],
      [2, 'peg'],
      [70, 0],
      [10, 0],
      [20, 0],
      [0, 'CIRCLE'],
      [8, '0'],
      [10, 0],
      [20, 0],
      [40, 2],
      [0, 'ENDBLK'],
      [8, '0'],
    ]),
    ...section('ENTITIES', drawn),
    [0, 'EOF'],
  ]);
const read = (text: string): FileReading => {
  const reading = readDxf(text);
  if (!reading.ok) throw new Error(reading.code);
  return reading.value;
};

it('reads its unit, its layers and what is drawn; a polyline of the old kind is that of the new', () => {
  const { unit, hidden, paths, ignoredKinds } = read(whole());
  expect([unit, hidden, ignoredKinds]).toEqual(['mm', ['holes', 'off'], { TEXT: 1 }]);
  expect(paths.map(({ pieces }) => pieces.map(({ kind }) => kind).join(' '))).toEqual([
    'line',
    'arc',
    'arc',
    'arc line line',
    'arc line line',
    'ellipse',
    'cubic',
    ...Array<string>(6).fill('arc'),
  ]);
  expect(paths[4]).toEqual(paths[3]);
  expect(paths.filter(({ closed }) => closed)).toHaveLength(10);
  expect(read(whole(1)).unitMm).toBe(25.4);
  for (const end of ['\r\n', '\r']) expect(read(whole().replaceAll('\n', end)).paths).toEqual(paths);
});

const NONSENSE = [
  'NaN',
  '1e9',
  '-1',
  '0',
  '',
  'EOF',
  'SEQEND',
  'ENDSEC',
  'VERTEX',
  'POLYLINE',
  'INSERT',
  'BLOCK',
  'ENDBLK',
  'TABLE',
  'ENDTAB',
  'SECTION',
  '1e308',
  '70',
  '71',
  '__proto__',
];

beforeAll(() => {
  // The parser tells of every file that is not as it should be.
  jest.spyOn(console, 'error').mockImplementation(() => undefined);
  jest.spyOn(console, 'log').mockImplementation(() => undefined);
});
afterAll(() => jest.restoreAllMocks());

it('with any one line missing, doubled or of nonsense it is read or refused, and only sound numbers come in', () => {
  const lines = whole().split('\n');
  const spoilt = lines.flatMap((line, i) => [
    lines.toSpliced(i, 1),
    lines.toSpliced(i, 0, line),
    lines.with(i, NONSENSE[i % NONSENSE.length]!),
    lines.with(i, NONSENSE[(7 * i + 3) % NONSENSE.length]!),
    lines.slice(0, i),
  ]);
  const readings = spoilt.map((some) => readDxf(some.join('\n')));
  expect(readings.filter(({ ok }) => ok).length).toBeGreaterThan(300);
  expect(
    readings
      .filter((reading) => !reading.ok)
      .map((reading) => !reading.ok && reading.code)
      .every((code) => code === 'dxf-not-understood' || code === 'reference-too-large'),
  ).toBe(true);
  const numbers = readings
    .flatMap((reading) => (reading.ok ? reading.value.paths : []))
    .flatMap(({ pieces }) => pieces)
    .flatMap((piece) => Object.values(piece).flat())
    .filter((value) => typeof value === 'number');
  expect(numbers.every((value) => Math.abs(value) <= 2e10)).toBe(true);
});

it('a block that is put in a thousand million times is refused; no count at all is once', () => {
  const insert = (columns: string): readonly Group[] => [
    [0, 'INSERT'],
    [8, '0'],
    [2, 'peg'],
    [10, 0],
    [20, 0],
    [70, columns],
  ];
  expect(readDxf(whole(4, insert('1000000000')))).toMatchObject({ ok: false, code: 'reference-too-large' });
  expect(read(whole(4, insert('x'))).paths).toHaveLength(1);
});

it('thirty thousand open lines are linked, and a spline of as many points is read, without going round each for each', () => {
  const count = 30_000;
  const strokes = Array.from({ length: count }, (_, i): readonly Group[] => [
    [0, 'LINE'],
    [8, '0'],
    [10, i],
    [20, i % 7],
    [11, i + 1],
    [21, (i + 1) % 7],
  ]).flat();
  expect(summarize(read(whole(4, strokes)))).toMatchObject({ width: count, closed: 0, openEnds: 2 });
  const spline: readonly Group[] = [
    [0, 'SPLINE'],
    [8, '0'],
    [71, 3],
    ...Array.from({ length: count + 4 }, (_, i): Group => [40, Math.max(0, Math.min(count - 3, i - 3))]),
    ...Array.from({ length: count }, (_, i): readonly Group[] => [
      [10, i],
      [20, i % 5],
    ]).flat(),
  ];
  expect(read(whole(4, spline)).paths[0]!.pieces.length).toBeGreaterThan(count / 2);
});
