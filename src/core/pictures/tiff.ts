import { Inflate } from 'fflate';
import { decode, decodeImage, toRGBA8, type IFD } from 'utif2';
import { done, refused, type Result } from '../basics';
import { MAX_MEGAPIXELS } from './limits';

/** A page of a TIFF file before it is decoded. */
export interface TiffPage {
  readonly width: number;
  readonly height: number;
  readonly dpi: number | undefined;
  /** As in EXIF, 1 to 8. */
  readonly orientation: number;
  /** Inks instead of light: turned into screen colours without a profile. */
  readonly isInk: boolean;
  /** Bits a sample; more than 8 are shown by their upper 8. */
  readonly bits: number;
  readonly hasProfile: boolean;
}

export interface TiffPicture extends TiffPage {
  /** The samples as they are stored, unpacked: 210 MB for a large scan. Whoever is through with the rows may give this memory away. */
  readonly samples: Uint8Array;
  /** Red, green, blue, cover of the rows from one to before another; as stored, not turned by the orientation. */
  readonly rows: (from: number, to: number) => Uint8Array<ArrayBuffer>;
}

/** More pages than anybody scans in one go: a damaged file can claim as many as it likes. */
export const MAX_PAGES = 200;
const MOST_BITS = 16;
const MOST_SAMPLES = 8;
/** Rows of a strip, width and height of a tile (TIFF 6.0): of none of them the library would never come to an end. */
const PARTS = [278, 322, 323];

export function isTiff(bytes: Uint8Array): boolean {
  const [a, b, c, d] = bytes;
  return (a === 0x49 && b === 0x49 && c === 42 && d === 0) || (a === 0x4d && b === 0x4d && c === 0 && d === 42);
}

/**
 * The pages of a TIFF file (TIFF revision 6.0), thumbnails inside pages left away. Refused when it cannot be read, holds no picture, or
 * a page is larger than `MAX_MEGAPIXELS`: that is seen before anything is unpacked.
 */
export function readTiffPages(bytes: Uint8Array): Result<readonly TiffPage[]> {
  const directories = listDirectories(bytes);
  if (!directories || directories.length === 0) return refused('picture-not-understood');
  const pages = directories.map(pageOf);
  const large = pages.find(({ width, height }) => width * height > MAX_MEGAPIXELS * 1e6);
  if (large)
    return refused('picture-too-large', {
      megapixels: Math.round((large.width * large.height) / 1e6),
      most: MAX_MEGAPIXELS,
    });
  const small = pages.find(({ width, height }) => width < 8 || height < 8);
  return small ? refused('picture-too-small', { width: small.width, height: small.height }) : done(pages);
}

/** One page, unpacked. Refused as a whole, or with `picture-not-decoded` when its data ends early or is of a kind that is not read. */
export function decodeTiffPage(bytes: Uint8Array, index: number): Result<TiffPicture> {
  const pages = readTiffPages(bytes);
  if (!pages.ok) return pages;
  const directory = listDirectories(bytes)![index];
  const page = pages.value[index];
  if (
    !directory ||
    !page ||
    !hasSoundParts(directory, page, bytes) ||
    page.bits > MOST_BITS ||
    (page.isInk && page.bits !== 8) ||
    !isAsLargeAsSaid(bytes, directory, page)
  )
    return refused('picture-not-decoded');
  try {
    decodeImage(bufferOf(bytes), directory);
    const rows = rowsOf(directory, page);
    return rows(0, 1).length === 4 * page.width
      ? done({ ...page, rows, samples: directory.data })
      : refused('picture-not-decoded');
  } catch {
    return refused('picture-not-decoded');
  }
}

/** Where strips or tiles begin, and how long they are. */
function partsOf(directory: IFD): { readonly offsets: readonly number[]; readonly counts: readonly number[] } {
  const [offsets = [], counts = []] = (
    directory.t322 === undefined
      ? [directory.t273, directory.t279]
      : [directory.t324 ?? directory.t273, directory.t325 ?? directory.t279]
  ) as readonly (readonly number[] | undefined)[];
  return { offsets: [...offsets], counts: [...counts] };
}

/** Whether strips or tiles are of a size, as many as cover the page, and hold what a picture holds. */
function hasSoundParts(directory: IFD, { width, height }: TiffPage, bytes: Uint8Array): boolean {
  if (!PARTS.every((tag) => (numberAt(directory, tag) ?? 1) >= 1) || (numberAt(directory, 277) ?? 1) > MOST_SAMPLES)
    return false;
  const [across, down] = [numberAt(directory, 322), numberAt(directory, 323)];
  const { offsets, counts } = partsOf(directory);
  const count = offsets.length;
  if (!offsets.every((offset) => Number.isInteger(offset) && offset < bytes.length) || !counts.every(Number.isInteger))
    return false;
  if (DEFLATE.includes(numberAt(directory, 259)) && counts.length < count) return false;
  if (across === undefined) return count <= height;
  return (
    down !== undefined &&
    across * down <= MAX_MEGAPIXELS * 1e6 &&
    Math.ceil(width / across) * Math.ceil(height / down) <= count
  );
}

/** Compressions that unpack to as much as they like (Deflate, RFC 1951): the library takes all of it. */
const DEFLATE: readonly unknown[] = [8, 32946];
/** So much more than the picture holds may come out of all parts of it together: their last rows may be filled up. */
const SLACK = 4;
/** Compressed bytes that are unpacked at a time: of 4 KB come 4 MB at the most. */
const AT_ONCE = 4096;

/** Whether what is packed can be unpacked, and no more comes out of a page than it is large; looked at piece by piece, and none of it kept. The library goes round for ever in some of what cannot. */
function isAsLargeAsSaid(bytes: Uint8Array, directory: IFD, { width, height, bits }: TiffPage): boolean {
  if (!DEFLATE.includes(numberAt(directory, 259))) return true;
  const { offsets, counts } = partsOf(directory);
  let left = SLACK * (width * height * (numberAt(directory, 277) ?? 1) * Math.ceil(bits / 8) + 65_536);
  try {
    offsets.forEach((offset, i) => {
      const unpacking = new Inflate((part) => {
        left -= part.length;
        if (left < 0) throw new RangeError('larger than it says');
      });
      // The first two bytes are the header of zlib, the last four its sum.
      const end = offset + counts[i]! - 4;
      for (let at = offset + 2; at < end; at += AT_ONCE)
        unpacking.push(bytes.subarray(at, Math.min(end, at + AT_ONCE)), at + AT_ONCE >= end);
    });
    return true;
  } catch {
    return false;
  }
}

/** Rows are made into colours as they are asked for: all at once they would take as much memory again as the picture. */
function rowsOf(directory: IFD, page: TiffPage): TiffPicture['rows'] {
  const { data } = directory;
  const perRow = Math.floor(data.length / page.height);
  return (from, to) => {
    const strip = Object.assign(Object.create(directory) as IFD, {
      data: data.slice(perRow * from, perRow * to),
      width: page.width,
      height: to - from,
    });
    return (page.isInk ? lightOfInk(strip, page.width, to - from) : toRGBA8(strip)) as Uint8Array<ArrayBuffer>;
  };
}

/** The library wants the bytes at the beginning of a buffer of their own. */
const bufferOf = (bytes: Uint8Array) =>
  bytes.byteOffset === 0 && bytes.byteLength === bytes.buffer.byteLength
    ? (bytes.buffer as ArrayBuffer)
    : (bytes.slice().buffer as ArrayBuffer);

function listDirectories(bytes: Uint8Array): IFD[] | undefined {
  if (!isTiff(bytes) || !isSound(bytes)) return undefined;
  try {
    // Bit 0 of the subfile type says that a directory is a smaller copy of another one.
    return decode(bufferOf(bytes))
      .filter((directory) => numberAt(directory, 256) !== undefined && ((numberAt(directory, 254) ?? 0) & 1) === 0)
      .slice(0, MAX_PAGES);
  } catch {
    return undefined;
  }
}

/** Bytes of a value by its type (TIFF 6.0, section 2). */
const TYPE_SIZES: Readonly<Record<number, number>> = {
  1: 1,
  2: 1,
  3: 2,
  4: 4,
  5: 8,
  6: 1,
  7: 1,
  8: 2,
  9: 4,
  10: 8,
  11: 4,
  12: 8,
  13: 4,
};
/** Tags that point at further directories: of smaller copies, and of the camera's own tags. */
const POINTERS = [330, 34665, 34853];

/** Whether the directories form a tree within the file: the library follows them wherever they lead, round in circles too. */
function isSound(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const little = bytes[0] === 0x49;
  const seen = new Set<number>();
  const open = [view.byteLength >= 8 ? view.getUint32(4, little) : 0];
  for (let at = open.pop(); at !== undefined; at = open.pop()) {
    if (at === 0) continue;
    if (seen.has(at) || seen.size >= MAX_PAGES || at + 2 > view.byteLength) return false;
    seen.add(at);
    const count = view.getUint16(at, little);
    const next = at + 2 + 12 * count;
    if (next + 4 > view.byteLength) return false;
    for (let entry = at + 2; entry < next; entry += 12) {
      const [tag, type, values] = [
        view.getUint16(entry, little),
        view.getUint16(entry + 2, little),
        view.getUint32(entry + 4, little),
      ];
      const size = (TYPE_SIZES[type] ?? 1) * values;
      if (size > view.byteLength || (size > 4 && view.getUint32(entry + 8, little) + size > view.byteLength))
        return false;
      if (POINTERS.includes(tag) && values === 1) open.push(view.getUint32(entry + 8, little));
    }
    open.push(view.getUint32(next, little));
  }
  return true;
}

const INKS = 5;
const PER_CENTIMETRE = 3;
const LEAST_DPI = 20;

function pageOf(directory: IFD): TiffPage {
  const resolution = numberAt(directory, 282);
  const dpi = resolution && (numberAt(directory, 296) === PER_CENTIMETRE ? resolution * 2.54 : resolution);
  return {
    width: numberAt(directory, 256) ?? 0,
    height: numberAt(directory, 257) ?? 0,
    dpi: dpi && dpi >= LEAST_DPI ? dpi : undefined,
    orientation: numberAt(directory, 274) ?? 1,
    isInk: numberAt(directory, 262) === INKS,
    bits: numberAt(directory, 258) ?? 1,
    hasProfile: directory.t34675 !== undefined,
  };
}

/** Cyan, magenta, yellow and black, 8 bits each, as light: what each ink lets through, multiplied. No profile is followed. */
function lightOfInk(directory: IFD, width: number, height: number): Uint8Array {
  const samples = numberAt(directory, 277) ?? 4;
  const rgba = new Uint8Array(4 * width * height);
  for (let i = 0; i < width * height; i++) {
    const black = 255 - directory.data[samples * i + 3]!;
    for (let c = 0; c < 3; c++) rgba[4 * i + c] = Math.round(((255 - directory.data[samples * i + c]!) * black) / 255);
    rgba[4 * i + 3] = 255;
  }
  return rgba;
}

function numberAt(directory: IFD, tag: number): number | undefined {
  const value = directory[`t${tag}`] as readonly unknown[] | undefined;
  const [first] = value ?? [];
  const number = Array.isArray(first) ? Number(first[0]) / Number(first[1]) : Number(first);
  return value && Number.isFinite(number) ? number : undefined;
}
