/** What a steady hand would have pointed at, off by a fraction of a pixel, and the sheets and files that demo jobs stand on. */
import { readFileSync, writeFileSync } from 'node:fs';
import { readPictureTags, sha256Hex } from '../src/core/pictures';
import { readJob, type Evidence, type EvidencePoint, type Job, type Sheet, type View } from '../src/core/job';
import type { Chain, PointedPlace } from '../src/core/outline';
import { createGrain } from './generator/noise';

export type Px = readonly [number, number];

const grain = createGrain(11);
/** One sigma of the hand, px: what pointing at the zoomed picture gives. */
const HAND = 0.6;

const shaky = ([x, y]: Px): Px => [Number((x + HAND * grain()).toFixed(2)), Number((y + HAND * grain()).toFixed(2))];
export const pointed = (px: Px): PointedPlace => ({ kind: 'pointed', at: shaky(px), sigma: HAND });

/** An outline of straight lines. */
export function chain(id: string, plane: string, layer: string, places: readonly Px[], closed = true): Chain {
  const nodes = places.map((px, i) => ({ id: `${id}-${i}`, place: pointed(px), smooth: false }));
  const segments = nodes.slice(closed ? 0 : 1).map(() => ({ kind: 'line' as const }));
  return { shape: 'chain', id, plane, layer, closed, nodes, segments };
}

export function sheetOf(
  name: string,
  title: string,
  kind: Sheet['kind'],
  { width, height }: { readonly width: number; readonly height: number },
): Sheet {
  const bytes = readFileSync(`public/demo/${name}.jpg`);
  return {
    id: `${name}-sheet`,
    name: title,
    picture: sha256Hex(bytes),
    mediaType: 'image/jpeg',
    bytes: bytes.length,
    width,
    height,
    kind,
    taken: readPictureTags(bytes),
  };
}

export interface Known {
  readonly evidence: Evidence;
  readonly points: readonly EvidencePoint[];
}

/** A piece of evidence on places of its own, group by group, as a hand points at them. */
export function known(
  id: string,
  kind: Evidence['kind'],
  groups: readonly (readonly Px[])[],
  said: Readonly<Record<string, number>>,
  more: Partial<Evidence> = {},
): Known {
  const points = groups.map((group, g) =>
    group.map((px, i): EvidencePoint => ({ id: `${id}-${g}-${i}`, at: shaky(px), sigma: HAND })),
  );
  const sizes = Object.fromEntries(
    Object.entries(said).map(([name, value]) => [name, { value, written: String(value) }]),
  );
  return {
    points: points.flat(),
    evidence: {
      id,
      kind,
      groups: points.map((group) => group.map((point) => point.id)),
      said: sizes,
      guess: false,
      role: 'use',
      ...more,
    },
  };
}

export const length = (id: string, from: Px, to: Px, mm: number, more: Partial<Evidence> = {}) =>
  known(id, 'length', [[from, to]], { length: mm }, more);
export const withEvidence = (view: View, pieces: readonly Known[]): View => ({
  ...view,
  points: pieces.flatMap(({ points }) => points),
  evidence: pieces.map(({ evidence }) => evidence),
});

/** Writes a demo job, with the planes that its views show and its references lie on. */
export function write(name: string, without: Job): void {
  const named = [...without.views, ...without.references].map(({ plane }) => plane);
  const job: Job = { ...without, planes: [...new Set(named)].map((id) => ({ id })) };
  const read = readJob(JSON.parse(JSON.stringify(job)));
  if (!read.ok) throw new Error(`${name}: ${read.code} ${JSON.stringify(read.detail)}`);
  writeFileSync(`public/demo/${name}.json`, `${JSON.stringify(job, null, 1)}\n`);
}
