import { createDeriver } from '@/core/derive';
import { listFiles, type Job } from '@/core/job';
import { pictureKey } from '@/core/pictures';
import { fileWorker, pictureWorker, type BundleData } from '@/workers';
import { newId } from './ids';
import { AT_ONCE } from './judging';
import { jobCardOf } from './job-card';
import { openPicture } from './picture-at-hand';
import type { JobRepository } from './repository';
import { isStorageFull, StorageProblem } from './storage';

export type Imported =
  | { readonly kind: 'done'; readonly id: string }
  | { readonly kind: 'refused'; readonly code: string; readonly detail: Readonly<Record<string, string | number>> };

/** A job as one file; of which of its files nothing is left on this device. */
export type Packed =
  | { readonly kind: 'done'; readonly bytes: ArrayBuffer; readonly missing: number }
  | Extract<Imported, { kind: 'refused' }>;

/** The whole job as one file. What is gone from this device is named in it as missing: the rest of the job is worth keeping. */
export async function packJob(job: Job, repository: JobRepository): Promise<Packed> {
  try {
    const pictures: { hash: string; bytes: ArrayBuffer }[] = [];
    const files = listFiles(job);
    for (const hash of files) {
      const bytes = await repository.pictures.get(hash);
      if (bytes) pictures.push({ hash, bytes });
    }
    const written = await fileWorker.call('writeBundle', { job, pictures });
    return written.kind === 'done'
      ? { kind: 'done', bytes: written.value, missing: files.length - pictures.length }
      : { kind: 'refused', code: 'worker-died', detail: {} };
  } catch (problem) {
    return {
      kind: 'refused',
      code: problem instanceof StorageProblem ? 'storage-not-read' : 'worker-died',
      detail: {},
    };
  }
}

/** Reads a bundle and puts its job on the device, unless that is stopped. */
export async function openBundle(
  bytes: ArrayBuffer,
  repository: JobRepository,
  signal?: AbortSignal,
): Promise<Imported> {
  const read = await fileWorker.call('readBundle', { bytes }, signal ? { signal } : {});
  if (read.kind !== 'done')
    return {
      kind: 'refused',
      code: read.kind === 'failed' ? read.code : 'cancelled',
      detail: read.kind === 'failed' ? read.detail : {},
    };
  return storeJob(read.value, repository, signal);
}

/**
 * Puts a job with its pictures on the device. A job that is here already is stored beside it under a new id. All or
 * nothing: the job is written last, and pictures without a job are swept away.
 */
export async function storeJob(
  { job, pictures }: BundleData,
  repository: JobRepository,
  signal?: AbortSignal,
): Promise<Imported> {
  const leave = () =>
    giveUp(
      pictures.map(({ hash }) => hash),
      repository,
    ).catch(() => undefined);
  try {
    for (const { hash, bytes } of pictures) {
      if (!signal?.aborted) await repository.pictures.put(hash, bytes);
    }
    if (signal?.aborted) return (await leave(), { kind: 'refused', code: 'cancelled', detail: {} });
    // A job stands under its id in addresses and keys, so one that could not be an id of ours gets another.
    const own = /^[\w-]+$/.test(job.id) ? job : { ...job, id: newId() };
    return { kind: 'done', id: await createJobOf(own, await thumbnailOf(own, repository), repository) };
  } catch (problem) {
    await leave();
    return { kind: 'refused', code: isStorageFull(problem) ? 'storage-full' : 'storage-failed', detail: {} };
  }
}

/** A job of its own, under its id or, where there is one of that id already, a new one. Its id comes back. */
export async function createJobOf(
  job: Job,
  thumbnail: string | undefined,
  repository: Pick<JobRepository, 'create'>,
): Promise<string> {
  for (let own = job; ; own = { ...job, id: newId() }) {
    if (await repository.create(own, jobCardOf(own, createDeriver(AT_ONCE)(own), new Date(), thumbnail))) return own.id;
  }
}

/** Nothing came of what was being stored. */
export async function giveUp(
  hashes: readonly string[],
  repository: Pick<JobRepository, 'pictures' | 'sweep'>,
): Promise<void> {
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
