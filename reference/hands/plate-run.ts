import { createDeriver, measureDimension } from '../../src/core/derive';
import { distance, polar, type Vec } from '../../src/core/geometry';
import {
  addEvidence,
  addOutline,
  addRelations,
  addSheet,
  createJob,
  createView,
  runCommand,
  startHistory,
  type Command,
  type DimensionKind,
  type Evidence,
  type EvidenceKind,
  type EvidencePoint,
  type Sheet,
} from '../../src/core/job';
import type { Chain, CircleOutline, PointedPlace } from '../../src/core/outline';
import type { RelationEnd } from '../../src/core/relate';
import { heightOf, onThing, PLATE, PLATE_HOLES, type ThingName } from './plate';
import { type Photograph, type HandKind, type Pointed } from './photo-hand';

/** What is said of the bench: each piece with the thing it lies on, where it is pointed at, and how well its sizes are known (two sigma, mm). */
interface Piece {
  readonly kind: EvidenceKind;
  readonly on: ThingName;
  readonly groups: readonly (readonly Vec[])[];
  readonly said: Evidence['said'];
  readonly plusMinus?: number;
}

const said = (value: number) => ({ value, written: String(value) });
const around = (radius: number): readonly Vec[] => [0.3, 1.4, 2.5, 3.6, 4.7, 5.7].map((at) => polar(radius, at));
const PIECES = {
  card: {
    kind: 'rectangle',
    on: 'card',
    groups: [
      [
        [12, 0],
        [72, 0],
      ],
      [
        [85.6, 10],
        [85.6, 44],
      ],
      [
        [72, 53.98],
        [12, 53.98],
      ],
      [
        [0, 44],
        [0, 10],
      ],
    ],
    said: { width: said(85.6), height: said(53.98) },
    plusMinus: 0.12,
  },
  sheet: {
    kind: 'rectangle',
    on: 'sheet',
    groups: [
      [
        [90, 0],
        [200, 0],
      ],
      [
        [297, 70],
        [297, 170],
      ],
      [
        [250, 210 - 28],
        [30, 210 - 28],
      ],
      [
        [0, 150],
        [0, 60],
      ],
    ],
    said: { width: said(297), height: said(210) },
    plusMinus: 1,
  },
  coin: { kind: 'circle', on: 'coin', groups: [around(12.5)], said: { diameter: said(25) }, plusMinus: 0.1 },
  length: {
    kind: 'length',
    on: 'rule',
    groups: [
      [
        [6 + 60, 2],
        [6 + 260, 2],
      ],
    ],
    said: { length: said(200) },
  },
} satisfies Record<string, Piece>;

export const KNOWN: Readonly<Record<string, readonly (keyof typeof PIECES)[]>> = {
  'a card': ['card'],
  'a card and a length': ['card', 'length'],
  'a coin and a length': ['coin', 'length'],
  'card, coin and length': ['card', 'coin', 'length'],
};

export interface Read {
  readonly what: 'diameter' | 'spacing' | 'width' | 'radius' | 'angle';
  readonly value: number;
  readonly sigma: number;
  readonly truth: number;
}

/** A plate traced on a photograph by a hand, with what is known: every size that is asked for; undefined where the fit is refused. */
export function tracePlate(
  photo: Photograph,
  known: readonly (keyof typeof PIECES)[],
  hand: HandKind,
): readonly Read[] | undefined {
  const { picture } = photo.world;
  const sheet: Sheet = {
    id: 's',
    name: 's',
    picture: 'a'.repeat(64),
    mediaType: 'image/jpeg',
    bytes: 1,
    width: picture.width,
    height: picture.height,
    kind: 'photo',
    taken: picture.focal35mm ? { focal35mm: picture.focal35mm } : {},
  };
  const view = { ...createView('v', sheet), lift: PLATE.height };
  const commands = [
    addSheet(sheet, view),
    ...known.map((name) => sayPiece(photo, name, hand)),
    ...drawPlate(photo, hand),
  ];
  const { job } = commands.reduce(
    (now, command) => runCommand(now, command),
    startHistory(createJob('j', 'Job', new Date(0))),
  );
  const derived = createDeriver()(job);
  const fitted = derived.views.get('v')!;
  if (!fitted.fit.scaled) return undefined;
  const figured = { job, derived };
  return ASKED.flatMap(({ what, kind, on, truth }) => {
    const measured = measureDimension({ kind, on }, figured, derived.shapes);
    return measured ? [{ what, ...measured, truth }] : [];
  });
}

function sayPiece(photo: Photograph, name: keyof typeof PIECES, hand: HandKind): Command {
  const { kind, on, groups, said: sizes, plusMinus }: Piece = PIECES[name];
  const points: EvidencePoint[] = [];
  const ids = groups.map((group, g) =>
    group.map((place, i) => {
      const id = `${name} ${g}.${i}`;
      points.push({ id, ...photo.point(photo.world.see(...flat(onThing(on, place))), hand), height: heightOf(on) });
      return id;
    }),
  );
  return addEvidence(
    'v',
    { id: name, kind, groups: ids, said: sizes, guess: false, role: 'use', ...(plusMinus ? { plusMinus } : {}) },
    points,
  );
}

const flat = ([x, y, z]: readonly [number, number, number]): [Vec, number] => [[x, y], z];

const HOLES = PLATE_HOLES.map((_, i) => `hole ${i}`);
const side = (i: number): RelationEnd => ({ outline: 'plate', segment: `n${i}` });
const ASKED: readonly {
  readonly what: Read['what'];
  readonly kind: DimensionKind;
  readonly on: readonly RelationEnd[];
  readonly truth: number;
}[] = [
  ...PLATE_HOLES.map(({ diameter }, i) => ({
    what: 'diameter' as const,
    kind: 'diameter' as const,
    on: [{ outline: HOLES[i]! }],
    truth: diameter,
  })),
  ...[
    [0, 1],
    [0, 2],
    [1, 3],
  ].map(([a, b]) => ({
    what: 'spacing' as const,
    kind: 'distance' as const,
    on: [a!, b!].map((i) => ({ outline: HOLES[i]!, node: 'centre' })),
    truth: distance(PLATE_HOLES[a!]!.centre, PLATE_HOLES[b!]!.centre),
  })),
  { what: 'width', kind: 'length', on: [side(0)], truth: PLATE.width },
  { what: 'width', kind: 'distance', on: [{ outline: 'plate', node: 'n4' }, side(0)], truth: PLATE.depth },
  { what: 'radius', kind: 'radius', on: [side(2)], truth: PLATE.round },
  { what: 'angle', kind: 'angle', on: [side(0), side(4)], truth: PLATE.slope },
];

/** The outline corner by corner, its round corner by three places and taken as tangent; small holes by one tap, large ones by three places. */
function drawPlate(photo: Photograph, hand: HandKind): readonly Command[] {
  const { world } = photo;
  const see = (place: Vec) => world.see(...flat(onThing('plate', place)));
  const point = (place: Vec): PointedPlace => ({ kind: 'pointed', ...photo.point(see(place), hand) });
  const { width, depth, round, slope } = PLATE;
  const perMm = distance(see([60, 38]), see([61, 38]));
  // Where the rounding begins shows no better than by half a pixel across.
  const astray = () => Math.sqrt((2 * round * 0.5) / perMm) * 1.22 * (Math.floor(3 * world.random.uniform()) - 1);
  const k = round * (1 - Math.SQRT1_2);
  const corners: readonly Vec[] = [
    [0, 0],
    [width, 0],
    [width, depth - round + astray()],
    [width - round + astray(), depth],
    [depth / Math.tan(slope), depth],
  ];
  const through = point([width - k, depth - k]);
  const plate: Chain = {
    shape: 'chain',
    id: 'plate',
    layer: 'outline',
    plane: 'v',
    closed: true,
    nodes: corners.map((place, i) => ({ id: `n${i}`, place: point(place), smooth: false })),
    segments: [{ kind: 'line' }, { kind: 'line' }, { kind: 'arc', through }, { kind: 'line' }, { kind: 'line' }],
  };
  const holes = PLATE_HOLES.map(({ centre, diameter }, i): CircleOutline => {
    const rim = hand.snapping && diameter < 10 ? photo.rim(see(centre), diameter * perMm) : undefined;
    const places = rim
      ? [0, 1, 2].map((third) => rim[Math.floor((third * rim.length) / 3)]!)
      : [0.4, 2.5, 4.6].map((at): Pointed =>
          photo.point(
            see([centre[0] + (diameter / 2) * Math.cos(at), centre[1] + (diameter / 2) * Math.sin(at)]),
            hand,
          ),
        );
    const [a, b, c] = places.map((place): PointedPlace => ({ kind: 'pointed', ...place })) as [
      PointedPlace,
      PointedPlace,
      PointedPlace,
    ];
    return { shape: 'circle', id: HOLES[i]!, layer: 'outline', plane: 'v', by: { kind: 'three', a, b, c } };
  });
  const tangent = [1, 2].map((i) => ({
    id: `r${i}`,
    plane: 'v',
    kind: 'tangent' as const,
    on: [side(i), side(i + 1)],
  }));
  return [addOutline(plate), ...holes.map((hole) => addOutline(hole)), addRelations(tangent)];
}
