import type { Vec } from '../geometry';
import type { Fit } from './fit';
import { isInFront, toPlane, type SheetMap } from './sheet-map';

/** What would be drawn larger than this against the middle of the picture, one way, is left away: it lies near the horizon. */
const LARGEST = 5;
/** Places a side at which it is looked how far the picture reaches. */
const PLACES = 9;

/** Sheet pixels a millimetre of the plane in the middle of the picture. */
export function scaleInMiddle({ map, picture }: Pick<Fit, 'map' | 'picture'>): number {
  return 1 / Math.sqrt(areaOfPixel(map, [picture.width / 2, picture.height / 2]));
}

/** Area of a sheet pixel on the plane, mm². */
function areaOfPixel(map: SheetMap, [x, y]: Vec): number {
  const [o, a, b] = [
    [x - 0.5, y - 0.5],
    [x + 0.5, y - 0.5],
    [x - 0.5, y + 0.5],
  ].map((p) => toPlane(map, p as unknown as Vec)) as [Vec, Vec, Vec];
  return Math.abs((a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]));
}

/** Whether a sheet place can be squared up at a scale: it lies in front of the horizon, and is not drawn out beyond use. */
export function canSquareUp(map: SheetMap, perMm: number, sheet: Vec): boolean {
  return isInFront(map, sheet) && areaOfPixel(map, sheet) * perMm * perMm < LARGEST * LARGEST;
}

/** A picture squared up: where its upper left corner lies on the plane (mm, y up), its pixels a mm, and its size in pixels. */
export interface SquaredFrame {
  readonly corner: Vec;
  readonly perMm: number;
  readonly width: number;
  readonly height: number;
}

/** The frame that holds all of a picture that can be squared up, as fine as its middle, or as coarse as `mostPixels` ask for. */
export function squaredFrame(fit: Fit, mostPixels: number): SquaredFrame {
  const native = scaleInMiddle(fit);
  const { width, height } = fit.picture;
  const shares = Array.from({ length: PLACES }, (_, i) => i / (PLACES - 1));
  const places = shares
    .flatMap((u) => shares.map((v): Vec => [u * width, v * height]))
    .filter((sheet) => canSquareUp(fit.map, native, sheet))
    .map(fit.toPlane);
  const [xs, ys] = [places.map((p) => p[0]), places.map((p) => p[1])];
  const [left, right, low, high] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const perMm = Math.min(native, Math.sqrt(mostPixels / ((right - left) * (high - low))));
  return {
    corner: [left, high],
    perMm,
    width: Math.ceil((right - left) * perMm),
    height: Math.ceil((high - low) * perMm),
  };
}
