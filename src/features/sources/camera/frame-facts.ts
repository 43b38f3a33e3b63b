import { focalOf } from '@/core/calibrate';
import { crossingOfLines, distance, lineThrough, type Vec } from '@/core/geometry';
import { colourPictureFrom, createPyramid, findSides, grayFrom, judgeStill, listFrames } from '@/core/raster';
import type { LivePicture } from './camera';

/** What a look at the live picture tells. */
export interface FrameFacts {
  /** Of the frame's longer way, the share that the things in it take; undefined when nothing stands out. */
  readonly fill: number | undefined;
  readonly sharpness: number;
}

const LOOK_WIDTH = 320;

function grabbed({ source, size }: LivePicture, width: number): ImageData | undefined {
  const [w, h] = size();
  if (!(w > 0)) return undefined;
  const canvas = new OffscreenCanvas(width, Math.round((width * h) / w));
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(source, 0, 0, canvas.width, canvas.height);
  return context.getImageData(0, 0, canvas.width, canvas.height);
}

export function lookAtFrame(live: LivePicture): FrameFacts | undefined {
  const image = grabbed(live, LOOK_WIDTH);
  if (!image) return undefined;
  const gray = grayFrom(image.width, image.height, image.data);
  const corners = listFrames(gray, 0).flat();
  const reach = (axis: 0 | 1, size: number) =>
    (Math.max(...corners.map((p) => p[axis])) - Math.min(...corners.map((p) => p[axis]))) / size;
  return {
    fill: corners.length > 0 ? Math.max(reach(0, image.width), reach(1, image.height)) : undefined,
    sharpness: judgeStill(gray).sharpness,
  };
}

/** A bank card (ISO/IEC 7810 ID-1), mm. */
const CARD = [85.6, 53.98] as const;
const CARD_WIDTH = 960;

export interface CardSeen {
  /** From the camera to the card, mm. Without a focal length from the one that phones usually have: good to a fifth, and twice too little through a long lens. */
  readonly distance: number;
  /** mm to a pixel of the full picture. */
  readonly perPixel: number;
  /** How much longer one of two opposite sides looks: 0 when square-on. */
  readonly slant: number;
}

/** The card around a place of the live picture (shares of its width and height); undefined when there is none. */
export function findCard(live: LivePicture, [u, v]: Vec): CardSeen | undefined {
  const image = grabbed(live, CARD_WIDTH);
  if (!image) return undefined;
  const sides = findSides(createPyramid(colourPictureFrom(image.width, image.height, image.data)), [
    u * image.width,
    v * image.height,
  ]);
  if (!sides) return undefined;
  // A card's corners are round: its size is told by where its sides would cross.
  const lines = sides.map((side) => lineThrough(side.map(({ at }) => at)));
  const corners = lines.map((line, i) => crossingOfLines(lines[(i + 3) % 4]!, line));
  const lengths = corners.map((corner, i) => distance(corner, corners[(i + 1) % 4]!));
  const [long, short] = [(lengths[0]! + lengths[2]!) / 2, (lengths[1]! + lengths[3]!) / 2];
  const slant = Math.max(Math.abs(lengths[0]! - lengths[2]!) / long, Math.abs(lengths[1]! - lengths[3]!) / short);
  const [width, height] = live.size();
  const inPixels = (long / image.width) * width;
  const focal =
    (focalOf({ width, height, kind: 'photo', ...(live.focal35mm && { focal35mm: live.focal35mm }) }) *
      Math.hypot(width, height)) /
    2;
  return { distance: (CARD[0] / inPixels) * focal, perPixel: CARD[0] / inPixels, slant };
}
