/** Small pictures of the demo jobs for the first screen: the middle of the first picture of each. */
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import jpeg from 'jpeg-js';
import { sha256Hex } from '../src/core/pictures';
import type { Job } from '../src/core/job';

const FOLDER = 'public/demo';
/** Twice as large as they are shown, 4:3. */
const [WIDTH, HEIGHT] = [208, 156] as const;
/** A job without pictures shows what can be brought into it. */
const INSTEAD = 'shed-sketch.jpg';

/** A picture cut to 4:3 about its middle and made small, each pixel the mean of those that it stands for. */
function madeSmall({
  width,
  height,
  data,
}: {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}): Buffer {
  const share = Math.min(width / WIDTH, height / HEIGHT);
  const [left, top] = [(width - share * WIDTH) / 2, (height - share * HEIGHT) / 2];
  const small = Buffer.alloc(4 * WIDTH * HEIGHT, 255);
  for (let i = 0; i < WIDTH * HEIGHT; i++) {
    const [x, y] = [i % WIDTH, Math.floor(i / WIDTH)];
    const [x0, x1, y0, y1] = [left + x * share, left + (x + 1) * share, top + y * share, top + (y + 1) * share].map(
      Math.floor,
    ) as [number, number, number, number];
    const sums = [0, 0, 0];
    for (let v = y0; v < Math.max(y1, y0 + 1); v++)
      for (let u = x0; u < Math.max(x1, x0 + 1); u++)
        for (let c = 0; c < 3; c++) sums[c]! += data[4 * (v * width + u) + c]!;
    const count = Math.max(1, x1 - x0) * Math.max(1, y1 - y0);
    sums.forEach((sum, c) => (small[4 * i + c] = Math.round(sum / count)));
  }
  return small;
}

export function writeCards(): void {
  const files = readdirSync(FOLDER);
  const byHash = new Map(
    files.filter((file) => file.endsWith('.jpg')).map((file) => [sha256Hex(readFileSync(`${FOLDER}/${file}`)), file]),
  );
  const small = new Map<string, Buffer>();
  const cardOf = (file: string) => {
    const card =
      small.get(file) ??
      jpeg.encode(
        {
          width: WIDTH,
          height: HEIGHT,
          data: madeSmall(
            jpeg.decode(readFileSync(`${FOLDER}/${file}`), { useTArray: true, maxMemoryUsageInMB: 2048 }),
          ),
        },
        80,
      ).data;
    small.set(file, card);
    return card;
  };
  mkdirSync(`${FOLDER}/cards`, { recursive: true });
  for (const file of files.filter((name) => name.endsWith('.json'))) {
    const {
      sheets: [first],
    } = JSON.parse(readFileSync(`${FOLDER}/${file}`, 'utf8')) as Job;
    writeFileSync(
      `${FOLDER}/cards/${file.replace('.json', '.jpg')}`,
      cardOf((first && byHash.get(first.picture)) ?? INSTEAD),
    );
  }
}
