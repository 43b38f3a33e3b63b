/** Figures for relations: a job of many shapes, one of which is dragged. */
import { median } from '../src/core/basics';
import { drawnAt, type Drawn } from '../src/core/arrange/simulated';
import { createRandom } from '../src/core/calibrate/simulation';
import { createDeriver } from '../src/core/derive';
import { ALL, benchOf, FRONT, joining, RIGHT, TOP } from '../src/core/derive/bench-for-tests';
import { chainOn, pointedAt } from '../src/core/derive/wall-for-tests';
import { addOutline, addRelations, createJob, createView, type Job, type Sheet } from '../src/core/job';
import type { Vec } from '../src/core/geometry';
import type { Chain } from '../src/core/outline';
import type { Vec3 } from '../src/core/space';
import type { Relation, RelationKind } from '../src/core/relate';

const SIDES = ['level', 'upright', 'level', 'upright'] as const;

/** A scan of 10 px/mm whose scale is known. */
function sheetOf(): Pick<Job, 'sheets' | 'views'> {
  const sheet: Sheet = {
    id: 's',
    name: 's',
    picture: 'a'.repeat(64),
    mediaType: 'image/png',
    bytes: 1,
    width: 8000,
    height: 6000,
    kind: 'scan',
    taken: {},
  };
  const view = {
    ...createView('v', sheet),
    points: [
      { id: 'p', at: [0, 500] as const, sigma: 1 },
      { id: 'q', at: [5000, 500] as const, sigma: 1 },
    ],
    evidence: [
      {
        id: 'e',
        kind: 'length' as const,
        groups: [['p', 'q']],
        said: { length: { value: 500, written: '500' } },
        guess: false,
        role: 'use' as const,
      },
    ],
  };
  return { sheets: [sheet], views: [view] };
}

/** Rectangles in rows on a scan of 10 px/mm, each with four relations. */
function jobOfRectangles(count: number): Job {
  const outlines = Array.from({ length: count }, (_, i): Chain => {
    const [x, y] = [100 + (i % 20) * 380, 100 + Math.floor(i / 20) * 300];
    return {
      shape: 'chain',
      id: `o${i}`,
      layer: 'outline',
      plane: 'v',
      closed: true,
      segments: SIDES.map(() => ({ kind: 'line' })),
      nodes: (
        [
          [0, 180],
          [300, 183],
          [302, 0],
          [1, 2],
        ] as const
      ).map(([u, v], n) => ({ id: `n${n}`, smooth: false, place: { kind: 'pointed', at: [x + u, y + v], sigma: 1 } })),
    };
  });
  const relations = outlines.flatMap((outline) =>
    SIDES.map((kind, n): Relation => ({
      id: `${outline.id}r${n}`,
      plane: 'v',
      kind,
      on: [{ outline: outline.id, segment: `n${n}` }],
    })),
  );
  return { ...createJob('j', 'Many', new Date(0)), ...sheetOf(), outlines, relations };
}

/** Milliseconds from a moved corner to everything being where it belongs, among so many rectangles of four relations each. */
export const dragTime = (count: number): number => draggedTime(jobOfRectangles(count));

/** The same of one place among so many that are tied between three views. */
export const tieTime = (count: number): number => draggedTime(jobOfTies(count));

function draggedTime(of: Job): number {
  const derive = createDeriver();
  let job = of;
  derive(job);
  return median(
    Array.from({ length: 21 }, () => {
      const [first, ...rest] = job.outlines as readonly Chain[];
      const nodes = first!.nodes.map((node, n) => (n === 0 ? nudged(node) : node));
      job = { ...job, outlines: [{ ...first!, nodes }, ...rest] };
      const began = performance.now();
      derive(job);
      return performance.now() - began;
    }),
  );
}

function nudged(node: Chain['nodes'][number]): Chain['nodes'][number] {
  const { at } = node.place as { readonly at: Vec };
  return { ...node, place: { kind: 'pointed', at: [at[0] + 1, at[1]], sigma: 1 } };
}

/** A polyline in front, side and top of a thing; each of its places is tied between every two views. */
function jobOfTies(count: number): Job {
  const { normal } = createRandom(4);
  const places = Array.from({ length: count / 3 }, (_, i): Vec3 => [40 + 60 * i, 30 + 20 * i, 200 + 30 * (i % 7)]);
  const drawn = (view: Drawn) =>
    chainOn(
      view.id,
      view.id,
      places.map((place) => pointedAt(drawnAt(view, place), normal)),
    );
  const tie = (kind: RelationKind, a: Drawn, b: Drawn) =>
    places.map((_, i): Relation => ({
      id: `${kind}${i}`,
      kind,
      plane: a.id,
      on: [a, b].map(({ id }) => ({ outline: id, node: `${id}${i}` })),
    }));
  return benchOf(normal, [
    ...joining(...ALL),
    ...ALL.map((view) => addOutline(drawn(view))),
    addRelations([...tie('one-up', FRONT, RIGHT), ...tie('one-across', FRONT, TOP), ...tie('one-deep', RIGHT, TOP)]),
  ]);
}

/** Milliseconds until a ring of 120 nodes has 60 pairs of equal lengths, or 60 equal lengths one after the other. */
export function ringTime(pairs: boolean): number {
  const { normal } = createRandom(1);
  const ring: Chain = {
    shape: 'chain',
    id: 'o',
    layer: 'outline',
    plane: 'v',
    closed: true,
    segments: Array.from({ length: 120 }, () => ({ kind: 'line' })),
    nodes: Array.from({ length: 120 }, (_, i) => {
      const [radius, turn] = [2500 + 3 * normal(), (i / 120) * 2 * Math.PI];
      return {
        id: `n${i}`,
        smooth: false,
        place: { kind: 'pointed', at: [3000 + radius * Math.cos(turn), 3000 + radius * Math.sin(turn)], sigma: 1 },
      };
    }),
  };
  const segment = (i: number) => ({ outline: 'o', segment: `n${i}` });
  const relations = Array.from({ length: 60 }, (_, i): Relation => ({
    id: `r${i}`,
    plane: 'v',
    kind: 'equal-length',
    on: pairs ? [segment(2 * i), segment(2 * i + 1)] : [segment(i), segment(i + 1)],
  }));
  const job = { ...createJob('j', 'Ring', new Date(0)), ...sheetOf(), outlines: [ring], relations };
  return median(
    Array.from({ length: 5 }, () => {
      const derive = createDeriver();
      const began = performance.now();
      derive(job);
      return performance.now() - began;
    }),
  );
}
