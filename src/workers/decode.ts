import { decodeTiffPage, isTiff, readTiffPages, type PictureFile } from '../core/formats';
import { decodeHeic } from './heic';
import { OperationRefused } from './protocol';

/** The end marker of a JPEG. A file that was cut off decodes as far as it goes once it has one. */
const JPEG_END = new Uint8Array([0xff, 0xd9]);

/** A page of a picture file, upright. */
export async function decode(bytes: ArrayBuffer, { mediaType, truncated }: PictureFile, page: number): Promise<ImageBitmap> {
  if (mediaType === 'image/heic') return decodeHeic(new Uint8Array(bytes));
  if (mediaType === 'image/tiff') return decodeTiff(new Uint8Array(bytes), page);
  const parts = truncated && mediaType === 'image/jpeg' ? [bytes, JPEG_END] : [bytes];
  try {
    return await createImageBitmap(new Blob(parts, { type: mediaType }), { imageOrientation: 'from-image' });
  } catch {
    throw new OperationRefused('picture-not-decoded');
  }
}

async function decodeTiff(bytes: Uint8Array, index: number): Promise<ImageBitmap> {
  const page = decodeTiffPage(bytes, index);
  if (!page.ok) throw new OperationRefused(page.code, page.detail);
  const { width, height, rgba, orientation } = page.value;
  const stored = await createImageBitmap(new ImageData(new Uint8ClampedArray(rgba.buffer as ArrayBuffer), width, height));
  return orientation === 1 ? stored : upright(stored, orientation);
}

/** A canvas's transform, as its `setTransform` takes it. */
export type CanvasTurn = [a: number, b: number, c: number, d: number, e: number, f: number];

/** A picture turned and mirrored as its orientation says (EXIF 2.3, Orientation). */
async function upright(stored: ImageBitmap, orientation: number): Promise<ImageBitmap> {
  const { width: w, height: h } = stored;
  const canvas = orientation > 4 ? new OffscreenCanvas(h, w) : new OffscreenCanvas(w, h);
  const turns: Readonly<Record<number, CanvasTurn>> = { 2: [-1, 0, 0, 1, w, 0], 3: [-1, 0, 0, -1, w, h], 4: [1, 0, 0, -1, 0, h], 5: [0, 1, 1, 0, 0, 0], 6: [0, 1, -1, 0, h, 0], 7: [0, -1, -1, 0, h, w], 8: [0, -1, 1, 0, 0, w] };
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
