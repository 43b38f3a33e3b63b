import { createReferenceSearch, isWorldFileName, type ReferenceGeometry } from '@/core/formats';
import { SITE, type Job, type Reference, type ReferenceFormat, type Site } from '@/core/job';
import { fileWorker, pictureWorker } from '@/workers';
import { newId } from './ids';
import type { PictureStore } from './pictures';
import { isStorageFull } from './storage';

/** Reference geometry that was read and is at hand. */
export interface LoadedReference {
  readonly reference: Reference;
  readonly geometry: ReferenceGeometry;
  /** Indices of pieces on shown layers whose boxes touch a box of the plane, mm. */
  search(min: readonly [number, number], max: readonly [number, number]): number[];
}

export type BroughtReference =
  | { readonly kind: 'done'; readonly reference: Reference; readonly geometry: ReferenceGeometry }
  | { readonly kind: 'refused'; readonly code: string; readonly detail: Readonly<Record<string, string | number>> };

const FORMATS: Readonly<Record<string, ReferenceFormat>> = {
  dxf: 'dxf',
  svg: 'svg',
  geojson: 'geojson',
  json: 'geojson',
};

/** Which kind of reference geometry a file is, by its name; undefined when it is none. */
export const referenceFormatOf = (name: string): ReferenceFormat | undefined =>
  FORMATS[name.split('.').pop()?.toLowerCase() ?? ''];
export { isWorldFileName };

/** Where reference geometry comes to stand, and whether somebody gave up waiting for it. */
export interface BringingReference {
  readonly site: Site | undefined;
  readonly plane?: string | undefined;
  readonly signal?: AbortSignal;
}

/** Reads a file of reference geometry and stores it; nothing is stored of what cannot be read, or was given up. */
export async function bringInReference(
  name: string,
  bytes: ArrayBuffer,
  format: ReferenceFormat,
  { site, plane = SITE, signal }: BringingReference,
  files: PictureStore,
): Promise<BroughtReference> {
  const placing = plane === SITE ? { site, placing: 'free' as const } : { placing: 'as-drawn' as const };
  const read = await fileWorker.call('readReference', { bytes, format, ...placing }, signal ? { signal } : {});
  if (read.kind !== 'done')
    return {
      kind: 'refused',
      code: read.kind === 'failed' ? read.code : 'cancelled',
      detail: { name, ...(read.kind === 'failed' ? read.detail : {}) },
    };
  const named = await pictureWorker.call('hashOf', { bytes });
  if (named.kind !== 'done') return { kind: 'refused', code: 'worker-failed', detail: { name } };
  try {
    await files.put(named.value, bytes);
  } catch (problem) {
    return { kind: 'refused', code: isStorageFull(problem) ? 'storage-full' : 'storage-failed', detail: { name } };
  }
  const geometry = read.value;
  const hiddenLayers = geometry.layers.filter(({ hidden }) => hidden).map((layer) => layer.name);
  return {
    kind: 'done',
    geometry,
    reference: {
      id: newId(),
      name: name.replace(/\.[a-z0-9]+$/i, '').slice(0, 120) || 'Reference',
      file: named.value,
      bytes: bytes.byteLength,
      format,
      plane,
      shown: true,
      hiddenLayers,
    },
  };
}

/** What was read last, by file and how it is read: switching a layer on reads nothing again. */
const read = new Map<string, Promise<ReferenceGeometry | undefined>>();
const KEPT = 12;

/** Reference geometry of a job, read when it is first needed; undefined when its file is gone. */
export async function loadReference(
  reference: Reference,
  { site }: Pick<Job, 'site'>,
  files: PictureStore,
): Promise<LoadedReference | undefined> {
  const key = JSON.stringify([reference.file, reference.unitMm, reference.plane === SITE ? site : undefined]);
  const known = read.get(key) ?? readFrom(reference, site, files);
  read.delete(key);
  read.set(key, known);
  for (const old of [...read.keys()].slice(0, -KEPT)) read.delete(old);
  const geometry = await known;
  if (!geometry) read.delete(key);
  return geometry && { reference, geometry, search: createReferenceSearch(geometry, reference.hiddenLayers) };
}

async function readFrom(
  { file, format, unitMm, plane }: Reference,
  site: Site | undefined,
  files: PictureStore,
): Promise<ReferenceGeometry | undefined> {
  const bytes = await files.get(file).catch(() => undefined);
  if (!bytes) return undefined;
  const outcome = await fileWorker.call('readReference', {
    bytes,
    format,
    unitMm,
    ...(plane === SITE ? { site, placing: 'free' as const } : { placing: 'as-drawn' as const }),
  });
  return outcome.kind === 'done' ? outcome.value : undefined;
}
