import { imageSize } from 'image-size';
import { done, refused, type Result } from '../basics';
import { MAX_MEGAPIXELS } from './limits';
import { isTiff, readTiffPages } from './tiff';

export interface PictureFile {
  readonly mediaType:
    'image/jpeg' | 'image/png' | 'image/webp' | 'image/gif' | 'image/bmp' | 'image/tiff' | 'image/heic';
  /** Stored pixels, before any EXIF orientation. */
  readonly width: number;
  readonly height: number;
  /** The file ends before the picture does: what is there can be shown. */
  readonly truncated: boolean;
  /** More than one frame: the first is taken. */
  readonly animated: boolean;
  /** Pages, each a picture of its own; 1 for most kinds. */
  readonly pages: number;
  /** Things about it that somebody should know: `picture-ink`, `picture-deep`, `picture-profile`. */
  readonly notices: readonly string[];
}

const MEDIA_TYPES: Readonly<Record<string, PictureFile['mediaType']>> = {
  jpg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  gif: 'image/gif',
  bmp: 'image/bmp',
  heic: 'image/heic',
  heif: 'image/heic',
};

/**
 * Looks at a picture file's own bytes, not its name. Refuses what is empty, no picture, of a kind that is not read, without
 * size, a single pixel in either direction, or larger than `MAX_MEGAPIXELS`.
 */
export function inspectPicture(bytes: Uint8Array, page = 0): Result<PictureFile> {
  if (bytes.length === 0) return refused('picture-empty');
  if (isTiff(bytes)) return inspectTiff(bytes, page);
  let found;
  try {
    found = imageSize(bytes);
  } catch {
    return refused('picture-not-understood');
  }
  const mediaType = MEDIA_TYPES[found.type ?? ''];
  if (!mediaType) return refused('picture-kind-not-read', { kind: found.type ?? '?' });
  const { width, height } = found;
  if (!(width > 0 && height > 0)) return refused('picture-not-understood');
  if (width < 8 || height < 8) return refused('picture-too-small', { width, height });
  const megapixels = (width * height) / 1e6;
  if (megapixels > MAX_MEGAPIXELS)
    return refused('picture-too-large', { megapixels: Math.round(megapixels), most: MAX_MEGAPIXELS });
  return done({
    mediaType,
    width,
    height,
    truncated: isTruncated(bytes, mediaType),
    animated: mediaType === 'image/gif' && countGifFrames(bytes) > 1,
    pages: 1,
    notices: [],
  });
}

function inspectTiff(bytes: Uint8Array, index: number): Result<PictureFile> {
  const pages = readTiffPages(bytes);
  if (!pages.ok) return pages;
  const page = pages.value[index];
  if (!page) return refused('picture-not-understood');
  const notices = [
    ...(page.isInk ? ['picture-ink'] : []),
    ...(page.bits > 8 ? ['picture-deep'] : []),
    ...(page.hasProfile ? ['picture-profile'] : []),
  ];
  return done({
    mediaType: 'image/tiff',
    width: page.width,
    height: page.height,
    truncated: false,
    animated: false,
    pages: pages.value.length,
    notices,
  });
}

function isTruncated(bytes: Uint8Array, mediaType: PictureFile['mediaType']): boolean {
  if (mediaType === 'image/jpeg') return !hasJpegEnd(bytes);
  if (mediaType === 'image/png') return !includesSequence(bytes.subarray(-4096), [0x49, 0x45, 0x4e, 0x44]);
  return false;
}

function includesSequence(bytes: Uint8Array, sequence: readonly number[]): boolean {
  return bytes.some((_, i) => sequence.every((byte, k) => bytes[i + k] === byte));
}

/** Walks to the first scan and looks for the end marker behind it; phones append further data after that, which is no fault. */
function hasJpegEnd(bytes: Uint8Array): boolean {
  let at = 2;
  while (at + 3 < bytes.length && bytes[at] === 0xff && bytes[at + 1] !== 0xda)
    at += 2 + bytes[at + 2]! * 256 + bytes[at + 3]!;
  for (; at + 1 < bytes.length; at++) if (bytes[at] === 0xff && bytes[at + 1] === 0xd9) return true;
  return false;
}

/** Counts image blocks up to two by walking a GIF's blocks (GIF89a specification, sections 15–26). */
function countGifFrames(bytes: Uint8Array): number {
  const table = (flags: number) => (flags & 0x80 ? 3 * 2 ** ((flags & 7) + 1) : 0);
  let at = 13 + table(bytes[10] ?? 0);
  let frames = 0;
  const skipBlocks = () => {
    while (at < bytes.length && bytes[at] !== 0) at += bytes[at]! + 1;
    at++;
  };
  while (at < bytes.length && frames < 2) {
    const block = bytes[at];
    if (block === 0x2c) {
      frames++;
      at += 10 + table(bytes[at + 9] ?? 0) + 1;
      skipBlocks();
    } else if (block === 0x21) {
      at += 2;
      skipBlocks();
    } else break;
  }
  return frames;
}
