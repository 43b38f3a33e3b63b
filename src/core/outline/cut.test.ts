import fc from 'fast-check';
import {
  distance,
  findEnds,
  listCrossings,
  nearestOn,
  partOf,
  pieceLength,
  pointAt,
  type Line,
  type Piece,
  type Vec,
} from '../geometry';
import {
  asCircle,
  carriedOn,
  cutAway,
  listCutsOn,
  shapeOf,
  splitAt,
  type Chain,
  type DrawnOutline,
  type Editing,
  type Place,
  type Segment,
} from '.';

const toSheet = ([x, y]: Vec): Vec => [x * 10, -y * 10];
const placing = { scaled: true, toPlane: ([x, y]: Vec): Vec => [x / 10, -y / 10] };
const pointed = (at: Vec): Place => ({ kind: 'pointed', at: toSheet(at), sigma: 1 });
const editing = (): Editing => {
  let count = 0;
  return { toSheet, newId: () => `new${count++}`, sigma: 0.5 };
};
const owned = { id: 'o', layer: 'l', plane: 'v' };
const place = fc.tuple(
  fc.double({ min: -40, max: 40, noNaN: true }),
  fc.double({ min: -40, max: 40, noNaN: true }),
) as fc.Arbitrary<Vec>;
const kinds = fc.array(fc.constantFrom('line', 'arc', 'tangent', 'curve'), { minLength: 7, maxLength: 7 });

/** A chain of every kind of segment over scattered points. */
const chains = fc
  .tuple(
    fc.uniqueArray(place, {
      minLength: 4,
      maxLength: 7,
      selector: ([x, y]) => `${Math.round(x / 4)} ${Math.round(y / 4)}`,
    }),
    kinds,
    fc.boolean(),
  )
  .map(([at, of, closed]): Chain => ({
    ...owned,
    shape: 'chain',
    closed,
    nodes: at.map((p, i) => ({ id: `n${i}`, place: pointed(p), smooth: true })),
    segments: of.slice(0, closed ? at.length : at.length - 1).map((kind, i): Segment => {
      if (kind === 'arc') return { kind, through: pointed([at[i]![0] + 7, at[i]![1] + 11]) };
      return kind === 'tangent' && i > 0 ? { kind } : { kind: kind === 'curve' ? 'curve' : 'line' };
    }),
  }));
const rounds = fc.oneof(
  fc.tuple(place, fc.double({ min: 4, max: 30, noNaN: true })).map(([at, r]): DrawnOutline => ({
    ...owned,
    shape: 'circle',
    by: { kind: 'rim', centre: pointed(at), rim: pointed([at[0] + r, at[1]]) },
  })),
  fc
    .tuple(place, fc.double({ min: 4, max: 30, noNaN: true }), fc.double({ min: 2, max: 30, noNaN: true }))
    .map(([at, a, b]): DrawnOutline => ({
      ...owned,
      shape: 'ellipse',
      centre: pointed(at),
      end: pointed([at[0] + a * 0.8, at[1] + a * 0.6]),
      side: pointed([at[0] - b * 0.6, at[1] + b * 0.8]),
    })),
);
const shapeIt = (outline: DrawnOutline) => shapeOf(outline, placing);
const along = (pieces: readonly Piece[]) => pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);

describe('cutting away', () => {
  it('leaves what lies outside the stretch where it was, to a millionth, and as much shorter as the stretch is long', () => {
    fc.assert(
      fc.property(fc.oneof(chains, rounds), place, place, (outline, a, b) => {
        const shape = shapeIt(outline);
        fc.pre(shape.faults.length === 0);
        const edge: Line = { kind: 'line', a: [a[0] * 3, a[1] * 3], b: [b[0] * 3, b[1] * 3] };
        const cuts = listCutsOn(shape, [edge], 1e-6);
        fc.pre(cuts.length >= 2);
        const [from, to] = [cuts[0]!, cuts[1]!];
        const rest = cutAway(outline, shape, from, to, editing()).map((chain) => shapeIt(chain));
        const gone = along(shape.pieces) - rest.reduce((sum, part) => sum + along(part.pieces), 0);
        const between = shape.pieces.reduce((sum, piece, i) => {
          const [first, last] = [
            i < from.segment ? 1 : i === from.segment ? from.t : 0,
            i > to.segment ? 0 : i === to.segment ? to.t : 1,
          ];
          return first < last ? sum + pieceLength(partOf(piece, first, last)) : sum;
        }, 0);
        expect(Math.abs(gone - between)).toBeLessThan(1e-4);
        for (const { pieces, faults } of rest) {
          expect(faults).toEqual([]);
          for (const at of pieces.flatMap((piece) => [0, 0.3, 0.6, 1].map((t) => pointAt(piece, t))))
            expect(Math.min(...shape.pieces.map((piece) => nearestOn(piece, at).distance))).toBeLessThan(1e-6);
        }
      }),
      { numRuns: 300, seed: 3 },
    );
  });

  it('splits anywhere without moving anything', () => {
    fc.assert(
      fc.property(chains, fc.nat(20), fc.double({ min: 0, max: 1, noNaN: true }), (chain, index, t) => {
        const shape = shapeIt(chain);
        fc.pre(shape.faults.length === 0);
        const parts = splitAt(chain, shape, { segment: index % chain.segments.length, t }, editing()).map((part) =>
          shapeIt(part),
        );
        expect(Math.abs(parts.reduce((sum, { pieces }) => sum + along(pieces), 0) - along(shape.pieces))).toBeLessThan(
          1e-6,
        );
        if (chain.closed) expect(parts.map(({ closed }) => closed)).toEqual([false]);
      }),
      { numRuns: 300, seed: 4 },
    );
  });
});

describe('carrying on', () => {
  const wall: Line = { kind: 'line', a: [50, -500], b: [50, 500] };

  it('ends on what it met, and is where it was before', () => {
    let carried = 0;
    fc.assert(
      fc.property(chains, (drawn) => {
        const chain: Chain = { ...drawn, closed: false, segments: drawn.segments.slice(0, drawn.nodes.length - 1) };
        const shape = shapeIt(chain);
        fc.pre(shape.faults.length === 0);
        for (const end of ['end', 'start'] as const) {
          const longer = carriedOn(chain, shape, end, [wall], 500, editing());
          // What runs away from the wall meets nothing; the others are counted.
          if (!longer) continue;
          carried++;
          const after = shapeIt(longer);
          const [first, last] = findEnds(after.paths[0]!)!;
          expect((end === 'end' ? last : first)[0]).toBeCloseTo(50, 6);
          for (const at of shape.pieces.flatMap((piece) => [0, 0.5, 1].map((t) => pointAt(piece, t))))
            expect(Math.min(...after.pieces.map((piece) => nearestOn(piece, at).distance))).toBeLessThan(1e-5);
        }
      }),
      { numRuns: 300, seed: 5 },
    );
    expect(carried).toBeGreaterThan(60);
  });

  it('a curve goes on along its own polynomial', () => {
    const curve: Chain = {
      ...owned,
      shape: 'chain',
      closed: false,
      nodes: (
        [
          [0, 0],
          [30, 10],
        ] as Vec[]
      ).map((at, i) => ({
        id: `n${i}`,
        place: pointed(at),
        smooth: false,
        ...(i === 0 ? { handleOut: [100, -100] } : { handleIn: [-100, 0] }),
      })),
      segments: [{ kind: 'curve' }],
    };
    const before = shapeIt(curve);
    const [drawn] = before.pieces;
    const ahead: Line = { kind: 'line', a: [38, -100], b: [38, 100] };
    const after = shapeIt(carriedOn(curve, before, 'end', [ahead], 500, editing())!);
    const [longer] = after.pieces;
    expect(pointAt(longer!, 1)[0]).toBeCloseTo(38, 6);
    // The cubic at a parameter beyond 1, by its own coefficients, at the place that is 38 across.
    expect(nearestOn(partOf(drawn!, 0, 2), pointAt(longer!, 1)).distance).toBeLessThan(1e-6);
    for (let i = 0; i <= 20; i++) expect(nearestOn(longer!, pointAt(drawn!, i / 20)).distance).toBeLessThan(1e-6);
  });

  it('a broken circle is whole again', () => {
    const arc: Chain = {
      ...owned,
      shape: 'chain',
      closed: false,
      nodes: [
        [10, 0],
        [0, 10],
      ].map((at, i) => ({ id: `n${i}`, place: pointed(at as unknown as Vec), smooth: false })),
      segments: [{ kind: 'arc', through: pointed([10 * Math.SQRT1_2, 10 * Math.SQRT1_2]) }],
    };
    const [piece] = shapeIt(asCircle(arc, shapeIt(arc), editing())!).pieces;
    expect(piece?.kind === 'arc' && [distance(piece.centre, [0, 0]), piece.radius]).toEqual([
      expect.closeTo(0, 9),
      expect.closeTo(10, 9),
    ]);
    expect(listCrossings(piece!, wall)).toEqual([]);
  });
});
