import fc from 'fast-check';
import type { Vec } from '../geometry';
import { asPointed, type Chain, type Knowing, type PointedPlace, type Segment } from '.';

const STEADY: Knowing = { steadinessIn: () => 1, edgesKnownTo: () => 0 };

const pointed = (at: Vec, edge?: PointedPlace['edge']): PointedPlace => ({
  kind: 'pointed',
  at,
  sigma: 0.8,
  ...(edge ? { edge } : {}),
});
const chainOf = (places: readonly PointedPlace[], segments: readonly Segment[]): Chain => ({
  shape: 'chain',
  id: 'c',
  layer: 'l',
  plane: 'v',
  closed: false,
  nodes: places.map((place, i) => ({ id: `n${i}`, place, smooth: false })),
  segments,
});
const placeAt = ({ nodes }: Chain, i: number): PointedPlace => {
  const { place } = nodes[i]!;
  if (place.kind !== 'pointed') throw new Error('pointed');
  return place;
};

/** A level line of 300 px and a quarter of a circle that leaves it along it. */
const filletOf = (radius: number, edge?: PointedPlace['edge']): Chain =>
  chainOf(
    [pointed([0, 0]), pointed([300, 0], edge), pointed([300 + radius, radius])],
    [{ kind: 'line' }, { kind: 'arc', through: pointed([300 + radius * Math.SQRT1_2, radius * (1 - Math.SQRT1_2)]) }],
  );

const radii = fc.double({ min: 20, max: 400, noNaN: true });

it('a contact of a line and an arc is known along the edge to √(2rs), and across it as it was', () => {
  fc.assert(
    fc.property(radii, (radius) => {
      const { sigma, edge } = placeAt(asPointed(filletOf(radius), STEADY), 1);
      expect(sigma).toBeCloseTo(Math.min(Math.sqrt(2 * radius * 0.8), (radius * Math.PI) / 8), 6);
      expect(edge!.sigma).toBe(0.8);
      expect(Math.abs(Math.sin(edge!.normal))).toBeCloseTo(1, 9);
    }),
    { seed: 1 },
  );
});

it('a shaky hand widens it both ways; an edge of the picture is as good as it is, and half a pixel is all that anybody sees', () => {
  fc.assert(
    fc.property(radii, fc.double({ min: 1, max: 3, noNaN: true }), (radius, steadiness) => {
      const free = placeAt(asPointed(filletOf(radius), { ...STEADY, steadinessIn: () => steadiness }), 1);
      expect(free.edge!.sigma).toBeCloseTo(0.8 * steadiness, 9);
      expect(free.sigma).toBeCloseTo(
        Math.max(0.8 * steadiness, Math.min(Math.sqrt(2 * radius * 0.8 * steadiness), (radius * Math.PI) / 8)),
        6,
      );
      const caught = placeAt(
        asPointed(filletOf(radius, { normal: Math.PI / 2, sigma: 0.15 }), {
          ...STEADY,
          steadinessIn: () => steadiness,
        }),
        1,
      );
      expect(caught.edge).toEqual({ normal: Math.PI / 2, sigma: 0.15 });
      expect(caught.sigma).toBeCloseTo(
        Math.max(0.8 * steadiness, Math.min(Math.sqrt(2 * radius * 0.5), (radius * Math.PI) / 8)),
        6,
      );
    }),
    { seed: 2 },
  );
});

it('ends, corners of lines and what a corner of the picture caught are as they were pointed', () => {
  const fillet = filletOf(100);
  for (const end of [0, 2]) expect(placeAt(asPointed(fillet, STEADY), end)).toEqual(placeAt(fillet, end));
  const corner = chainOf(
    [pointed([0, 0]), pointed([100, 0]), pointed([100, 80])],
    [{ kind: 'line' }, { kind: 'line' }],
  );
  expect(asPointed(corner, STEADY)).toEqual(corner);
  const caught: PointedPlace = { kind: 'pointed', at: [300, 0], sigma: 0.3 };
  const nodes = fillet.nodes.map((node, i) => (i === 1 ? { ...node, place: caught } : node));
  expect(placeAt(asPointed({ ...fillet, nodes }, STEADY), 1)).toEqual(caught);
});

it('what the picture caught is known across its edge no better than edges are; what a hand pointed at freely, as it was', () => {
  const broken: Knowing = { ...STEADY, edgesKnownTo: () => 0.4 };
  const edge = { normal: Math.PI / 2, sigma: 0.3 };
  expect(placeAt(asPointed(chainOf([pointed([0, 0], edge)], []), broken), 0)).toMatchObject({
    sigma: 0.8,
    edge: { normal: edge.normal, sigma: 0.5 },
  });
  const corner: PointedPlace = { kind: 'pointed', at: [300, 0], sigma: 0.3 };
  expect(placeAt(asPointed(chainOf([corner], []), broken), 0).sigma).toBeCloseTo(0.5, 9);
  // Though edges make it wider than the eye sees, a caught corner between a line and an arc stays one.
  const fillet = filletOf(100);
  const nodes = fillet.nodes.map((node, i) => (i === 1 ? { ...node, place: corner } : node));
  const met = placeAt(asPointed({ ...fillet, nodes }, { ...STEADY, edgesKnownTo: () => 1.6 }), 1);
  expect(met.edge).toBeUndefined();
  expect(met.sigma).toBeCloseTo(Math.hypot(0.3, 1.6), 9);
  expect(placeAt(asPointed(fillet, broken), 0)).toEqual(placeAt(fillet, 0));
});

it('a kink that shows says where the pieces meet', () => {
  // An arc of 200 px that a line meets at 60°.
  const chord = chainOf(
    [pointed([0, 0]), pointed([200, 0]), pointed([200, 200])],
    [{ kind: 'line' }, { kind: 'arc', through: pointed([226.8, 100]) }],
  );
  const along = placeAt(asPointed(chord, STEADY), 1).sigma;
  expect(along).toBeLessThan(3 * 0.8);
  expect(along).toBeLessThan(placeAt(asPointed(filletOf(200), STEADY), 1).sigma / 4);
});
