import ExifReader from 'exifreader';

/** What a camera or scanner wrote into a picture file; every field only when it is there and makes sense. */
export interface PictureTags {
  readonly camera?: string;
  readonly focalMm?: number;
  readonly focal35mm?: number;
  readonly dpi?: number;
  /** As written: `2026:05:14 10:21:30`. */
  readonly time?: string;
  readonly orientation?: number;
}

interface Tag {
  readonly value?: unknown;
  readonly description?: unknown;
}

function numberOf(tag: Tag | undefined): number | undefined {
  const value = tag?.value;
  const number =
    Array.isArray(value) && value.length === 2
      ? Number(value[0]) / Number(value[1])
      : Number(Array.isArray(value) ? value[0] : value);
  return Number.isFinite(number) && number > 0 ? number : undefined;
}

/** A damaged tag may hold anything. */
const textOf = (tag: Tag | undefined) =>
  typeof tag?.description === 'string' ? tag.description.replace(/\0/g, '').trim() || undefined : undefined;

/** JPEG files without a resolution write a pixel ratio of 1 in its place. */
const LEAST_DPI = 20;

/** Dots per inch of a file's resolution tags; unit 3 is per centimetre (EXIF 2.3, ResolutionUnit). */
function dpiOf(tags: Record<string, Tag>): number | undefined {
  const resolution = numberOf(tags.XResolution);
  const perCentimetre = numberOf(tags.ResolutionUnit) === 3;
  const dpi = resolution && (perCentimetre ? resolution * 2.54 : resolution);
  return dpi && dpi >= LEAST_DPI ? dpi : undefined;
}

/** Reads EXIF and JFIF tags. Nothing when there are none or they are damaged: a picture without tags is still a picture. */
export function readPictureTags(bytes: Uint8Array): PictureTags {
  let tags: Record<string, Tag>;
  try {
    tags = ExifReader.load(bytes.slice().buffer) as unknown as Record<string, Tag>;
  } catch {
    return {};
  }
  const orientation = numberOf(tags.Orientation);
  const found = {
    camera: textOf(tags.Model),
    focalMm: numberOf(tags.FocalLength),
    focal35mm: numberOf(tags.FocalLengthIn35mmFilm),
    dpi: dpiOf(tags),
    time: textOf(tags.DateTimeOriginal) ?? textOf(tags.DateTime),
    orientation: orientation && orientation <= 8 ? orientation : undefined,
  };
  return Object.fromEntries(Object.entries(found).filter(([, value]) => value !== undefined));
}
