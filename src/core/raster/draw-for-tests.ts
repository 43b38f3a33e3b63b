import type { ColourPicture } from './colour-picture';

/** A picture of what `shade` says, each pixel the mean of 8 × 8 places in it, with noise from a small generator. */
export function draw(
  width: number,
  height: number,
  noise: number,
  seed: number,
  shade: (x: number, y: number) => number,
): ColourPicture {
  let state = seed;
  const uniform = () => ((state = (Math.imul(state, 1664525) + 1013904223) >>> 0) + 0.5) / 4294967296;
  const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
  const data = new Uint8Array(3 * width * height);
  for (let i = 0; i < width * height; i++) {
    const tone = toneOf(shade, i % width, Math.floor(i / width));
    for (let c = 0; c < 3; c++) data[3 * i + c] = Math.max(0, Math.min(255, Math.round(tone + noise * normal())));
  }
  return { width, height, data };
}

type Shade = (x: number, y: number) => number;

/** What a pixel sees of a scene: the mean of 8 × 8 places in it; where nine of them, its corners among them, are alike, that. */
function toneOf(shade: Shade, x: number, y: number): number {
  const first = shade(x, y);
  let isEven = true;
  for (let k = 1; k < 9 && isEven; k++) isEven = shade(x + (k % 3) / 2, y + Math.floor(k / 3) / 2) === first;
  if (isEven) return first;
  let sum = 0;
  for (let k = 0; k < 64; k++) sum += shade(x + ((k % 8) + 0.5) / 8, y + (Math.floor(k / 8) + 0.5) / 8);
  return sum / 64;
}
