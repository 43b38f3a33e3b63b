import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import jpeg from 'jpeg-js';
import type { Vec } from '../geometry';
import { findSheetTurn, grayFrom, listDrawings, listFrames, type GrayPicture } from '.';

type Stroke = readonly [Vec, Vec];

/** A yellowed sheet, darker towards one corner, with pencil strokes turned about its middle (radians, clockwise), grain and specks. */
function sheet(width: number, height: number, strokes: readonly Stroke[], turn = 0, seed = 1): GrayPicture {
  let state = seed;
  const uniform = () => ((state = (Math.imul(state, 1664525) + 1013904223) >>> 0) + 0.5) / 4294967296;
  const data = Float32Array.from(
    { length: width * height },
    (_, i) => 235 - 50 * ((i % width) / width) - 30 * (i / width / height) + 10 * (uniform() - 0.5),
  );
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const turned = ([x, y]: Vec): Vec => [
    width / 2 + c * (x - width / 2) - s * (y - height / 2),
    height / 2 + s * (x - width / 2) + c * (y - height / 2),
  ];
  for (const [from, to] of strokes) {
    const [a, b] = [turned(from), turned(to)];
    const steps = 3 * Math.hypot(b[0] - a[0], b[1] - a[1]);
    for (let k = 0; k <= steps; k++) dot(a[0] + ((b[0] - a[0]) * k) / steps, a[1] + ((b[1] - a[1]) * k) / steps, 1.1);
  }
  for (let k = 0; k < 60; k++) dot(uniform() * width, uniform() * height, 0.8);
  function dot(x: number, y: number, radius: number) {
    for (let j = Math.max(0, Math.floor(y - 2)); j <= Math.min(height - 1, y + 2); j++) {
      for (let i = Math.max(0, Math.floor(x - 2)); i <= Math.min(width - 1, x + 2); i++) {
        const cover = Math.max(0, Math.min(1, radius + 0.5 - Math.hypot(i + 0.5 - x, j + 0.5 - y)));
        data[j * width + i] = Math.min(data[j * width + i]!, 235 - 170 * cover);
      }
    }
  }
  return { width, height, data };
}

const box = (left: number, top: number, right: number, bottom: number): Stroke[] => [
  [
    [left, top],
    [right, top],
  ],
  [
    [right, top],
    [right, bottom],
  ],
  [
    [right, bottom],
    [left, bottom],
  ],
  [
    [left, bottom],
    [left, top],
  ],
];
const shed: readonly Stroke[] = [
  ...box(260, 300, 760, 700),
  [
    [260, 300],
    [510, 140],
  ],
  [
    [510, 140],
    [760, 300],
  ],
  ...box(420, 450, 540, 700),
  ...box(600, 430, 700, 540),
  [
    [200, 700],
    [820, 700],
  ],
];

describe('how a sheet lies', () => {
  it('is found within 0.05° from −10° to 10°, dirt, light and slopes of the roof notwithstanding', () => {
    fc.assert(
      fc.property(fc.double({ min: -10, max: 10, noNaN: true }), fc.integer({ min: 1, max: 999 }), (degrees, seed) => {
        const found = findSheetTurn(sheet(1000, 800, shed, (degrees * Math.PI) / 180, seed))!;
        expect(Math.abs((found.angle * 180) / Math.PI - degrees)).toBeLessThan(0.05);
        expect(found.sigma).toBeLessThan((0.1 * Math.PI) / 180);
      }),
      { numRuns: 12, seed: 7 },
    );
  });
  it('is found for the scan of the nest box as it was laid', () => {
    const { width, height, data } = jpeg.decode(readFileSync('public/demo/nest-box.jpg'), { useTArray: true });
    const truth = JSON.parse(readFileSync('demo/truth/nest-box.json', 'utf8')) as { askew: number };
    const found = findSheetTurn(grayFrom(width, height, data))!;
    expect(Math.abs((found.angle * 180) / Math.PI + truth.askew)).toBeLessThan(0.05);
  });
  it('is not told by an empty sheet, nor by lines all over the place', () => {
    expect(findSheetTurn(sheet(600, 500, []))).toBeUndefined();
    const wild = Array.from({ length: 40 }, (_, i): Stroke => [
      [300 + 220 * Math.cos(i), 250 + 200 * Math.sin(i)],
      [300 + 220 * Math.cos(2.4 * i + 1), 250 + 200 * Math.sin(2.4 * i + 1)],
    ]);
    expect(findSheetTurn(sheet(600, 500, wild))).toBeUndefined();
  });
});

describe('drawings on a sheet', () => {
  const front = box(100, 120, 320, 300);
  const side = box(430, 120, 560, 300);
  const plan = [
    ...box(100, 420, 320, 560),
    [
      [100, 420],
      [320, 560],
    ] as Stroke,
  ];
  const border = box(20, 20, 780, 620);
  it('are told apart by white space, in reading order, without the border and the specks', () => {
    const found = listDrawings(sheet(800, 640, [...plan, ...side, ...front, ...border]));
    expect(found).toHaveLength(3);
    for (const [i, [left, top, right, bottom]] of [
      [100, 120, 320, 300],
      [430, 120, 560, 300],
      [100, 420, 320, 560],
    ].entries()) {
      const { left: l, top: t, right: r, bottom: b } = found[i]!;
      for (const [is, was] of [
        [left! - l, 10],
        [top! - t, 10],
        [r - right!, 10],
        [b - bottom!, 10],
      ] as const)
        expect(Math.abs(is - was)).toBeLessThan(14);
    }
  });
  it('are framed level on a sheet that lies askew', () => {
    const askew = 0.06;
    const frames = listFrames(sheet(800, 640, [...plan, ...side, ...front], askew), askew);
    expect(frames).toHaveLength(3);
    for (const [a, b] of frames as readonly (readonly [Vec, Vec])[])
      expect(Math.atan2(b[1] - a[1], b[0] - a[0])).toBeCloseTo(askew, 9);
    const [[left], [right]] = [frames[0]!, frames[1]!].map((frame) => frame.map(([x]) => x)) as unknown as [
      [number],
      [number],
    ];
    expect(right).toBeGreaterThan(left);
  });
  it('are none on an empty sheet', () => {
    expect(listDrawings(sheet(800, 640, []))).toEqual([]);
  });
});
