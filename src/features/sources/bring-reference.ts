import type { MapPlace } from '@/core/derive';
import { readWorldFile, type ReferenceGeometry } from '@/core/formats';
import { addReference } from '@/core/job';
import { bringInReference, isWorldFileName, referenceFormatOf, repository, type JobStore } from '@/store';
import { sentenceFor } from '@/ui/words';
import type { Work } from './use-one-at-a-time';

/** Reads existing geometry into the job, and says what came in and what did not. */
export async function bringReferenceInto(
  jobs: JobStore,
  name: string,
  bytes: ArrayBuffer,
  { sentences, onDoing, signal }: Work,
  plane?: string,
): Promise<void> {
  const format = referenceFormatOf(name);
  if (!format) return;
  if (jobs.getState().readOnly) return void sentences.push(sentenceFor('read-only'));
  onDoing(`Reading ${name}`);
  const { site } = jobs.getState().job;
  const brought = await bringInReference(name, bytes, format, { site, plane, signal }, repository.pictures);
  onDoing(undefined);
  if (brought.kind === 'refused') return void sentences.push(sentenceFor(brought.code, brought.detail));
  jobs.getState().run(addReference(brought.reference, brought.geometry.site));
  sentences.push(sentenceFor('reference-in', { name: brought.reference.name, ...countsOf(brought.geometry) }));
  if (brought.geometry.saidUnitMm === undefined)
    sentences.push(sentenceFor('reference-no-unit', { name: brought.reference.name }));
}

export const baseOf = (name: string) => name.replace(/\.[a-z0-9]+$/i, '').toLowerCase();

/** World files by the name that they share with their picture. */
export async function readWorldFiles(
  files: readonly File[],
  sentences: string[],
): Promise<ReadonlyMap<string, MapPlace>> {
  const found = new Map<string, MapPlace>();
  for (const file of files.filter(({ name }) => isWorldFileName(name))) {
    const map = readWorldFile(await file.text());
    if (!map.ok) sentences.push(sentenceFor(map.code, { name: file.name }));
    else if (files.some((other) => other !== file && baseOf(other.name) === baseOf(file.name)))
      found.set(baseOf(file.name), { map: map.value });
    else sentences.push(sentenceFor('world-file-alone', { name: file.name }));
  }
  return found;
}

/** How much came in, and what did not. */
function countsOf({ layerOf, layers, ignoredKinds }: ReferenceGeometry): Readonly<Record<string, string | number>> {
  const left = Object.entries(ignoredKinds)
    .map(([kind, count]) => `${count} ${kind}`)
    .slice(0, 6)
    .join(', ');
  return { count: layerOf.length, layers: layers.length, left };
}
