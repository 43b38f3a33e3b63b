import { createPyramid, type ColourPicture, type Pyramid } from '../core/raster';

/** Rows that are read at a time: their copy lies beside the picture in memory. */
const STRIP = 512;

/** Colours of the picture that was last searched: read once, in strips, kept until another one is asked for. */
export class ColourKeeper {
  private kept: { readonly hash: string; readonly pyramid: Promise<Pyramid> } | undefined;

  pyramidOf(hash: string, bitmap: ImageBitmap): Promise<Pyramid> {
    if (this.kept?.hash !== hash) this.kept = { hash, pyramid: readColours(bitmap).then(createPyramid) };
    return this.kept.pyramid;
  }
}

async function readColours(bitmap: ImageBitmap): Promise<ColourPicture> {
  const { width, height } = bitmap;
  const canvas = new OffscreenCanvas(width, Math.min(STRIP, height));
  const context = canvas.getContext('2d', { willReadFrequently: true, alpha: false })!;
  const data = new Uint8Array(3 * width * height);
  for (let top = 0; top < height; top += STRIP) {
    const rows = Math.min(STRIP, height - top);
    context.drawImage(bitmap, 0, top, width, rows, 0, 0, width, rows);
    const { data: strip } = context.getImageData(0, 0, width, rows);
    for (let from = 0, to = 3 * top * width; from < strip.length; from += 4, to += 3) {
      data[to] = strip[from]!;
      data[to + 1] = strip[from + 1]!;
      data[to + 2] = strip[from + 2]!;
    }
    // Other calls get their turn between strips.
    await Promise.resolve();
  }
  return { width, height, data };
}
