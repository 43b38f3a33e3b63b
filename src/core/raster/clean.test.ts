import fc from 'fast-check';
import type { Vec } from '../geometry';
import { cleanStrip, colourPictureFrom, marginOf, paperOf, strokeBounds, type Cleaning, type Strip } from '.';

const [WIDTH, HEIGHT] = [1200, 900];

interface Dirt {
  readonly at: Vec;
  readonly size: number;
}

/** A yellowed sheet, darker towards one corner, with pen strokes of 4 px and round specks, noise of two levels. */
function dirtySheet(seed: number): {
  readonly strip: Strip;
  readonly specks: readonly Dirt[];
  readonly ends: readonly Vec[];
  readonly clean: Uint8ClampedArray;
} {
  let state = seed;
  const uniform = () => ((state = (Math.imul(state, 1664525) + 1013904223) >>> 0) + 0.5) / 4294967296;
  const paper = (x: number, y: number) => 238 - 45 * (x / WIDTH) ** 2 - 25 * (y / HEIGHT);
  const data = new Uint8ClampedArray(4 * WIDTH * HEIGHT);
  for (let i = 0; i < WIDTH * HEIGHT; i++) {
    const level = paper(i % WIDTH, Math.floor(i / WIDTH)) + 4 * (uniform() - 0.5);
    data.set([level, level * 0.97, level * 0.9, 255], 4 * i);
  }
  const dot = ([x, y]: Vec, radius: number, tone: number) => {
    for (let k = Math.max(0, Math.floor(y - radius - 2)); k <= Math.min(HEIGHT - 1, y + radius + 2); k++) {
      for (let i = Math.max(0, Math.floor(x - radius - 2)); i <= Math.min(WIDTH - 1, x + radius + 2); i++) {
        const cover = Math.max(0, Math.min(1, radius + 0.5 - Math.hypot(i + 0.5 - x, k + 0.5 - y)));
        for (let c = 0; c < 3; c++)
          data[4 * (k * WIDTH + i) + c] = Math.min(
            data[4 * (k * WIDTH + i) + c]!,
            data[4 * (k * WIDTH + i) + c]! * (1 - cover) + tone * cover,
          );
      }
    }
  };
  const ends: Vec[] = [];
  for (let n = 0; n < 40; n++) {
    const [a, b]: [Vec, Vec] = [
      [60 + uniform() * 1080, 60 + uniform() * 780],
      [60 + uniform() * 1080, 60 + uniform() * 780],
    ];
    for (let t = 0; t <= 1; t += 0.3 / Math.hypot(a[0] - b[0], a[1] - b[1]))
      dot([a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t], 2, 50);
    ends.push(a, b);
  }
  const clean = data.slice();
  const specks: Dirt[] = [];
  while (specks.length < 600) {
    const at: Vec = [4 + uniform() * (WIDTH - 8), 4 + uniform() * (HEIGHT - 8)];
    const size = 1.5 + uniform() * 5;
    // On a stroke it is part of it, and two that touch are a larger one: nobody could tell.
    if (
      !isBare(clean, at, size + 3) ||
      specks.some((other) => Math.hypot(other.at[0] - at[0], other.at[1] - at[1]) < (other.size + size) / 2 + 3)
    )
      continue;
    dot(at, size / 2, 60 + 80 * uniform());
    specks.push({ at, size });
  }
  return { strip: { width: WIDTH, height: HEIGHT, top: 0, data }, specks, ends, clean };
}

function isBare(data: Uint8ClampedArray, [x, y]: Vec, reach: number): boolean {
  for (let k = Math.max(0, Math.floor(y - reach)); k <= Math.min(HEIGHT - 1, y + reach); k++) {
    for (let i = Math.max(0, Math.floor(x - reach)); i <= Math.min(WIDTH - 1, x + reach); i++)
      if (data[4 * (k * WIDTH + i)]! < 140) return false;
  }
  return true;
}

const small = ({ data }: Strip) => {
  const rgba = new Uint8ClampedArray(WIDTH * HEIGHT);
  for (let i = 0; i < (WIDTH / 2) * (HEIGHT / 2); i++)
    rgba.set(
      data.subarray(
        4 * (2 * Math.floor(i / (WIDTH / 2)) * WIDTH + 2 * (i % (WIDTH / 2))),
        4 * (2 * Math.floor(i / (WIDTH / 2)) * WIDTH + 2 * (i % (WIDTH / 2))) + 4,
      ),
      4 * i,
    );
  return colourPictureFrom(WIDTH / 2, HEIGHT / 2, rgba);
};

const isSame = (a: Uint8ClampedArray, b: Uint8ClampedArray) => a.every((value, i) => value === b[i]);

describe('cleaning a sheet', () => {
  const sheet = dirtySheet(7);
  const paper = paperOf(small(sheet.strip), 2);
  const cleaned = (steps: readonly Cleaning[], from = sheet.strip.data) => {
    const strip: Strip = { ...sheet.strip, data: from.slice() };
    const counts = cleanStrip(strip, steps, paper, 0, HEIGHT);
    return { data: strip.data, counts };
  };

  it('takes 99 of 100 specks below the size away and leaves every end of a stroke', () => {
    const { data, counts } = cleaned([{ kind: 'specks', size: 8 }]);
    const left = sheet.specks.filter(
      ({ at: [x, y] }) =>
        data[4 * (Math.floor(y) * WIDTH + Math.floor(x))]! < 0.88 * paper.row(Math.floor(x), Math.floor(y), 1)[0]!,
    );
    expect(left.length).toBeLessThanOrEqual(0.01 * sheet.specks.length);
    expect(counts[0]).toBeGreaterThan(0.9 * sheet.specks.length);
    expect(counts[0]).toBeLessThanOrEqual(sheet.specks.length);
    let changed = 0;
    for (let i = 0; i < WIDTH * HEIGHT; i++)
      if (sheet.clean[4 * i]! < 110 && data[4 * i] !== sheet.clean[4 * i]) changed++;
    expect(changed).toBe(0);
  });

  it('leaves what is larger than the size', () => {
    const larger = sheet.specks.filter(({ size }) => size > 5).length;
    const { counts } = cleaned([{ kind: 'specks', size: 4 }]);
    expect(counts[0]).toBeGreaterThan(0);
    expect(counts[0]).toBeLessThanOrEqual(sheet.specks.length - larger);
  });

  it('makes light and paper even, and the ink no paler', () => {
    const { data } = cleaned([{ kind: 'even' }], sheet.clean);
    const tones = [
      [30, 30],
      [1170, 30],
      [1170, 870],
      [30, 870],
      [600, 450],
    ].map(([x, y]) => {
      let [sum, n] = [0, 0];
      for (let k = y! - 12; k <= y! + 12; k++)
        for (let i = x! - 12; i <= x! + 12; i++)
          if (sheet.clean[4 * (k * WIDTH + i)]! > 150) [sum, n] = [sum + data[4 * (k * WIDTH + i)]!, n + 1];
      return sum / n;
    });
    expect(Math.max(...tones) - Math.min(...tones)).toBeLessThan(6);
    const [x, y] = sheet.ends[0]!;
    expect(data[4 * (Math.floor(y) * WIDTH + Math.floor(x))]).toBeLessThan(80);
  });

  it('comes out the same strip by strip as in one piece', () => {
    const steps: Cleaning[] = [
      { kind: 'even' },
      { kind: 'specks', size: 6 },
      {
        kind: 'rub',
        strokes: [
          {
            radius: 30,
            path: [
              [200, 180],
              [500, 460],
            ],
          },
        ],
      },
      {
        kind: 'fill',
        strokes: [
          {
            radius: 2,
            path: [
              [700, 100],
              [700, 600],
            ],
          },
        ],
      },
    ];
    const whole = cleaned(steps);
    const margin = marginOf(steps);
    const out = new Uint8ClampedArray(whole.data.length);
    const counts = [0, 0, 0, 0];
    for (let top = 0; top < HEIGHT; top += 100) {
      const [from, to] = [Math.max(0, top - margin), Math.min(HEIGHT, top + 100 + margin)];
      const strip: Strip = {
        width: WIDTH,
        height: to - from,
        top: from,
        data: sheet.strip.data.slice(4 * WIDTH * from, 4 * WIDTH * to),
      };
      cleanStrip(strip, steps, paper, top, top + 100).forEach((count, i) => (counts[i]! += count));
      out.set(strip.data.subarray(4 * WIDTH * (top - from), 4 * WIDTH * (top - from + 100)), 4 * WIDTH * top);
    }
    expect(counts).toEqual(whole.counts);
    expect(out.every((value, i) => value === whole.data[i])).toBe(true);
    const at = (x: number, y: number) => whole.data[4 * (y * WIDTH + x)]!;
    expect(at(350, 320)).toBeGreaterThan(240);
    expect(at(700, 350)).toBeLessThan(90);
  });

  it('strokes that come later leave the same as all of them at once, and touch only the rows where they go', () => {
    const [first, rows] = [300, 60];
    const place = fc.tuple(fc.integer({ min: 0, max: 200 }), fc.integer({ min: first - 20, max: first + rows + 20 }));
    const stroke = fc.record({
      radius: fc.integer({ min: 1, max: 12 }),
      path: fc.array(place, { minLength: 1, maxLength: 3 }),
    });
    const strokes = fc.array(stroke, { minLength: 1, maxLength: 3 });
    const part = sheet.strip.data.slice(4 * WIDTH * first, 4 * WIDTH * (first + rows));
    const paint = (steps: readonly Cleaning[], data: Uint8ClampedArray, top = first, on = paper) => {
      const height = data.length / (4 * WIDTH);
      cleanStrip({ width: WIDTH, height, top, data }, steps, on, top, top + height);
      return data;
    };
    let changed = 0;
    fc.assert(
      fc.property(fc.constantFrom('rub', 'fill'), strokes, stroke, fc.boolean(), (kind, earlier, later, isEven) => {
        const before: readonly Cleaning[] = isEven ? [{ kind: 'even' }] : [];
        const whole = paint([...before, { kind, strokes: [...earlier, later] }], part.slice());
        const data = paint([...before, { kind, strokes: earlier }], part.slice());
        const { min, max } = strokeBounds(later);
        const top = Math.max(first, Math.floor(min[1]));
        const bottom = Math.min(first + rows, Math.ceil(max[1]) + 1);
        if (bottom > top) {
          const its = data.subarray(4 * WIDTH * (top - first), 4 * WIDTH * (bottom - first));
          const was = its.slice();
          paint([{ kind, strokes: [later] }], its, top, isEven ? paper.even() : paper);
          if (!isSame(was, its)) changed++;
        }
        expect(isSame(data, whole)).toBe(true);
      }),
      { seed: 9, numRuns: 24 },
    );
    expect(changed).toBeGreaterThan(12);
  });
});
