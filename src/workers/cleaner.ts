import {
  cleanStrip,
  colourPictureFrom,
  marginOf,
  paperOf,
  strokeBounds,
  type Cleaning,
  type PaperField,
  type Strip,
} from '../core/raster';
import { OperationRefused, type CallContext } from './protocol';

/** Rows that are cleaned at a time. */
const STRIP = 256;
/** Paper is looked for on the sheet made this small, px along its longer side. */
const SMALL_SIDE = 1200;

/** Paper and ink of a picture. */
export async function paperOfBitmap(bitmap: ImageBitmap): Promise<PaperField> {
  const scale = Math.max(1, Math.max(bitmap.width, bitmap.height) / SMALL_SIDE);
  const small = await createImageBitmap(bitmap, {
    resizeWidth: Math.max(1, Math.round(bitmap.width / scale)),
    resizeHeight: Math.max(1, Math.round(bitmap.height / scale)),
    resizeQuality: 'high',
  });
  const context = new OffscreenCanvas(small.width, small.height).getContext('2d', {
    willReadFrequently: true,
    alpha: false,
  })!;
  context.drawImage(small, 0, 0);
  const { data } = context.getImageData(0, 0, small.width, small.height);
  const field = paperOf(colourPictureFrom(small.width, small.height, data), bitmap.width / small.width);
  small.close();
  return field;
}

/** A cancel is heard, and others get their turn, between strips. */
async function breathe(context: CallContext): Promise<void> {
  await new Promise((resolve) => setTimeout(resolve, 0));
  if (context.isCancelled()) throw new OperationRefused('cancelled');
}

/** Goes over a picture strip by strip; each comes with the margin that its steps need. */
async function forEachStrip(
  bitmap: ImageBitmap,
  margin: number,
  context: CallContext,
  visit: (strip: Strip, from: number, to: number) => void,
): Promise<void> {
  const { width, height } = bitmap;
  const canvas = new OffscreenCanvas(width, Math.min(height, STRIP + 2 * margin));
  const drawing = canvas.getContext('2d', { willReadFrequently: true, alpha: false })!;
  for (let from = 0; from < height; from += STRIP) {
    const to = Math.min(height, from + STRIP);
    const [top, bottom] = [Math.max(0, from - margin), Math.min(height, to + margin)];
    drawing.drawImage(bitmap, 0, top, width, bottom - top, 0, 0, width, bottom - top);
    visit({ width, height: bottom - top, top, data: drawing.getImageData(0, 0, width, bottom - top).data }, from, to);
    context.progress(to / height, 'cleaning');
    await breathe(context);
  }
}

/** The picture with all steps done to it. */
export async function cleanBitmap(
  bitmap: ImageBitmap,
  steps: readonly Cleaning[],
  context: CallContext,
): Promise<ImageBitmap> {
  const paper = await paperOfBitmap(bitmap);
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const drawing = canvas.getContext('2d', { alpha: false })!;
  await forEachStrip(bitmap, marginOf(steps), context, (strip, from, to) => {
    cleanStrip(strip, steps, paper, from, to);
    const first = 4 * strip.width * (from - strip.top);
    drawing.putImageData(
      new ImageData(strip.data.slice(first, first + 4 * strip.width * (to - from)), strip.width, to - from),
      0,
      from,
    );
  });
  return canvas.transferToImageBitmap();
}

/** How many specks the last of the steps would take. */
export async function countSpecks(
  bitmap: ImageBitmap,
  steps: readonly Cleaning[],
  context: CallContext,
): Promise<number> {
  const paper = await paperOfBitmap(bitmap);
  let count = 0;
  await forEachStrip(
    bitmap,
    marginOf(steps),
    context,
    (strip, from, to) => void (count += cleanStrip(strip, steps, paper, from, to).at(-1) ?? 0),
  );
  return count;
}

/** A cleaned picture with further strokes on it: only where they go is anything touched. `source` is the picture before any step. */
export async function paintBitmap(
  cleaned: ImageBitmap,
  source: ImageBitmap,
  before: readonly Cleaning[],
  strokes: Extract<Cleaning, { kind: 'rub' | 'fill' }>,
): Promise<ImageBitmap> {
  const paper = await paperOfBitmap(source);
  const canvas = new OffscreenCanvas(cleaned.width, cleaned.height);
  const drawing = canvas.getContext('2d', { willReadFrequently: true, alpha: false })!;
  drawing.drawImage(cleaned, 0, 0);
  const isEven = before.some(({ kind }) => kind === 'even');
  for (const stroke of strokes.strokes) {
    const { min, max } = strokeBounds(stroke);
    const [top, bottom] = [Math.max(0, Math.floor(min[1])), Math.min(cleaned.height, Math.ceil(max[1]) + 1)];
    if (bottom <= top) continue;
    const rows = drawing.getImageData(0, top, cleaned.width, bottom - top);
    paintRows(
      { width: cleaned.width, height: bottom - top, top, data: rows.data },
      { ...strokes, strokes: [stroke] },
      paper,
      isEven,
    );
    drawing.putImageData(rows, 0, top);
  }
  return canvas.transferToImageBitmap();
}

/** The rows are even already: only what comes after is done, on paper that is white. */
function paintRows(strip: Strip, step: Cleaning, paper: PaperField, isEven: boolean): void {
  cleanStrip(strip, [step], isEven ? paper.even() : paper, strip.top, strip.top + strip.height);
}
