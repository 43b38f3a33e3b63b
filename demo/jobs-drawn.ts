/** Demo jobs of finished drawings: a blade with what is true of it and its sizes, half a nest box made whole, a hanger from its middle line, the shed's plan. */
import { readFileSync } from 'node:fs';
import { createDeriver, sayingOn } from '../src/core/derive';
import { createJob, createView, FITTING_LAYERS, type Dimension, type Job } from '../src/core/job';
import { FITTING_SETS, type Chain, type Node, type Outline, type Segment } from '../src/core/outline';
import { follows, judgeRelation, listProposals, type Relation, type RelationEnd } from '../src/core/relate';
import { known, length, pointed, sheetOf, withEvidence, type Px } from './hand';
import type { truthOfDrawn, truthOfNestBox } from './truth';

interface Given {
  readonly outlines: readonly Outline[];
  readonly blade: Job;
  readonly made: Date;
}

const read = <T>(name: string) => JSON.parse(readFileSync(`demo/truth/${name}.json`, 'utf8')) as T;

function chainThrough(
  id: string,
  plane: string,
  places: readonly Px[],
  closed: boolean,
  segments?: readonly Segment[],
): Chain {
  const nodes = places.map((px, i): Node => ({ id: `${id}-${i}`, place: pointed(px), smooth: false }));
  const lines = Array.from({ length: closed ? places.length : places.length - 1 }, (): Segment => ({ kind: 'line' }));
  return { shape: 'chain', id, layer: 'outline', plane, closed, nodes, segments: segments ?? lines };
}

/** Everything that is proposed of the rough trace is taken; the holes are of the drill's size. */
function bladeDrawn({ blade }: Given): Job {
  const derived = createDeriver()(blade);
  const { outlines, relating: plane } = sayingOn(['blade-view'], blade, derived);
  const proposed: Relation[] = [];
  for (const { kind, on } of listProposals(outlines, [], plane)) {
    const relation: Relation = { id: `said-${proposed.length}`, plane: 'blade-view', kind, on };
    if (
      !follows(relation, proposed, outlines, plane) &&
      judgeRelation(relation, proposed, outlines, plane).kind === 'holds'
    )
      proposed.push(relation);
  }
  const hole: RelationEnd = { outline: 'blade-hole-0' };
  const dimension = (
    id: string,
    kind: Dimension['kind'],
    on: readonly RelationEnd[],
    aside: number,
    should?: number,
  ): Dimension => ({ id, plane: 'blade-view', kind, on, aside, ...(should === undefined ? {} : { should }) });
  return {
    ...blade,
    id: 'blade-drawn',
    name: 'Pruner blade, drawn',
    relations: [...proposed, { id: 'drill', plane: 'blade-view', kind: 'radius', on: [hole], value: 4 }],
    parts: [
      {
        id: 'blade-part',
        plane: 'blade-view',
        name: 'Pruner blade',
        of: blade.outlines.map(({ id }) => id),
        material: 'Tool steel',
        thickness: 3,
      },
    ],
    dimensions: [
      dimension('first-hole', 'diameter', [hole], 0, 8),
      dimension('bolt', 'diameter', [{ outline: 'blade-hole-2' }], 0, 14),
      dimension(
        'apart',
        'distance',
        [
          { outline: 'blade-hole-0', node: 'centre' },
          { outline: 'blade-hole-3', node: 'centre' },
        ],
        -30,
      ),
    ],
  };
}

function nestHalf({ made }: Given): Job {
  const truth = read<ReturnType<typeof truthOfNestBox>>('nest-box');
  const sheet = sheetOf('nest-box', 'Nest box', 'drawing', truth.picture);
  const [base, front] = [truth.sizes[0]!, truth.sizes[1]!];
  const middle = (a: Px, b: Px): Px => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const [left, right, top] = [base.from, base.to, front.to] as readonly [Px, Px, Px];
  const up: Px = [top[0] - left[0], top[1] - left[1]];
  const sized = truth.sizes
    .filter(({ name }) => name !== 'hole height')
    .map(({ name, from, to, printed }, i) => length(`size-${i}`, from, to, printed, { name, plusMinus: 0.2 }));
  const half = chainThrough(
    'half',
    'nest-half-view',
    [
      middle(left, right),
      right,
      [right[0] + up[0], right[1] + up[1]],
      [middle(left, right)[0] + up[0], middle(left, right)[1] + up[1]],
    ],
    false,
  );
  const [a, b] = [truth.hole.rimPx[0]!, truth.hole.rimPx[3]!];
  return {
    ...createJob('nest-half', 'Nest box front, from its half', made),
    sheets: [sheet],
    views: [
      withEvidence({ ...createView('nest-half-view', sheet), locked: true }, [
        ...sized,
        known('base', 'level', [[base.from, base.to]], { angle: 0 }, { name: 'the base' }),
      ]),
    ],
    guides: [
      {
        id: 'centre',
        plane: 'nest-half-view',
        through: pointed(middle(left, right)),
        angle: Math.PI / 2,
        offset: 0,
        mirrors: true,
      },
    ],
    outlines: [
      { ...half, aid: true },
      {
        shape: 'made',
        id: 'front',
        layer: 'outline',
        plane: 'nest-half-view',
        recipe: { kind: 'mirrored', of: ['half'], guide: 'centre', joined: true },
      },
      {
        shape: 'circle',
        id: 'hole',
        layer: 'outline',
        plane: 'nest-half-view',
        by: { kind: 'two', a: pointed(a), b: pointed(b) },
      },
    ],
    parts: [
      {
        id: 'front-part',
        plane: 'nest-half-view',
        name: 'Front',
        of: ['front', 'hole'],
        material: 'Larch board',
        thickness: 20,
      },
    ],
    relations: [
      { id: 'base-level', plane: 'nest-half-view', kind: 'level', on: [{ outline: 'half', segment: 'half-0' }] },
      { id: 'side-upright', plane: 'nest-half-view', kind: 'upright', on: [{ outline: 'half', segment: 'half-1' }] },
      { id: 'top-level', plane: 'nest-half-view', kind: 'level', on: [{ outline: 'half', segment: 'half-2' }] },
    ],
  };
}

function hangerDrawn({ made }: Given): Job {
  const { hanger } = read<ReturnType<typeof truthOfDrawn>>('drawn');
  const sheet = sheetOf('hanger', 'Pot hanger', 'scan', hanger.picture);
  const [foot, bend, top, down, tip] = hanger.linePx as unknown as readonly [Px, Px, Px, Px, Px];
  const line = chainThrough('line', 'hanger-view', [foot, bend, down, tip], false, [
    { kind: 'line' },
    { kind: 'arc', through: pointed(top) },
    { kind: 'line' },
  ]);
  const on = (kind: Relation['kind'], ...segments: readonly number[]): Relation => ({
    id: `${kind}-${segments.join('-')}`,
    plane: 'hanger-view',
    kind,
    on: segments.map((i) => ({ outline: 'line', segment: `line-${i}` })),
  });
  return {
    ...createJob('hanger', 'Pot hanger, from its middle line', made),
    sheets: [sheet],
    views: [
      withEvidence({ ...createView('hanger-view', sheet), locked: true }, [
        length('straight', foot, bend, hanger.straight, { name: 'printed size', plusMinus: 0.2 }),
      ]),
    ],
    outlines: [
      { ...line, aid: true },
      {
        shape: 'made',
        id: 'bar',
        layer: 'outline',
        plane: 'hanger-view',
        recipe: {
          kind: 'strip',
          of: ['line'],
          width: hanger.thick,
          justified: 'middle',
          ends: 'flat',
          corners: 'round',
        },
      },
    ],
    parts: [
      { id: 'hook-part', plane: 'hanger-view', name: 'Pot hook', of: ['bar'], material: 'Flat bar', thickness: 20 },
    ],
    relations: [on('tangent', 0, 1), on('tangent', 1, 2), on('upright', 0), on('upright', 2)],
  };
}

function shedDrawn({ made }: Given): Job {
  const { shed } = read<ReturnType<typeof truthOfDrawn>>('drawn');
  const sheet = sheetOf('shed-plan', 'Potting shed', 'scan', shed.picture);
  const [a, b, c, d] = shed.cornersPx as unknown as readonly [Px, Px, Px, Px];
  const outer = chainThrough('outer', 'shed-view', [a, b, c, d], true);
  const inner = chainThrough('partition', 'shed-view', shed.partitionPx as unknown as readonly Px[], false);
  const end = (outline: string, i: number): RelationEnd => ({ outline, segment: `${outline}-${i}` });
  const said = (id: string, kind: Relation['kind'], on: RelationEnd): Relation => ({
    id,
    plane: 'shed-view',
    kind,
    on: [on],
  });
  const strip = { ends: 'flat', corners: 'mitre' } as const;
  const job = createJob('shed', 'Potting shed, its plan', made);
  return {
    ...job,
    units: { style: 'm', denominator: 16 },
    sheets: [sheet],
    views: [
      withEvidence({ ...createView('shed-view', sheet), locked: true }, [
        length('width', a, b, shed.width, { name: 'printed width', plusMinus: 5 }),
        length('depth', b, c, shed.depth, { name: 'printed depth', plusMinus: 5 }),
        known('base', 'level', [[a, b]], { angle: 0 }, { name: 'its front' }),
      ]),
    ],
    outlines: [
      { ...outer, aid: true },
      { ...inner, aid: true },
      {
        shape: 'made',
        id: 'walls',
        layer: 'outline',
        plane: 'shed-view',
        aid: true,
        recipe: {
          kind: 'strip',
          of: ['outer'],
          width: shed.wall,
          justified: 'left',
          ...strip,
          openings: [
            {
              id: 'door',
              corner: 'outer-0',
              way: 'on',
              distance: shed.door.from,
              width: shed.door.width,
              head: 2000,
              fill: {
                kind: 'door',
                frame: 40,
                leaf: 40,
                leaves: 1,
                hung: { at: 'start', to: 'right', open: Math.PI / 2 },
              },
            },
            {
              id: 'window',
              corner: 'outer-3',
              way: 'back',
              distance: shed.window.from,
              width: shed.window.width,
              sill: 1000,
              head: 1800,
              fill: { kind: 'window', frame: 50, leaf: 40, leaves: 1 },
            },
          ],
        },
      },
      {
        shape: 'made',
        id: 'inner-wall',
        layer: 'outline',
        plane: 'shed-view',
        aid: true,
        recipe: {
          kind: 'strip',
          of: ['partition'],
          width: shed.partition,
          justified: 'middle',
          ...strip,
          ends: 'square',
        },
      },
      {
        shape: 'made',
        id: 'shed',
        layer: 'outline',
        plane: 'shed-view',
        recipe: { kind: 'combined', of: ['walls', 'inner-wall'], how: 'united' },
      },
      ...FITTING_SETS.map((set): Job['outlines'][number] => ({
        shape: 'made',
        id: `shed-${set}`,
        layer: set,
        plane: 'shed-view',
        recipe: { kind: 'fittings', of: ['walls'], set },
      })),
    ],
    layers: [
      ...job.layers,
      ...FITTING_SETS.map((set) => ({ ...FITTING_LAYERS[set], id: set, show: true, lock: false })),
    ],
    relations: [
      said('front', 'level', end('outer', 0)),
      said('right', 'upright', end('outer', 1)),
      said('back', 'level', end('outer', 2)),
      said('left', 'upright', end('outer', 3)),
      said('partition', 'upright', end('partition', 0)),
    ],
  };
}

export function drawnJobs(given: Given): readonly (readonly [string, Job])[] {
  return [
    ['blade-drawn', bladeDrawn(given)],
    ['nest-half', nestHalf(given)],
    ['hanger', hangerDrawn(given)],
    ['shed', shedDrawn(given)],
  ];
}
