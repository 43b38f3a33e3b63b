/** What regions measure, and how well that is known. */
import { pieceLength, type Vec } from '../geometry';
import { addEvidence, addMade, addOutline, addSheet, createView, type Job } from '../job';
import type { Chain, CircleOutline } from '../outline';
import { listRegions, measureMoved } from '../planar';
import {
  createDeriver,
  figuresOf,
  listRims,
  measureRegion,
  measureShapes,
  SAME_PLACE,
  shapesShownIn,
  withOutlines,
} from '.';
import { findRegionAt } from './regions';
import { jobOf, scanOf } from '../job/for-tests';

const sheet = scanOf(2000, 1500);
const at = (place: Vec) => ({ kind: 'pointed' as const, at: place, sigma: 1.5 });
const ring = (id: string, ...corners: readonly Vec[]): Chain => ({
  shape: 'chain',
  id,
  layer: 'outline',
  plane: 'v',
  closed: true,
  nodes: corners.map((place, i) => ({ id: `${id}${i}`, place: at(place), smooth: false })),
  segments: corners.map(() => ({ kind: 'line' })),
});
const hole: CircleOutline = {
  shape: 'circle',
  id: 'hole',
  layer: 'outline',
  plane: 'v',
  by: { kind: 'rim', centre: at([300, 300]), rim: at([320, 300]) },
};

/** A plate of 100 × 60 mm at 10 px/mm with holes in rows, and another that lies over its right side. */
function plateWith(count: number, rows: number): Job {
  const commands = [
    addSheet(sheet, createView('v', sheet)),
    addEvidence(
      'v',
      {
        id: 'e',
        kind: 'length',
        groups: [['p', 'q']],
        said: { length: { value: 150, written: '150' } },
        guess: false,
        role: 'use',
      },
      [
        { id: 'p', at: [100, 1400], sigma: 1 },
        { id: 'q', at: [1600, 1400], sigma: 1 },
      ],
    ),
    addOutline(ring('plate', [200, 900], [1200, 900], [1200, 200], [200, 200])),
    addOutline(ring('over', [1000, 1000], [1400, 1000], [1400, 500], [1000, 400])),
    addOutline(hole),
    addMade(
      {
        shape: 'made',
        id: 'rows',
        layer: 'outline',
        plane: 'v',
        recipe: { kind: 'rows', of: ['hole'], step: [6, 0], count, rowStep: [0, -6], rows },
      },
      false,
    ),
  ];
  return jobOf(commands);
}

function regionsOf(job: Job) {
  const derived = createDeriver()(job);
  const rims = listRims(shapesShownIn(job, derived, 'v'));
  const listed = listRegions(
    rims.map(({ piece }) => piece),
    SAME_PLACE,
  );
  return { figured: { job, derived }, regions: withOutlines(listed, rims) };
}

it.each(['area', 'around'] as const)('%s of every region is known as well as when all is listed anew', (figure) => {
  const { figured, regions } = regionsOf(plateWith(3, 2));
  // Six holes, the plate, what lies over it, and what they share.
  expect(regions.length).toBe(9);
  for (const region of regions) {
    const anew = measureShapes(figured.job.outlines, figured, (shapes) => {
      const rims = listRims(figured.job.outlines.flatMap(({ id }) => shapes.get(id) ?? []));
      const all = listRegions(
        rims.map(({ piece }) => piece),
        SAME_PLACE,
      );
      const { area, around, holes } = findRegionAt(all, region.inside)!;
      if (figure === 'area') return area;
      return [around, ...holes].flatMap(({ pieces }) => pieces).reduce((sum, piece) => sum + pieceLength(piece), 0);
    });
    const quick = measureRegion(region, figured)[figure];
    expect(quick.value / anew.value).toBeCloseTo(1, 9);
    expect(quick.sigma / anew.sigma).toBeCloseTo(1, 4);
  }
});

it('the rim of every region counts the pieces of its own outlines alone', () => {
  const { figured, regions } = regionsOf(plateWith(3, 2));
  for (const region of regions) {
    const own = figured.job.outlines.filter(({ id }) => region.outlines.includes(id));
    const rims = listRims(own.map(({ id }) => figured.derived.shapes.get(id)!));
    const measure = measureMoved(
      region,
      rims.map(({ piece }) => piece),
    );
    expect(measure!.area).toBeCloseTo(region.area, 6);
  }
});

it('of one outline alone is known as its outline is', () => {
  const job = plateWith(3, 2);
  const { figured, regions } = regionsOf({ ...job, outlines: job.outlines.filter(({ id }) => id === 'plate') });
  const plate = figured.job.outlines[0]!;
  const { area, length } = figuresOf(plate, figured, figured.derived.shapes.get('plate')!);
  expect(measureRegion(regions[0]!, figured).area.sigma / area!.sigma).toBeCloseTo(1, 6);
  expect(measureRegion(regions[0]!, figured).around.sigma / length.sigma).toBeCloseTo(1, 6);
});

it('of a plate with a hundred holes counts each of them', () => {
  const [few, many] = [regionsOf(plateWith(1, 1)), regionsOf(plateWith(10, 10))];
  const known = [few, many].map(({ figured, regions }) => measureRegion(regions.at(-1)!, figured).area);
  expect(many.regions.at(-1)!.holes.length).toBe(100);
  // All holes grow together, since each is a copy of one: a hundred take a hundred times away.
  const [one, hundred] = known.map(({ value }) => value) as [number, number];
  expect(one - hundred).toBeCloseTo(99 * Math.PI * 2 ** 2, 3);
  expect(known[1]!.sigma).toBeGreaterThan(known[0]!.sigma);
});
