/**
 * What the picture catches a hand by, place by place against the drawing, on photographs from our own generator up to 40° aside: upper edges broken by a tenth of a millimetre, dark walls between a steel face
 * and a bench that is nearly alike, holes with their walls and the shade at their feet.
 */
import { distance, findEllipse, outsideEllipse, polar, type Vec } from '../../src/core/geometry';
import { knowingIn } from '../../src/core/derive/knowing';
import type { FittedView } from '../../src/core/derive';
import { HANDS, Photograph } from './photo-hand';
import { onThing, PLATE, PLATE_HOLES } from './plate';
import { drawWorld, type World } from './world';

const FOCAL: readonly (readonly [number, number])[] = [
  [24, 30],
  [20, 28],
  [40, 60],
  [65, 120],
];
const photographs = (count: number, seed: number) =>
  Array.from(
    { length: count },
    (_, i) =>
      new Photograph(
        drawWorld({ focal35mm: FOCAL[i % 4]!, tilt: [0, 40], told: i % 8 < 4, fill: [0.75, 0.95] }, seed + i),
      ),
  );

const seeOnPlate = ({ see }: World, place: Vec): Vec => {
  const [x, y, z] = onThing('plate', place);
  return see([x, y], z);
};
const onRim = ({ centre, diameter }: (typeof PLATE_HOLES)[number], angle: number): Vec => [
  centre[0] + (diameter / 2) * Math.cos(angle),
  centre[1] + (diameter / 2) * Math.sin(angle),
];

/** Places on the edges of the plate, with the direction along each. */
const PLACES: readonly { readonly at: Vec; readonly along: Vec }[] = [
  ...[0.2, 0.5, 0.8].flatMap((t) => [
    { at: [t * PLATE.width, 0] as Vec, along: [1, 0] as Vec },
    { at: [PLATE.width, t * (PLATE.depth - PLATE.round)] as Vec, along: [0, 1] as Vec },
    { at: [40 + t * 70, PLATE.depth] as Vec, along: [1, 0] as Vec },
  ]),
  ...PLATE_HOLES.flatMap((hole) =>
    [0.4, 2.5, 4.6].map((angle) => ({ at: onRim(hole, angle), along: polar(1, angle + Math.PI / 2) })),
  ),
];

/** How far off the drawing a hand is caught, across the edge, in the sigma that counts for what is traced there. */
function offAt(photo: Photograph, { at, along }: (typeof PLACES)[number], hand: keyof typeof HANDS): number {
  const { world } = photo;
  const [here, beside] = [seeOnPlate(world, at), seeOnPlate(world, [at[0] + along[0], at[1] + along[1]])];
  const pixelsPerMm = distance(here, beside);
  const caught = photo.point(here, HANDS[hand]!);
  const across = [(here[1] - beside[1]) / pixelsPerMm, (beside[0] - here[0]) / pixelsPerMm] as const;
  const off = (caught.at[0] - here[0]) * across[0] + (caught.at[1] - here[1]) * across[1];
  // A fit of about that scale: what edges of things are known to depends on nothing else of it.
  const view = {
    sheet: { kind: 'photo' },
    steadiness: { factor: 1 },
    fit: { scaled: true, toPlane: ([x, y]: Vec): Vec => [x / pixelsPerMm, y / pixelsPerMm] },
  } as unknown as FittedView;
  const edges = knowingIn(() => view).edgesKnownTo({ kind: 'pointed', ...caught });
  return off / (caught.edge ? Math.hypot(caught.edge.sigma, edges) : caught.sigma);
}

it.each(['mouse', 'finger, aimed'])(
  'a place caught by %s lies as near to the edge of the drawing as is said',
  (hand) => {
    const off = photographs(5, 61000).flatMap((photo) => PLACES.map((place) => Math.abs(offAt(photo, place, hand))));
    const spread = Math.sqrt(off.reduce((sum, one) => sum + one * one, 0) / off.length);

    expect(spread).toBeGreaterThan(0.75);
    expect(spread).toBeLessThan(1.2);
    expect(off.filter((one) => one > 2).length / off.length).toBeLessThan(0.07);
    expect(off.filter((one) => one > 4).length / off.length).toBeLessThan(0.01);
  },
);

// Two of these were taken for their walls' feet while the longest ellipse counted and shadows' rims were as good as edges; docs/accuracy.md has what 960 holes came to.
it('the rim of a hole by one tap is its upper rim, also where its wall is seen and shade lies at its foot', () => {
  for (const photo of photographs(6, 55500))
    for (const hole of PLATE_HOLES) {
      const see = (angle: number) => seeOnPlate(photo.world, onRim(hole, angle));
      const truth = findEllipse(Array.from({ length: 40 }, (_, i) => see((i * Math.PI) / 20)))!;
      const rim = photo.rim(seeOnPlate(photo.world, hole.centre), 2 * truth.axes[0]);
      expect(rim).toBeDefined();
      expect(Math.max(...rim!.map(({ at }) => Math.abs(outsideEllipse(truth, at))))).toBeLessThan(4);
    }
});
