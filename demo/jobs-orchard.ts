import { placedView } from '../src/core/derive';
import { createJob, createView, SITE, type Job } from '../src/core/job';
import type { MadeOutline, Siting } from '../src/core/outline';
import { scanner } from './generator/scan';
import { chain, known, length, sheetOf, withEvidence, type Px } from './hand';
import { GLASSHOUSE, glasshousePlan } from './scenes/glasshouse';
import { ORCHARD, PIXEL } from './scenes/orchard';

type At = readonly [number, number];
const { project, width, height } = scanner(glasshousePlan);
const inPlan = (x: number, y: number): Px => project([x, y]);
const onSite = ([x, y]: At): Px => [
  (x - ORCHARD.picture.left) / (PIXEL * 1000),
  (ORCHARD.picture.top - y) / (PIXEL * 1000),
];
const [PLAN, SITE_VIEW] = ['glasshouse-view', 'orchard-view'] as const;

const around = (left: number, low: number, right: number, high: number): readonly Px[] => [
  inPlan(left, low),
  inPlan(right, low),
  inPlan(right, high),
  inPlan(left, high),
];

/** How far the glasshouse stands from the garden wall, and how far anything has to keep from that. mm */
export const [FROM_WALL, KEPT, ALONG_WALL] = [1400, 1500, 5200] as const;

/** Turned to the garden wall, its back so far from that, and so far from where the wall begins. */
const siting: Siting = {
  id: 'glasshouse-there',
  plane: SITE,
  of: PLAN,
  holds: [
    {
      id: 'along-the-wall',
      kind: 'parallel',
      own: { outline: 'house', segment: 'house-2' },
      to: { outline: 'wall', segment: 'wall-0' },
      value: Math.PI,
    },
    {
      id: 'from-the-wall',
      kind: 'off',
      own: { outline: 'house', segment: 'house-2' },
      to: { outline: 'wall', segment: 'wall-0' },
      value: -FROM_WALL,
      plusMinus: 20,
    },
    {
      id: 'from-its-beginning',
      kind: 'along',
      own: { outline: 'house', node: 'house-3' },
      to: { outline: 'wall', segment: 'wall-0' },
      value: ALONG_WALL,
      plusMinus: 20,
    },
  ],
  put: { at: [42_000, 17_000], turn: 0.1 },
};
const there = (id: string, of: string, layer: string): MadeOutline => ({
  shape: 'made',
  id,
  layer,
  plane: SITE,
  recipe: { kind: 'sited', of: [of], siting: siting.id },
});

function drawn(): Job['outlines'] {
  const { length: long, width: wide, gutter } = GLASSHOUSE;
  return [
    chain(
      'boundary',
      SITE,
      'site',
      ORCHARD.boundary.map((at) => onSite(at as unknown as At)),
    ),
    chain(
      'wall',
      SITE,
      'site',
      ORCHARD.wall.map((at) => onSite(at as unknown as At)),
      false,
    ),
    chain('house', PLAN, 'outline', around(0, 0, long, wide)),
    chain('gutter', PLAN, 'gutter', around(0, -gutter, long, wide + gutter)),
    there('house-there', 'house', 'outline'),
    there('gutter-there', 'gutter', 'gutter'),
  ];
}

/** The orchard from above with its boundary and the garden wall traced, and the glasshouse's plan set down beside the wall: its gutter hangs over what has to be kept clear. */
export function orchardJob(made: Date): Job {
  const plan = sheetOf(glasshousePlan.name, 'Glasshouse', 'scan', { width, height });
  const site = sheetOf('orchard', 'Orchard', 'photo', ORCHARD.picture);
  const { left, top } = ORCHARD.picture;
  // By its world file: metres, east and north.
  const placed = placedView(
    { ...createView(SITE_VIEW, site), name: 'Orchard', plane: SITE },
    site,
    { map: [PIXEL, 0, 0, -PIXEL, left / 1000, top / 1000] },
    undefined,
  );
  if (!placed.ok) throw new Error(placed.code);
  const { length: long, width: wide } = GLASSHOUSE;
  return {
    ...createJob('orchard', 'Orchard, a glasshouse on its site', made),
    units: { style: 'm', denominator: 16 },
    sheets: [site, plan],
    views: [
      placed.value.view,
      withEvidence({ ...createView(PLAN, plan), name: 'Glasshouse', side: 'top' }, [
        length('long', inPlan(0, 0), inPlan(long, 0), long, { name: 'printed length', plusMinus: 5 }),
        length('wide', inPlan(long, 0), inPlan(long, wide), wide, { name: 'printed width', plusMinus: 5 }),
        known('base', 'level', [[inPlan(0, 0), inPlan(long, 0)]], { angle: 0 }, { name: 'its front' }),
      ]),
    ],
    layers: [
      { id: 'outline', name: 'Outline', color: 'berry', show: true, lock: false },
      { id: 'gutter', name: 'Gutter', color: 'plum', show: true, lock: false },
      { id: 'site', name: 'Boundary', color: 'straw', show: true, lock: false },
    ],
    outlines: drawn(),
    site: placed.value.site,
    sitings: [siting],
    setbacks: [{ id: 'from-wall', plane: SITE, on: [{ outline: 'wall', segment: 'wall-0' }], mm: KEPT }],
  };
}
