import { decodeTiffPage, isTiff, readTiffPages, type PictureFile } from '../core/pictures';
import { decodeHeic } from './heic';
import { OperationRefused } from './protocol';

/** The end marker of a JPEG. A file that was cut off decodes as far as it goes once it has one. */
const JPEG_END = new Uint8Array([0xff, 0xd9]);

/** A page of a picture file, upright. */
export async function decode(
  bytes: ArrayBuffer,
  { mediaType, truncated }: PictureFile,
  page: number,
): Promise<ImageBitmap> {
  if (mediaType === 'image/heic') return decodeHeic(new Uint8Array(bytes));
  if (mediaType === 'image/tiff') return decodeTiff(new Uint8Array(bytes), page);
  const parts = truncated && mediaType === 'image/jpeg' ? [bytes, JPEG_END] : [bytes];
  try {
    return await createImageBitmap(new Blob(parts, { type: mediaType }), { imageOrientation: 'from-image' });
  } catch {
    throw new OperationRefused('picture-not-decoded');
  }
}

/** Rows of a TIFF page that become a picture at a time. */
const STRIP = 256;

async function decodeTiff(bytes: Uint8Array, index: number): Promise<ImageBitmap> {
  const page = decodeTiffPage(bytes, index);
  if (!page.ok) throw new OperationRefused(page.code, page.detail);
  const { width, height, rows, samples, orientation } = page.value;
  const canvas = new OffscreenCanvas(width, height);
  const drawing = canvas.getContext('2d', { willReadFrequently: true })!;
  for (let from = 0; from < height; from += STRIP) {
    const to = Math.min(height, from + STRIP);
    drawing.putImageData(new ImageData(new Uint8ClampedArray(rows(from, to).buffer), width, to - from), 0, from);
    // What the last strip was made of is let go between two.
    await new Promise((resolve) => setTimeout(resolve, 0));
  }
  // The canvas is copied as it becomes a picture: a large scan would not fit beside its samples.
  (samples.buffer as ArrayBuffer & { transfer?: (bytes: number) => void }).transfer?.(0);
  const stored = canvas.transferToImageBitmap();
  return orientation === 1 ? stored : upright(stored, orientation);
}

/** A canvas's transform, as its `setTransform` takes it. */
export type CanvasTurn = [a: number, b: number, c: number, d: number, e: number, f: number];

/** A picture turned and mirrored as its orientation says (EXIF 2.3, Orientation). */
function upright(stored: ImageBitmap, orientation: number): ImageBitmap {
  const { width: w, height: h } = stored;
  const canvas = orientation > 4 ? new OffscreenCanvas(h, w) : new OffscreenCanvas(w, h);
  const turns: Readonly<Record<number, CanvasTurn>> = {
    2: [-1, 0, 0, 1, w, 0],
    3: [-1, 0, 0, -1, w, h],
    4: [1, 0, 0, -1, 0, h],
    5: [0, 1, 1, 0, 0, 0],
    6: [0, 1, -1, 0, h, 0],
    7: [0, -1, -1, 0, h, w],
    8: [0, -1, 1, 0, 0, w],
  };
  const context = canvas.getContext('2d')!;
  context.setTransform(...(turns[orientation] ?? [1, 0, 0, 1, 0, 0]));
  context.drawImage(stored, 0, 0);
  stored.close();
  return canvas.transferToImageBitmap();
}

/** What a page says of itself, which a file's tags say of the first only. */
export function pageTags(bytes: Uint8Array, index: number): { readonly dpi?: number } {
  const pages = isTiff(bytes) ? readTiffPages(bytes) : undefined;
  const dpi = pages?.ok ? pages.value[index]?.dpi : undefined;
  return dpi === undefined ? {} : { dpi };
}
