import jpeg from 'jpeg-js';
import type { Picture } from './render';

export interface Tags {
  readonly camera: string;
  readonly focalMm: number;
  readonly focal35mm: number;
  readonly time: string;
}

type Field = readonly [tag: number, type: 2 | 3 | 4 | 5, value: number | string];

/** A JPEG with the EXIF tags that a phone writes. */
export function encodePhoto(picture: Picture, tags: Tags, quality: number): Uint8Array {
  const plain = Buffer.from(encodePicture(picture, quality));
  const exif = exifSegment(tags);
  return Buffer.concat([plain.subarray(0, 2), exif, plain.subarray(2)]);
}

/** A JPEG that says nothing of where it comes from. */
export const encodePicture = (picture: Picture, quality: number): Uint8Array =>
  jpeg.encode({ ...picture, data: Buffer.from(picture.data.buffer) }, quality).data;

/** A JPEG as a scanner writes it: its header states the dots per inch (JFIF 1.02, the density of the APP0 segment). */
export function encodeScan(picture: Picture, dpi: number, quality: number): Uint8Array {
  const bytes = Buffer.from(encodePicture(picture, quality));
  const header = bytes.indexOf('JFIF\0', 0, 'latin1');
  bytes.writeUInt8(1, header + 7);
  bytes.writeUInt16BE(dpi, header + 8);
  bytes.writeUInt16BE(dpi, header + 10);
  return bytes;
}

/** An APP1 segment with a TIFF header, one directory and its EXIF directory (EXIF 2.3, section 4). */
function exifSegment(tags: Tags): Buffer {
  const body = Buffer.alloc(512);
  body.write('Exif\0\0', 0, 'latin1');
  const tiff = body.subarray(6);
  tiff.write('MM\0*', 0, 'latin1');
  tiff.writeUInt32BE(8, 4);
  const exifAt = 120;
  writeDirectory(tiff, 8, 220, [
    [0x0110, 2, tags.camera],
    [0x0112, 3, 1],
    [0x8769, 4, exifAt],
  ]);
  writeDirectory(tiff, exifAt, 320, [
    [0x9003, 2, tags.time],
    [0x920a, 5, tags.focalMm],
    [0xa405, 3, tags.focal35mm],
  ]);
  const head = Buffer.from([0xff, 0xe1, 0, 0]);
  head.writeUInt16BE(body.length + 2, 2);
  return Buffer.concat([head, body]);
}

function writeDirectory(tiff: Buffer, at: number, dataAt: number, fields: readonly Field[]): void {
  tiff.writeUInt16BE(fields.length, at);
  let free = dataAt;
  fields.forEach(([tag, type, value], i) => {
    const entry = at + 2 + 12 * i;
    const text = typeof value === 'string' ? `${value}\0` : '';
    tiff.writeUInt16BE(tag, entry);
    tiff.writeUInt16BE(type, entry + 2);
    tiff.writeUInt32BE(type === 2 ? text.length : 1, entry + 4);
    if (type === 3) tiff.writeUInt16BE(value as number, entry + 8);
    else if (type === 4) tiff.writeUInt32BE(value as number, entry + 8);
    else {
      tiff.writeUInt32BE(free, entry + 8);
      if (type === 2) tiff.write(text, free, 'latin1');
      else {
        tiff.writeUInt32BE(Math.round((value as number) * 1000), free);
        tiff.writeUInt32BE(1000, free + 4);
      }
      free += 40;
    }
  });
}
