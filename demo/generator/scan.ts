import { createGrain, hash, smooth } from './noise';
import type { Point } from './profile';
import type { Picture } from './render';

export type Line = readonly [Point, Point];

/** A line drawing on paper, as it comes off a printer and a scanner. Lines in mm of the thing, x right, y up. */
export interface Drawing {
  readonly name: string;
  /** Width and height of the paper, mm. */
  readonly paper: Point;
  readonly dpi: number;
  /** Size on paper over size of the thing. */
  readonly ratio: number;
  /** Where the thing's zero lies on the paper before it was printed, mm from its lower left corner. */
  readonly place: Point;
  /** How much wider the printer made everything across; degrees by which the paper lay askew, anticlockwise. */
  readonly stretch: number;
  readonly askew: number;
  /** The same up the paper; 1 where nothing is said. */
  readonly stretchUp?: number;
  readonly lines: readonly Line[];
  readonly circles: readonly { readonly centre: Point; readonly diameter: number }[];
  /** Size lines beside the thing: `away` mm to the left of the way from `from` to `to`. */
  readonly dimensions: readonly {
    readonly from: Point;
    readonly to: Point;
    readonly away: number;
    readonly says: string;
    /** How large figures and ticks are against those of a drawing at half size; the first one says it for all. */ readonly figures?: number;
  }[];
}

/** From the thing to pixels of the scan, y down. */
export function scanner({ paper, dpi, ratio, place, stretch, askew, stretchUp = 1 }: Drawing): {
  readonly width: number;
  readonly height: number;
  project(at: Point): Point;
} {
  const perMm = dpi / 25.4;
  const [c, s] = [Math.cos((askew * Math.PI) / 180), Math.sin((askew * Math.PI) / 180)];
  return {
    width: Math.round(paper[0] * perMm),
    height: Math.round(paper[1] * perMm),
    project([x, y]) {
      const [u, v] = [
        (place[0] + x * ratio - paper[0] / 2) * stretch,
        (place[1] + y * ratio - paper[1] / 2) * stretchUp,
      ];
      return [(paper[0] / 2 + c * u - s * v) * perMm, (paper[1] / 2 - (s * u + c * v)) * perMm];
    },
  };
}

/** Ink by pixel, 0 to 1. */
class Ink {
  readonly cover: Float32Array;
  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    this.cover = new Float32Array(width * height);
  }
  /** A line with round ends, `thick` px wide, its rim a pixel soft. */
  stroke([ax, ay]: Point, [bx, by]: Point, thick: number): void {
    const reach = thick / 2 + 1;
    const length = (bx - ax) ** 2 + (by - ay) ** 2 || 1;
    for (
      let y = Math.max(0, Math.floor(Math.min(ay, by) - reach));
      y <= Math.min(this.height - 1, Math.max(ay, by) + reach);
      y++
    ) {
      for (
        let x = Math.max(0, Math.floor(Math.min(ax, bx) - reach));
        x <= Math.min(this.width - 1, Math.max(ax, bx) + reach);
        x++
      ) {
        const [px, py] = [x + 0.5 - ax, y + 0.5 - ay];
        const t = Math.max(0, Math.min(1, (px * (bx - ax) + py * (by - ay)) / length));
        const away = Math.hypot(px - t * (bx - ax), py - t * (by - ay));
        const at = y * this.width + x;
        this.cover[at] = Math.max(this.cover[at]!, Math.max(0, Math.min(1, thick / 2 + 0.5 - away)));
      }
    }
  }
}

const OUTLINE = 0.5;
const THIN = 0.2;

export interface DrawnStroke {
  readonly from: Point;
  readonly to: Point;
  /** How thick it is on paper. */
  readonly mm: number;
}

/** Everything that is drawn, stroke by stroke: the lines, circles with their centre lines, sizes with their figures. mm of the thing. */
export function strokesOf(drawing: Pick<Drawing, 'lines' | 'circles' | 'dimensions'>): readonly DrawnStroke[] {
  const strokes: DrawnStroke[] = [];
  const draw: Draw = (from, to, mm) => void strokes.push({ from, to, mm });
  drawing.lines.forEach(([a, b]) => draw(a, b, OUTLINE));
  for (const {
    centre: [x, y],
    diameter,
  } of drawing.circles) {
    const at = (i: number): Point => [
      x + (diameter / 2) * Math.cos((i * Math.PI) / 90),
      y + (diameter / 2) * Math.sin((i * Math.PI) / 90),
    ];
    for (let i = 0; i < 180; i++) draw(at(i), at(i + 1), OUTLINE);
    draw([x - diameter * 0.7, y], [x + diameter * 0.7, y], THIN);
    draw([x, y - diameter * 0.7], [x, y + diameter * 0.7], THIN);
  }
  const size = drawing.dimensions[0]?.figures ?? 1;
  drawing.dimensions.forEach((dimension) => drawDimension(dimension, draw, size));
  return strokes;
}

/** What a drawing stands on and is drawn with. Places in pixels of the scan. */
export interface Ground {
  /** Colour of the bare paper, 0 to 255. */
  paper(x: number, y: number, width: number, height: number): readonly [number, number, number];
  /** How much of it the ink takes away, 0 to 1. */
  readonly ink: number;
  /** Round specks of dirt: how many, and how large at most, px across. */
  readonly specks?: { readonly count: number; readonly largest: number };
}

/** Paper that is not quite white or even, ink that is not quite black. */
const PRINT: Ground = {
  paper(x, y, width) {
    const tone = 244 + 5 * smooth(x * 0.004, y * 0.004, 9) - 5 * (x / width);
    return [tone, tone * 0.995, tone * 0.98];
  },
  ink: 0.83,
};

/** A scan, with a little noise. */
export function scan(drawing: Drawing, ground = PRINT): Picture {
  const { width, height, project } = scanner(drawing);
  const ink = new Ink(width, height);
  const perMm = drawing.dpi / 25.4;
  const draw = (a: Point, b: Point, mm: number) => ink.stroke(project(a), project(b), mm * perMm);
  strokesOf(drawing).forEach(({ from, to, mm }) => draw(from, to, mm));
  if (ground.specks) strewSpecks(ink, ground.specks);
  const grain = createGrain(31);
  const data = new Uint8Array(width * height * 4);
  for (let i = 0; i < width * height; i++) {
    const [x, y] = [i % width, Math.floor(i / width)];
    const [paper, noise] = [ground.paper(x, y, width, height), 2 * grain()];
    for (let c = 0; c < 3; c++)
      data[4 * i + c] = Math.max(
        0,
        Math.min(255, Math.round(paper[c]! * (1 - ground.ink * ink.cover[i]!) + (noise * paper[c]!) / paper[0])),
      );
    data[4 * i + 3] = 255;
  }
  return { width, height, data };
}

function strewSpecks(ink: Ink, { count, largest }: NonNullable<Ground['specks']>): void {
  for (let i = 0; i < count; i++) {
    const at: Point = [hash(i, 1, 71) * ink.width, hash(i, 2, 71) * ink.height];
    ink.stroke(at, [at[0] + 0.4, at[1]], 1.2 + (largest - 1.2) * hash(i, 3, 71) ** 2);
  }
}

/** A line as a hand draws it: in short strokes that wander off by up to `wobble` mm. */
export function byHand([a, b]: Line, wobble: number, seed: number): Line[] {
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const steps = Math.max(2, Math.ceil(length / (wobble * 12)));
  const at = (i: number): Point => {
    const t = i / steps;
    const off = (n: number) => 2 * wobble * (smooth((t * length) / (wobble * 30) + 7 * seed, n, 13) - 0.5);
    return [a[0] + (b[0] - a[0]) * t + off(1), a[1] + (b[1] - a[1]) * t + off(2)];
  };
  return Array.from({ length: steps }, (_, i): Line => [at(i), at(i + 1)]);
}

type Draw = (a: Point, b: Point, mm: number) => void;

function drawDimension({ from, to, away, says }: Drawing['dimensions'][number], draw: Draw, grown: number): void {
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
  const along: Point = [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
  const at = (u: number, v: number): Point => [
    from[0] + along[0] * u - along[1] * v,
    from[1] + along[1] * u + along[0] * v,
  ];
  draw(at(-5 * grown, away), at(length + 5 * grown, away), THIN);
  for (const u of [0, length]) {
    draw(at(u, (away > 0 ? 4 : -4) * grown), at(u, away + Math.sign(away) * 5 * grown), THIN);
    draw(at(u - 2.5 * grown, away - 2.5 * grown), at(u + 2.5 * grown, away + 2.5 * grown), OUTLINE);
  }
  const size = 7 * grown;
  const begin = length / 2 - (says.length * size) / 2;
  [...says].forEach((figure, i) =>
    drawFigure(figure, (x, y) => at(begin + i * size + x * size * 0.55, away + 3 * grown + y * size), draw),
  );
}

/** Seven strokes a figure: top, upper left, upper right, middle, lower left, lower right, bottom. */
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
const BARS: readonly Line[] = [
  [
    [0, 1],
    [1, 1],
  ],
  [
    [0, 0.5],
    [0, 1],
  ],
  [
    [1, 0.5],
    [1, 1],
  ],
  [
    [0, 0.5],
    [1, 0.5],
  ],
  [
    [0, 0],
    [0, 0.5],
  ],
  [
    [1, 0],
    [1, 0.5],
  ],
  [
    [0, 0],
    [1, 0],
  ],
];

function drawFigure(figure: string, at: (x: number, y: number) => Point, draw: Draw): void {
  BARS.forEach(([a, b], i) => FIGURES[Number(figure)]![i] === '1' && draw(at(...a), at(...b), 0.35));
}
