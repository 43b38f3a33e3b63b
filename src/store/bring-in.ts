import { createView, type Sheet, type View } from '@/core/job';
import { pictureWorker, type OpenedPicture } from '@/workers';
import { newId } from './ids';
import type { PictureStore } from './pictures';
import { isStorageFull } from './storage';

/** A page of a file as a sheet with one view, and what somebody should know about it. */
export interface BroughtPage {
  readonly sheet: Sheet;
  readonly view: View;
  readonly notices: readonly string[];
}

export type BroughtIn =
  | { readonly kind: 'done'; readonly pages: readonly BroughtPage[] }
  | { readonly kind: 'refused'; readonly code: string; readonly detail: Readonly<Record<string, string | number>> }
  | { readonly kind: 'cancelled' };

/** What is known of a picture besides its own tags: its resolution, when in a film it was, how the camera was held. */
export interface ToldBySource {
  readonly kind: Sheet['kind'];
  readonly dpi?: number | undefined;
  /** How far off the resolution may be, share of a length, at the most: then the picture is to scale by it. */
  readonly scaleError?: number | undefined;
  readonly moment?: number | undefined;
  readonly tilt?: readonly [number, number] | undefined;
}

export interface BringInOptions {
  readonly signal?: AbortSignal;
  onProgress?(done: number, word: string): void;
  readonly told?: ToldBySource;
}

/** As many pages of one file come in at once; a stack of paper is rarely thicker. */
const MOST_PAGES = 40;

/**
 * A picture file becomes sheets with one view each, a sheet for every page: looked at, decoded, stored. Nothing is in the job until
 * everything is stored, so that a tab closed half-way leaves the job as it was.
 */
export async function bringInPicture(
  file: { readonly name: string; arrayBuffer(): Promise<ArrayBuffer> },
  pictures: PictureStore,
  options: BringInOptions = {},
): Promise<BroughtIn> {
  let bytes: ArrayBuffer;
  try {
    bytes = await file.arrayBuffer();
  } catch {
    return { kind: 'refused', code: 'file-not-readable', detail: { name: file.name } };
  }
  const pages: BroughtPage[] = [];
  for (let page = 0, count = 1; page < count; page++) {
    const opened = await pictureWorker.call('open', { bytes, page }, { ...options, transfer: [bytes] });
    if (opened.kind === 'cancelled') return opened;
    if (opened.kind === 'failed')
      return { kind: 'refused', code: opened.code, detail: { name: file.name, ...opened.detail } };
    bytes = opened.value.bytes;
    count = Math.min(MOST_PAGES, opened.value.file.pages);
    const sheet = toldSheet(sheetOf(file.name, opened.value, page, count), options.told);
    pages.push({ sheet, view: createView(newId(), sheet), notices: noticesOf(opened.value, page) });
  }
  try {
    options.onProgress?.(0.7, 'storing');
    await pictures.put(pages[0]!.sheet.picture, bytes);
  } catch (problem) {
    return {
      kind: 'refused',
      code: isStorageFull(problem) ? 'storage-full' : 'storage-failed',
      detail: { name: file.name },
    };
  }
  if (!options.signal?.aborted) return { kind: 'done', pages };
  await pictures.settle([pages[0]!.sheet.picture]);
  return { kind: 'cancelled' };
}

function sheetOf(
  fileName: string,
  { hash, file, tags, width, height, bytes }: OpenedPicture,
  page: number,
  count: number,
): Sheet {
  const fromCamera = tags.focalMm !== undefined || tags.camera !== undefined;
  const name = fileName.replace(/\.[a-z0-9]+$/i, '').slice(0, 120) || 'Picture';
  return {
    id: newId(),
    name: count > 1 ? `${name}, page ${page + 1}` : name,
    picture: hash,
    mediaType: file.mediaType,
    bytes: bytes.byteLength,
    width,
    height,
    ...(page > 0 ? { page } : {}),
    kind: fromCamera || tags.dpi === undefined || tags.dpi < 150 ? 'photo' : 'scan',
    taken: tags,
  };
}

function toldSheet(sheet: Sheet, told: BringInOptions['told']): Sheet {
  if (!told) return sheet;
  const { kind, dpi, moment, tilt } = told;
  return {
    ...sheet,
    kind,
    taken: {
      ...sheet.taken,
      ...(dpi === undefined ? {} : { dpi }),
      ...(moment === undefined ? {} : { moment }),
      ...(tilt === undefined ? {} : { tilt }),
    },
  };
}

function noticesOf({ file }: OpenedPicture, page: number): string[] {
  return [
    ...(file.truncated ? ['picture-truncated'] : []),
    ...(file.animated ? ['picture-animated'] : []),
    ...file.notices,
    ...(page === 0 && file.pages > MOST_PAGES ? ['picture-many-pages'] : []),
  ];
}
