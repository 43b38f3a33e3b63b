/** What a region measures after its pieces moved a little, against what is shut in when everything is listed anew. */
import { createRandom } from '../calibrate/simulation';
import { moved, placed, pieceLength, windingNumber, type Affine, type Piece, type Vec } from '../geometry';
import { listRegions, measureMoved, type Region, type RegionMeasure } from '.';
import { drawRing } from './random-drawing';

const line = (...[ax, ay, bx, by]: readonly [number, number, number, number]): Piece => ({
  kind: 'line',
  a: [ax, ay],
  b: [bx, by],
});
const square = (low: number, high: number): readonly Piece[] => [
  line(low, low, high, low),
  line(high, low, high, high),
  line(high, high, low, high),
  line(low, high, low, low),
];
const SAME_PLACE = 1e-6;
const findAround = (regions: readonly Region[], place: Vec): Region | undefined =>
  regions.find(
    ({ around, holes }) =>
      windingNumber(
        [around, ...holes].flatMap(({ pieces }) => pieces),
        place,
      ) === 1,
  );
const measured = ({ area, around, holes }: Region): RegionMeasure => ({
  area,
  around: [around, ...holes].flatMap(({ pieces }) => pieces).reduce((sum, piece) => sum + pieceLength(piece), 0),
});

it('of pieces that stay where they are is what was listed', () => {
  const pieces = [...square(0, 100), ...square(30, 60)];
  const plate = listRegions(pieces, SAME_PLACE).at(-1)!;
  expect(measureMoved(plate, pieces)).toEqual({ area: 9100, around: 520 });
});

it('is told of corners that open: a side pushed out takes its neighbours along', () => {
  const [low, right, ...others] = square(0, 100);
  const [plate] = listRegions([low!, right!, ...others], SAME_PLACE);
  const pushed = measureMoved(plate!, [low!, line(102, 0, 102, 100), ...others])!;
  expect(pushed.area).toBeCloseTo(10_200, 9);
  expect(pushed.around).toBeCloseTo(404, 9);
});

it('is undefined where the pieces are others, or too few', () => {
  const pieces = square(0, 100);
  const [plate] = listRegions(pieces, SAME_PLACE);
  const [first, second, third, fourth] = pieces;
  expect(measureMoved(plate!, [second!, first!, third!, fourth!])).toBeUndefined();
  expect(measureMoved(plate!, pieces.slice(1))).toBeUndefined();
  // A side that went half-way across belongs to another drawing.
  expect(measureMoved(plate!, [first!, line(50, 0, 50, 100), third!, fourth!])).toBeUndefined();
});

describe('random drawings of crossing rings', () => {
  const random = createRandom(20261128);
  const between = (low: number, high: number) => low + (high - low) * random.uniform();
  /** Each ring somewhere else, and the way in which it moves: turned, stretched and shifted about zero. */
  const drawing = () => {
    const rings = Array.from({ length: 3 }, () => {
      const there = placed([between(-40, 40), between(-40, 40)], between(0, 6));
      const [x, y] = [between(-1, 1), between(-1, 1)];
      const [turn, stretch] = [between(-0.01, 0.01), between(-0.01, 0.01)];
      return {
        pieces: drawRing(random.uniform, -2).map((piece) => moved(piece, there)),
        move: (by: number): Affine => placed([by * x, by * y], by * turn, 1 + by * stretch),
      };
    });
    return (by: number) => rings.flatMap(({ pieces, move }) => pieces.map((piece) => moved(piece, move(by))));
  };

  it('move at the same pace as when all is listed anew', () => {
    const STEP = 1e-4;
    let looked = 0;
    for (let trial = 0; trial < 40; trial++) {
      const at = drawing();
      const [before, after] = [at(-STEP), at(STEP)];
      const [listedBefore, listedAfter] = [before, after].map((pieces) => listRegions(pieces, SAME_PLACE));
      for (const region of listRegions(at(0), SAME_PLACE).filter(({ area }) => area > 1)) {
        const anew = [listedBefore!, listedAfter!].map((regions) => findAround(regions, region.inside));
        const quick = [before, after].map((pieces) => measureMoved(region, pieces));
        // A sharp corner runs away from where it was: the one is no slope of the other there.
        if (anew.some((other) => other?.around.pieces.length !== region.around.pieces.length)) continue;
        expect(quick).not.toContain(undefined);
        for (const figure of ['area', 'around'] as const) {
          const slopes = [anew.map((other) => measured(other!)), quick].map(
            ([low, high]) => (high![figure] - low![figure]) / (2 * STEP),
          );
          expect(Math.abs(slopes[0]! - slopes[1]!)).toBeLessThan(1e-3 * (1 + Math.abs(slopes[0]!)));
          looked++;
        }
      }
    }
    expect(looked).toBeGreaterThan(150);
  });
});

it('is steady where one piece goes on smoothly into the next', () => {
  // A slot of two lines and two half circles: its ends grow, its sides go apart with them.
  const slot = (radius: number, gap: number): readonly Piece[] => [
    line(0, -radius, 100 + gap, -radius),
    { kind: 'arc', centre: [100, 0], radius, start: -Math.PI / 2, sweep: Math.PI },
    line(100, radius, gap, radius),
    { kind: 'arc', centre: [0, 0], radius, start: Math.PI / 2, sweep: Math.PI },
  ];
  const [region] = listRegions(slot(10, 0), SAME_PLACE);
  // Where lines end a little too late, what is too long runs back along the same tangent.
  const { area, around } = measureMoved(region!, slot(10.001, 0.002))!;
  expect(around).toBeCloseTo(200 + 2 * Math.PI * 10.001, 9);
  expect(area).toBeCloseTo(100 * 20.002 + Math.PI * 10.001 ** 2, 4);
});
