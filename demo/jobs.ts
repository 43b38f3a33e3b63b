/** Makes the demo jobs from a scene's truth: what a steady hand would have pointed at, off by a fraction of a pixel. */
import { readFileSync, writeFileSync } from 'node:fs';
import { readPictureTags, sha256Hex } from '../src/core/formats';
import { createJob, createView, readJob, type Evidence, type EvidencePoint, type EvidenceRole, type Job, type Sheet } from '../src/core/job';
import type { Chain, CircleOutline, Node, PointedPlace, Segment } from '../src/core/outline';
import type { truthOf } from './truth';
import { createGrain } from './generator/noise';
import { scene } from './scenes/blade';

type Truth = ReturnType<typeof truthOf>;
type Px = readonly [number, number];

const truth = JSON.parse(readFileSync('demo/truth/blade.json', 'utf8')) as Truth;
const picture = readFileSync('public/demo/blade.jpg');
const grain = createGrain(11);
/** One sigma of the hand, px: what pointing at the zoomed picture gives. */
const HAND = 0.6;

const shaky = ([x, y]: Px): Px => [Number((x + HAND * grain()).toFixed(2)), Number((y + HAND * grain()).toFixed(2))];
const pointed = (px: Px): PointedPlace => ({ kind: 'pointed', at: shaky(px), sigma: HAND });

const sheet: Sheet = {
  id: 'blade-sheet', name: 'Pruner blade', picture: sha256Hex(picture), mediaType: 'image/jpeg', bytes: picture.length,
  width: scene.camera.width, height: scene.camera.height, kind: 'photo', taken: readPictureTags(picture),
};

interface Known {
  readonly evidence: Evidence;
  readonly points: readonly EvidencePoint[];
}

function length(id: string, from: Px, to: Px, mm: number, role: EvidenceRole = 'use'): Known {
  const points = [from, to].map((px, i): EvidencePoint => ({ id: `${id}-${i}`, at: shaky(px), sigma: HAND }));
  return { points, evidence: { id, kind: 'length', groups: [points.map((point) => point.id)], said: { length: { value: mm, written: String(mm) } }, guess: false, role } };
}

function bladeOutline(): Chain {
  const { start, strokes } = truth.blade;
  const kinds: Segment['kind'][] = ['line', 'tangent', 'curve', 'arc', 'arc', 'line', 'arc'];
  const places = [start.px, ...strokes.slice(0, -1).map((stroke) => stroke.to.px)];
  const away = (from: Px, to: Px): Px => [to[0] - from[0], to[1] - from[1]];
  const nodes = places.map((px, i): Node => {
    const [before, after] = [strokes[(i + strokes.length - 1) % strokes.length]!, strokes[i]!];
    const handleIn = before.kind === 'curve' ? { handleIn: away(px, before.in!.px) } : {};
    const handleOut = after.kind === 'curve' ? { handleOut: away(px, after.out!.px) } : {};
    return { id: `blade-${i}`, place: pointed(px), smooth: false, ...handleIn, ...handleOut };
  });
  const segments = kinds.map((kind, i): Segment => (kind === 'arc' ? { kind, through: pointed(strokes[i]!.through!.px) } : { kind }));
  return { shape: 'chain', id: 'blade-outline', layer: 'outline', view: 'blade-view', closed: true, nodes, segments };
}

function holeOutline(hole: Truth['blade']['holes'][number], i: number): CircleOutline {
  const [right, , left] = hole.rimPx;
  return { shape: 'circle', id: `blade-hole-${i}`, layer: 'holes', view: 'blade-view', by: { kind: 'two', a: pointed(right!), b: pointed(left!) } };
}

function write(name: string, job: Job): void {
  const read = readJob(JSON.parse(JSON.stringify(job)));
  if (!read.ok) throw new Error(`${name}: ${read.code} ${JSON.stringify(read.detail)}`);
  writeFileSync(`public/demo/${name}.json`, `${JSON.stringify(job, null, 1)}\n`);
}

const made = new Date('2026-05-14T10:30:00Z');
const view = createView('blade-view', sheet);
const start: Job = { ...createJob('blade-start', 'Pruner blade', made), tour: 'blade', sheets: [sheet], views: [view] };
write('blade-start', start);

const marks = new Map(truth.rule.marks.map(({ mark, px }) => [mark, px]));
const known = [length('card', truth.card.left, truth.card.right, 85.6), length('rule', marks.get(20)!, marks.get(260)!, 240), length('card-height', truth.card.bottom, truth.card.top, 53.98, 'check')];
write('blade-finished', {
  ...start, id: 'blade-finished', name: 'Pruner blade, finished', tour: undefined,
  views: [{
    ...view, locked: true, lift: 2.24,
    points: known.flatMap(({ points }) => points), evidence: known.map(({ evidence }) => evidence),
  }],
  layers: [...start.layers, { id: 'holes', name: 'Holes', color: 'ink', show: true, lock: false }],
  outlines: [bladeOutline(), ...truth.blade.holes.map(holeOutline)],
});
