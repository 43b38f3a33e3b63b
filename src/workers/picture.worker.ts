import { inspectPicture, pictureKey, readPictureTags, sha256Hex } from '../core/pictures';
import { misfitOfRectangle, toSheet } from '../core/calibrate';
import { boxAround, levelled, type Level, type Vec } from '../core/geometry';
import {
  findRim,
  findSides,
  findStraight,
  findSheetTurn,
  grayFrom,
  listFrames,
  listStraights,
  straightenRows,
  type Cleaning,
  type GrayPicture,
  type Pyramid as ColourPyramid,
} from '../core/raster';
import { cleanBitmap, countSpecks, paintBitmap } from './cleaner';
import { ColourKeeper } from './colour-keeper';
import { OperationRefused, Transferred, type CallContext } from './protocol';
import { TILE_SIZE, type CleanRequest, type PictureOperations } from './picture-operations';
import { fromBase64, toBase64 } from './base64';
import { decode, pageTags, type CanvasTurn } from './decode';
import { serve } from './serve';

/** Levels of one decoded picture, each made from the one before when it is first asked for. */
interface Pyramid {
  readonly levels: Promise<ImageBitmap>[];
  readonly pixels: number;
}

/** Pictures that are kept at the most, and their pixels together, in millions; the one that came last always stays. */
const KEPT_PICTURES = 4;
const KEPT_MEGAPIXELS = 160;
const LARGE = 20e6;
/** Base64 of 1.5 MB is 2 MB of text: one value of the storage. */
const PIECE_BYTES = 1_500_000;
const MOST_STRAIGHTS = 8;
const pyramids = new Map<string, Pyramid>();
const colours = new ColourKeeper();

async function coloursOf(hash: string): Promise<ColourPyramid | undefined> {
  const bitmap = await pyramids.get(hash)?.levels[0];
  return bitmap && colours.pyramidOf(hash, bitmap);
}

/** Cleaned pictures by name: the picture they come from, and what was done to it. */
const cleanings = new Map<string, { readonly hash: string; readonly steps: readonly Cleaning[] }>();

function keep(hash: string, picture: ImageBitmap): void {
  forget(hash);
  pyramids.set(hash, { levels: [Promise.resolve(picture)], pixels: picture.width * picture.height });
  const names = [...pyramids.keys()];
  let pixels = 0;
  for (const [i, name] of names.reverse().entries()) {
    pixels += pyramids.get(name)!.pixels;
    if (i > 0 && (i >= KEPT_PICTURES || pixels > KEPT_MEGAPIXELS * 1e6)) forget(name);
  }
}

function forget(name: string): void {
  const gone = pyramids.get(name);
  pyramids.delete(name);
  cleanings.delete(name);
  for (const level of gone?.levels ?? []) void level.then((bitmap) => bitmap.close());
}

let cleaningNow: Promise<unknown> = Promise.resolve();

async function clean({ hash, steps, as }: CleanRequest, context: CallContext): Promise<boolean> {
  // It may have been given up while it stood behind another.
  if (context.isCancelled()) throw new OperationRefused('cancelled');
  const kept = pyramids.get(hash);
  const source = await kept?.levels[0];
  if (!kept || !source) return false;
  // Used last, it is the last to go.
  pyramids.delete(hash);
  pyramids.set(hash, kept);
  const cleaned = (await paintedFurther(hash, source, steps)) ?? (await cleanBitmap(source, steps, context));
  // Of a large sheet one cleaned copy is kept, or the sheet itself would have to go.
  if (cleaned.width * cleaned.height > LARGE)
    [...cleanings].filter(([, other]) => other.hash === hash).forEach(([name]) => forget(name));
  keep(as, cleaned);
  cleanings.set(as, { hash, steps });
  return true;
}

/** From a copy that was cleaned before, where only strokes of the brush have come since. */
async function paintedFurther(
  hash: string,
  source: ImageBitmap,
  steps: readonly Cleaning[],
): Promise<ImageBitmap | undefined> {
  for (const [name, done] of [...cleanings].reverse()) {
    const strokes = done.hash === hash ? strokesSince(done.steps, steps) : undefined;
    let bitmap = await pyramids.get(name)?.levels[0];
    if (!strokes || strokes.length === 0 || !bitmap) continue;
    for (const step of strokes)
      if (step.kind === 'rub' || step.kind === 'fill') bitmap = await paintBitmap(bitmap, source, steps, step);
    return bitmap;
  }
  return undefined;
}

/** What is left to do from a picture that was cleaned before: strokes of the brush that came after; undefined when anything else is. */
function strokesSince(done: readonly Cleaning[], wanted: readonly Cleaning[]): Cleaning[] | undefined {
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
  const left: Cleaning[] = [];
  for (const [i, step] of wanted.entries()) {
    const before = done[i];
    if (before && same(before, step)) continue;
    if (step.kind !== 'rub' && step.kind !== 'fill') return undefined;
    const known = before?.kind === step.kind && i === done.length - 1 ? before.strokes : [];
    if (!same(known, step.strokes.slice(0, known.length)) || (before && before.kind !== step.kind)) return undefined;
    left.push({ ...step, strokes: step.strokes.slice(known.length) });
  }
  return done.length <= wanted.length ? left : undefined;
}

async function levelOf(pyramid: Pyramid, level: number): Promise<ImageBitmap> {
  for (let k = pyramid.levels.length; k <= level; k++) pyramid.levels.push(pyramid.levels[k - 1]!.then(halved));
  return pyramid.levels[level]!;
}

function halved(bitmap: ImageBitmap): Promise<ImageBitmap> {
  const size = {
    resizeWidth: Math.max(1, Math.ceil(bitmap.width / 2)),
    resizeHeight: Math.max(1, Math.ceil(bitmap.height / 2)),
  };
  return createImageBitmap(bitmap, { ...size, resizeQuality: 'medium' });
}

const STRAIGHTENED_ROWS = 256;

function readWhole(bitmap: ImageBitmap): ImageData {
  const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d', {
    willReadFrequently: true,
    alpha: false,
  })!;
  context.drawImage(bitmap, 0, 0);
  return context.getImageData(0, 0, bitmap.width, bitmap.height);
}

/** Sheets are looked at as a whole at about this many pixels along their longer side. */
const WHOLE_SIDE = 1600;

/** Brightness of a whole picture, made small, and the sheet pixels to one of its pixels. */
async function grayOf(hash: string): Promise<{ readonly picture: GrayPicture; readonly scale: number } | undefined> {
  const bitmap = await pyramids.get(hash)?.levels[0];
  if (!bitmap) return undefined;
  const scale = Math.max(1, Math.max(bitmap.width, bitmap.height) / WHOLE_SIDE);
  const small = await createImageBitmap(bitmap, {
    resizeWidth: Math.round(bitmap.width / scale),
    resizeHeight: Math.round(bitmap.height / scale),
    resizeQuality: 'high',
  });
  const { width, height, data } = readWhole(small);
  small.close();
  return { picture: grayFrom(width, height, data), scale };
}

/** The turn that makes a direction level, as a canvas takes it. */
function canvasTurn({ toSeen }: Level): CanvasTurn {
  return [...toSeen([1, 0]), ...toSeen([0, 1]), 0, 0];
}

/** Makes clear what lies outside a polygon. */
function keepWithin(drawing: OffscreenCanvasRenderingContext2D, cut: readonly Vec[]): void {
  drawing.globalCompositeOperation = 'destination-in';
  drawing.beginPath();
  cut.forEach(([x, y], i) => (i === 0 ? drawing.moveTo(x, y) : drawing.lineTo(x, y)));
  drawing.closePath();
  drawing.fill();
}

serve<PictureOperations>({
  async open({ bytes, page = 0 }, context) {
    const view = new Uint8Array(bytes);
    const file = inspectPicture(view, page);
    if (!file.ok) throw new OperationRefused(file.code, file.detail);
    const hash = sha256Hex(view);
    context.progress(0.2, 'decoding');
    const picture = await decode(bytes, file.value, page);
    if (context.isCancelled()) {
      picture.close();
      throw new OperationRefused('cancelled');
    }
    keep(pictureKey({ picture: hash, page }), picture);
    const { width, height } = picture;
    return new Transferred(
      { hash, file: file.value, tags: { ...readPictureTags(view), ...pageTags(view, page) }, width, height, bytes },
      [bytes],
    );
  },

  async hasPicture({ hash }) {
    return pyramids.has(hash);
  },

  async tile({ hash, level, column, row }) {
    const pyramid = pyramids.get(hash);
    if (!pyramid) return undefined;
    const bitmap = await levelOf(pyramid, level);
    const [x, y] = [column * TILE_SIZE, row * TILE_SIZE];
    const [width, height] = [Math.min(TILE_SIZE, bitmap.width - x), Math.min(TILE_SIZE, bitmap.height - y)];
    if (width <= 0 || height <= 0) return undefined;
    const tile = await createImageBitmap(bitmap, x, y, width, height);
    return new Transferred<ImageBitmap | undefined>(tile, [tile]);
  },

  async colours({ hash, x, y, width, height }) {
    const full = (await coloursOf(hash))?.levels[0];
    if (!full) return undefined;
    const [left, top] = [Math.max(0, x), Math.max(0, y)];
    const [w, h] = [Math.min(full.width, x + width) - left, Math.min(full.height, y + height) - top];
    if (w <= 0 || h <= 0) return undefined;
    const data = new Uint8Array(3 * w * h);
    for (let row = 0; row < h; row++)
      data.set(
        full.data.subarray(3 * ((top + row) * full.width + left), 3 * ((top + row) * full.width + left + w)),
        3 * row * w,
      );
    return new Transferred({ x: left, y: top, width: w, height: h, data }, [data.buffer]);
  },

  async rim({ hash, near }) {
    const pyramid = await coloursOf(hash);
    return pyramid && findRim(pyramid, near);
  },

  async straight({ hash, near }) {
    const pyramid = await coloursOf(hash);
    return pyramid && findStraight(pyramid, near);
  },

  async straights({ hash }) {
    const pyramid = await coloursOf(hash);
    return pyramid ? listStraights(pyramid, MOST_STRAIGHTS) : [];
  },

  async sides({ hash, near, proportion, focal35mm }) {
    const pyramid = await coloursOf(hash);
    const full = pyramid?.levels[0];
    return (
      full &&
      findSides(pyramid!, near, (corners) =>
        misfitOfRectangle({ width: full.width, height: full.height, kind: 'photo', focal35mm }, corners, proportion),
      )
    );
  },

  async straighten({ hash, map, frame: { corner, perMm, width, height }, cut }, context) {
    const bitmap = await pyramids.get(hash)?.levels[0];
    if (!bitmap) return undefined;
    const source = readWhole(bitmap);
    const canvas = new OffscreenCanvas(width, height);
    const drawing = canvas.getContext('2d')!;
    for (let top = 0; top < height; top += STRAIGHTENED_ROWS) {
      const rows = Math.min(STRAIGHTENED_ROWS, height - top);
      const pixels = straightenRows(source, width, top, rows, ([x, y]) =>
        toSheet(map, [corner[0] + x / perMm, corner[1] - y / perMm]),
      );
      drawing.putImageData(new ImageData(pixels, width, rows), 0, top);
      context.progress(top / height, 'squaring up');
      // A cancel is heard between strips.
      await new Promise((resolve) => setTimeout(resolve, 0));
      if (context.isCancelled()) throw new OperationRefused('cancelled');
    }
    if (cut) keepWithin(drawing, cut);
    const png = await (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer();
    return new Transferred<ArrayBuffer | undefined>(png, [png]);
  },

  async turn({ hash }) {
    const gray = await grayOf(hash);
    return gray && findSheetTurn(gray.picture);
  },

  async drawings({ hash, direction = 0 }) {
    const gray = await grayOf(hash);
    if (!gray) return [];
    const { picture, scale } = gray;
    return listFrames(picture, direction).map((frame) => frame.map(([x, y]): Vec => [x * scale, y * scale]));
  },

  async thumbnail({ hash, size, frame, direction = 0, mirrored = false }) {
    const pyramid = pyramids.get(hash);
    if (!pyramid) throw new OperationRefused('picture-not-open');
    const full = await levelOf(pyramid, 0);
    const lying = levelled(direction, mirrored);
    const { min, max } = boxAround(
      (
        frame ?? [
          [0, 0],
          [full.width, 0],
          [full.width, full.height],
          [0, full.height],
        ]
      ).map(lying.toSeen),
    );
    const scale = Math.min(1, size / Math.max(max[0] - min[0], max[1] - min[1]));
    const level = Math.max(0, Math.floor(Math.log2(1 / scale)));
    const bitmap = await levelOf(pyramid, level);
    const canvas = new OffscreenCanvas(
      Math.max(1, Math.round((max[0] - min[0]) * scale)),
      Math.max(1, Math.round((max[1] - min[1]) * scale)),
    );
    const drawing = canvas.getContext('2d')!;
    drawing.fillStyle = '#efebe0';
    drawing.fillRect(0, 0, canvas.width, canvas.height);
    drawing.setTransform(scale, 0, 0, scale, -min[0] * scale, -min[1] * scale);
    drawing.transform(...canvasTurn(lying));
    drawing.drawImage(bitmap, 0, 0, full.width, full.height);
    const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.8 });
    return `data:image/jpeg;base64,${toBase64(new Uint8Array(await blob.arrayBuffer()))}`;
  },

  async clean(request, context) {
    // One at a time: each may go on from what the one before has made.
    const mine = cleaningNow.catch(() => undefined).then(() => clean(request, context));
    cleaningNow = mine;
    return mine;
  },

  async specks({ hash, steps }, context) {
    const source = await pyramids.get(hash)?.levels[0];
    return source && countSpecks(source, steps, context);
  },

  async hashOf({ bytes }) {
    return sha256Hex(new Uint8Array(bytes));
  },

  async toPieces({ bytes }, context) {
    const view = new Uint8Array(bytes);
    const pieces: string[] = [];
    for (let at = 0; at < view.length; at += PIECE_BYTES) {
      pieces.push(toBase64(view.subarray(at, at + PIECE_BYTES)));
      context.progress(at / view.length, 'packing');
    }
    return pieces;
  },

  async fromPieces({ pieces }) {
    const parts = pieces.map(fromBase64);
    const bytes = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
    let at = 0;
    for (const part of parts) {
      bytes.set(part, at);
      at += part.length;
    }
    return new Transferred(bytes.buffer, [bytes.buffer]);
  },
});
