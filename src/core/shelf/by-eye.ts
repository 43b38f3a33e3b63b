import type { Arc, Line, Piece, Vec } from '../geometry';

/** Things whose size everybody has an eye for. */
export const THINGS_BY_EYE = ['door', 'person', 'chair', 'table', 'hand', 'brick'] as const;
export type ThingByEye = (typeof THINGS_BY_EYE)[number];

/** From where a thing is looked at: as it stands, or from above. */
export type LookedFrom = 'standing' | 'above';

/** A thing to judge a scale by: never measured with. */
export interface DrawnByEye {
  /** What it is about, mm: what is written on it. */
  readonly size: number;
  /** How much such things differ, one sigma, mm. */
  readonly sigma: number;
  /** Plain lines, mm, x right, y up: as it stands its foot is at zero in the middle, from above its own middle is; a door's hinge is. */
  readonly pieces: readonly Piece[];
}

const line = (a: Vec, b: Vec): Line => ({ kind: 'line', a, b });
const arc = (centre: Vec, radius: number, start = 0, sweep = 2 * Math.PI): Arc => ({
  kind: 'arc',
  centre,
  radius,
  start,
  sweep,
});

function along(places: readonly Vec[]): readonly Line[] {
  return places.slice(1).map((to, i) => line(places[i]!, to));
}

/** A rectangle by its lower left corner. */
function box([x, y]: Vec, wide: number, high: number): readonly Line[] {
  return along([
    [x, y],
    [x + wide, y],
    [x + wide, y + high],
    [x, y + high],
    [x, y],
  ]);
}

/** The same on the other side of the middle, around from where the given half ends. */
function mirrored(half: readonly Vec[]): readonly Line[] {
  return along([...half, ...half.map(([x, y]): Vec => [-x, y]).reverse()]);
}

const QUARTER = Math.PI / 2;

const DRAWN: Readonly<Record<ThingByEye, Readonly<Record<LookedFrom, DrawnByEye>>>> = {
  door: {
    standing: {
      size: 2000,
      sigma: 30,
      pieces: [...box([-450, 0], 900, 2000), ...box([-310, 1150], 620, 700), arc([370, 1000], 30)],
    },
    above: { size: 900, sigma: 40, pieces: [...box([0, 0], 40, 900), arc([0, 0], 900, 0, QUARTER)] },
  },
  person: {
    standing: {
      size: 1750,
      sigma: 75,
      pieces: [
        arc([0, 1640], 110),
        ...mirrored([
          [0, 780],
          [60, 0],
          [170, 0],
          [190, 850],
          [220, 1000],
          [260, 820],
          [300, 830],
          [240, 1440],
          [60, 1500],
          [60, 1545],
        ]),
      ],
    },
    above: {
      size: 500,
      sigma: 35,
      pieces: [
        { kind: 'ellipse', centre: [0, 0], major: [250, 0], ratio: 0.56, start: 0, sweep: 2 * Math.PI },
        arc([0, 20], 90),
      ],
    },
  },
  chair: {
    standing: {
      size: 850,
      sigma: 40,
      pieces: [
        ...box([-210, 430], 420, 30),
        ...box([-210, 0], 35, 430),
        ...box([175, 0], 35, 430),
        ...box([-200, 460], 30, 390),
        ...box([170, 460], 30, 390),
        ...box([-170, 700], 340, 110),
      ],
    },
    above: { size: 420, sigma: 25, pieces: [...box([-210, -220], 420, 400), ...box([-200, 180], 400, 40)] },
  },
  table: {
    standing: {
      size: 740,
      sigma: 15,
      pieces: [...box([-600, 710], 1200, 30), ...box([-540, 0], 60, 710), ...box([480, 0], 60, 710)],
    },
    above: { size: 1200, sigma: 200, pieces: [...box([-600, -400], 1200, 800), ...box([-540, -340], 1080, 680)] },
  },
  hand: {
    standing: { size: 190, sigma: 12, pieces: handPieces() },
    above: { size: 190, sigma: 12, pieces: handPieces() },
  },
  brick: {
    standing: { size: 215, sigma: 3, pieces: box([-107.5, 0], 215, 65) },
    above: { size: 215, sigma: 3, pieces: box([-107.5, -51.25], 215, 102.5) },
  },
};

/** An open left hand, its wrist at zero: 190 long, 85 across the palm. */
function handPieces(): readonly Piece[] {
  const fingers: readonly (readonly [middle: number, top: number])[] = [
    [-31, 163],
    [-10, 190],
    [11, 182],
    [32, 152],
  ];
  const fingertips = fingers.flatMap(([x, top]): readonly Piece[] => [
    line([x - 9, 100], [x - 9, top - 9]),
    arc([x, top - 9], 9, Math.PI, -Math.PI),
    line([x + 9, top - 9], [x + 9, 100]),
  ]);
  return [
    ...fingertips,
    ...along([
      [-40, 100],
      [-62, 112],
      [-80, 96],
      [-52, 62],
      [-30, 0],
      [30, 0],
      [42, 60],
      [41, 100],
    ]),
  ];
}

/** How a thing looks, about as large as it usually is. Common practice: a door leaf 900 by 2,000, a seat 430 to 460 high, a table 740, a brick 215 by 102.5 by 65. */
export const drawnByEye = (thing: ThingByEye, from: LookedFrom): DrawnByEye => DRAWN[thing][from];
