import { fromPictureKey } from '@/core/pictures';
import { pictureWorker } from '@/workers';
import type { JobRepository } from './repository';
import { isStorageFull } from './storage';

/** Whether a picture can be shown: it is in the worker; nothing, or not all, of it is on this device; what is there cannot be read; the device did not answer, or the work on it ended by itself. */
export type AtHand = 'there' | 'gone' | 'damaged' | 'failed';

/** Pictures on their way into the worker: whoever asks for one meanwhile waits for the same decoding. */
const opening = new Map<string, Promise<AtHand>>();

/** Makes sure that the picture worker holds a picture. */
export async function openPicture(key: string, repository: JobRepository): Promise<boolean> {
  return (await bringToHand(key, repository)) === 'there';
}

export function bringToHand(key: string, repository: JobRepository): Promise<AtHand> {
  const known = opening.get(key) ?? bringTwice(key, repository).finally(() => opening.delete(key));
  opening.set(key, known);
  return known;
}

/** A worker may have died over something else: what was asked meanwhile is asked of the next one. */
async function bringTwice(key: string, repository: JobRepository): Promise<AtHand> {
  const first = await bringIntoWorker(key, repository).catch((): AtHand => 'failed');
  return first === 'failed' ? bringIntoWorker(key, repository).catch((): AtHand => 'failed') : first;
}

async function bringIntoWorker(key: string, repository: JobRepository): Promise<AtHand> {
  const held = await pictureWorker.call('hasPicture', { hash: key });
  if (held.kind === 'done' && held.value) return 'there';
  const { picture, page } = fromPictureKey(key);
  const bytes = await repository.pictures.get(picture);
  if (!bytes) return 'gone';
  const opened = await pictureWorker.call('open', { bytes, page }, { transfer: [bytes] });
  if (opened.kind === 'done') return 'there';
  return opened.kind === 'failed' && opened.code !== 'worker-died' ? 'damaged' : 'failed';
}

/** Puts a picture back that was lost, from the file that it came from. Undefined, or the code of why not. */
export async function bringBack(
  hash: string,
  file: Pick<File, 'name' | 'arrayBuffer'>,
  repository: JobRepository,
): Promise<string | undefined> {
  const bytes = await file.arrayBuffer().catch(() => undefined);
  if (!bytes) return 'file-not-readable';
  const named = await pictureWorker.call('hashOf', { bytes });
  if (named.kind !== 'done') return 'picture-not-shown';
  if (named.value !== hash) return 'picture-other';
  try {
    await repository.pictures.write(hash, bytes);
    return undefined;
  } catch (problem) {
    return isStorageFull(problem) ? 'storage-full' : 'storage-failed';
  }
}
