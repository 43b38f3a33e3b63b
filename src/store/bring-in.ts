import { createView, type Sheet, type View } from '@/core/job';
import { pictureWorker, type OpenedPicture } from '@/workers';
import { newId } from './ids';
import type { PictureStore } from './pictures';
import { isStorageFull } from './storage';

export type BroughtIn =
  | { readonly kind: 'done'; readonly sheet: Sheet; readonly view: View; readonly notices: readonly string[] }
  | { readonly kind: 'refused'; readonly code: string; readonly detail: Readonly<Record<string, string | number>> }
  | { readonly kind: 'cancelled' };

export interface BringInOptions {
  readonly signal?: AbortSignal;
  onProgress?(done: number, word: string): void;
}

/**
 * A picture file becomes a sheet with one view: looked at, decoded, stored. Nothing is in the job until everything is
 * stored, so that a tab closed half-way leaves the job as it was.
 */
export async function bringInPicture(file: { readonly name: string; arrayBuffer(): Promise<ArrayBuffer> }, pictures: PictureStore, options: BringInOptions = {}): Promise<BroughtIn> {
  let bytes: ArrayBuffer;
  try {
    bytes = await file.arrayBuffer();
  } catch {
    return { kind: 'refused', code: 'file-not-readable', detail: { name: file.name } };
  }
  const opened = await pictureWorker.call('open', { bytes }, { ...options, transfer: [bytes] });
  if (opened.kind === 'cancelled') return opened;
  if (opened.kind === 'failed') return { kind: 'refused', code: opened.code, detail: { name: file.name, ...opened.detail } };
  try {
    options.onProgress?.(0.7, 'storing');
    await pictures.put(opened.value.hash, opened.value.bytes);
  } catch (problem) {
    return { kind: 'refused', code: isStorageFull(problem) ? 'storage-full' : 'storage-failed', detail: { name: file.name } };
  }
  if (options.signal?.aborted) return { kind: 'cancelled' };
  const sheet = sheetOf(file.name, opened.value);
  return { kind: 'done', sheet, view: createView(newId(), sheet), notices: noticesOf(opened.value) };
}

function sheetOf(fileName: string, { hash, file, tags, width, height, bytes }: OpenedPicture): Sheet {
  const fromCamera = tags.focalMm !== undefined || tags.camera !== undefined;
  const name = fileName.replace(/\.[a-z0-9]+$/i, '').slice(0, 120) || 'Picture';
  return {
    id: newId(), name, picture: hash, mediaType: file.mediaType, bytes: bytes.byteLength, width, height,
    kind: fromCamera || tags.dpi === undefined || tags.dpi < 150 ? 'photo' : 'scan', taken: tags,
  };
}

function noticesOf({ file }: OpenedPicture): string[] {
  return [...(file.truncated ? ['picture-truncated'] : []), ...(file.animated ? ['picture-animated'] : [])];
}
