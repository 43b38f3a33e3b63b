import { done, isWithinReach, refused, type Result } from '../basics';
import type { Affine, Vec } from '../geometry';

/**
 * The six lines of a world file, which say where a picture lies: size of a pixel across, two turns, size down (negative, since rows
 * run down), and the place of the middle of the upper left pixel. In the unit of `corner`, the outer corner of that pixel.
 * Common practice; there is no standard.
 */
export function writeWorldFile(corner: Vec, perUnit: number): string {
  const pixel = 1 / perUnit;
  return `${[pixel, 0, 0, -pixel, corner[0] + pixel / 2, corner[1] - pixel / 2].map((value) => value.toFixed(10)).join('\n')}\n`;
}

/** From sheet pixels (outer corners, y down) to the map that a world file speaks of, in its unit. Refused when it is no such file. */
export function readWorldFile(text: string): Result<Affine> {
  const lines = text
    .trim()
    .split(/\s+/)
    .map((line) => Number(line.replace(',', '.')));
  if (lines.length !== 6 || !lines.every(isWithinReach)) return refused('world-file-not-understood');
  const [a, b, c, d, e, f] = lines as [number, number, number, number, number, number];
  const map: Affine = [a, b, c, d, e - (a + c) / 2, f - (b + d) / 2];
  return a * d - b * c === 0 || !map.every(isWithinReach) ? refused('world-file-not-understood') : done(map);
}

const ENDINGS = ['jgw', 'pgw', 'tfw', 'wld', 'jpgw', 'pngw', 'tifw', 'tiffw', 'jpegw'];
export const isWorldFileName = (name: string) => ENDINGS.includes(name.split('.').pop()?.toLowerCase() ?? '');
