import { createDeriver } from '@/core/derive';
import { fromPictureKey, listFiles, pictureKey, type Job } from '@/core/job';
import { fileWorker, pictureWorker, type BundleData } from '@/workers';
import { newId } from './ids';
import { jobCardOf } from './job-card';
import type { JobRepository } from './repository';
import { isStorageFull } from './storage';

export type Imported = { readonly kind: 'done'; readonly id: string } | { readonly kind: 'refused'; readonly code: string; readonly detail: Readonly<Record<string, string | number>> };

/** The whole job as one file. Refused when a picture is missing on this device. */
export async function packJob(job: Job, repository: JobRepository): Promise<{ kind: 'done'; bytes: ArrayBuffer } | Extract<Imported, { kind: 'refused' }>> {
  const pictures: { hash: string; bytes: ArrayBuffer }[] = [];
  for (const hash of listFiles(job)) {
    const bytes = await repository.pictures.get(hash);
    if (!bytes) return { kind: 'refused', code: 'picture-missing', detail: {} };
    pictures.push({ hash, bytes });
  }
  const written = await fileWorker.call('writeBundle', { job, pictures });
  return written.kind === 'done' ? { kind: 'done', bytes: written.value } : { kind: 'refused', code: 'worker-died', detail: {} };
}

export async function openBundle(bytes: ArrayBuffer, repository: JobRepository): Promise<Imported> {
  const read = await fileWorker.call('readBundle', { bytes });
  if (read.kind !== 'done') return { kind: 'refused', code: read.kind === 'failed' ? read.code : 'cancelled', detail: read.kind === 'failed' ? read.detail : {} };
  return storeJob(read.value, repository);
}

/**
 * Puts a job with its pictures on the device. A job that is here already is stored beside it under a new id. All or
 * nothing: the job is written last, and pictures without a job are swept away.
 */
export async function storeJob({ job, pictures }: BundleData, repository: JobRepository): Promise<Imported> {
  try {
    for (const { hash, bytes } of pictures) await repository.pictures.put(hash, bytes);
    const thumbnail = await thumbnailOf(job, repository);
    return { kind: 'done', id: await createJobOf(job, thumbnail, repository) };
  } catch (problem) {
    await giveUp(pictures.map(({ hash }) => hash), repository).catch(() => undefined);
    return { kind: 'refused', code: isStorageFull(problem) ? 'storage-full' : 'storage-failed', detail: {} };
  }
}

/** A job of its own, under its id or, where there is one of that id already, a new one. Its id comes back. */
export async function createJobOf(job: Job, thumbnail: string | undefined, repository: Pick<JobRepository, 'create'>): Promise<string> {
  for (let own = job; ; own = { ...job, id: newId() }) {
    if (await repository.create(own, jobCardOf(own, createDeriver()(own), new Date(), thumbnail))) return own.id;
  }
}

/** Nothing came of what was being stored. */
export async function giveUp(hashes: readonly string[], repository: Pick<JobRepository, 'pictures' | 'sweep'>): Promise<void> {
  await repository.pictures.settle(hashes);
  await repository.sweep();
}

/** A small picture of the job's first sheet, as a data address. */
export async function thumbnailOf(job: Job, repository: JobRepository): Promise<string | undefined> {
  const hash = job.sheets[0] && pictureKey(job.sheets[0]);
  if (!hash || !(await openPicture(hash, repository))) return undefined;
  const made = await pictureWorker.call('thumbnail', { hash, size: 240 });
  return made.kind === 'done' ? made.value : undefined;
}

/** Pictures on their way into the worker: whoever asks for one meanwhile waits for the same decoding. */
const opening = new Map<string, Promise<boolean>>();

/** Makes sure that the picture worker holds a picture; false when it is not on this device or cannot be read. */
export function openPicture(key: string, repository: JobRepository): Promise<boolean> {
  const known = opening.get(key) ?? bringIntoWorker(key, repository).finally(() => opening.delete(key));
  opening.set(key, known);
  return known;
}

async function bringIntoWorker(key: string, repository: JobRepository): Promise<boolean> {
  const held = await pictureWorker.call('hasPicture', { hash: key });
  if (held.kind === 'done' && held.value) return true;
  const { picture, page } = fromPictureKey(key);
  const bytes = await repository.pictures.get(picture);
  if (!bytes) return false;
  const opened = await pictureWorker.call('open', { bytes, page }, { transfer: [bytes] });
  return opened.kind === 'done';
}
