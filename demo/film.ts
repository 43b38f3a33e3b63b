/** Films the row of nest boxes: a walk along a fence, drawn frame by frame in the browser and recorded by it. Run: node --import tsx demo/film.ts */
import { writeFileSync } from 'node:fs';
import { chromium } from 'playwright-core';

const SECONDS = 4;

/** Runs in the page: boxes on posts in one-point perspective, the camera moving along; in the second second it is moved too fast and blurs. */
async function recorded(seconds: number): Promise<number[]> {
  const canvas = Object.assign(document.createElement('canvas'), { width: 960, height: 540 });
  const context = canvas.getContext('2d')!;
  const eye = (t: number) => 900 * t;
  const place = (x: number, y: number, z: number, t: number): [number, number] => {
    const [dx, depth] = [x - 260, z - eye(t)];
    const scale = 640 / Math.max(60, depth);
    return [480 + dx * scale, 280 - (y - 150) * scale];
  };
  const face = (points: readonly (readonly [number, number, number])[], colour: string, t: number) => {
    context.beginPath();
    points.forEach((p, i) => context[i === 0 ? 'moveTo' : 'lineTo'](...place(...p, t)));
    context.closePath();
    context.fillStyle = colour;
    context.fill();
    context.strokeStyle = '#2b2f27';
    context.stroke();
  };
  const box = (z: number, t: number) => {
    face(
      [
        [0, 0, z + 60],
        [16, 0, z + 60],
        [16, 120, z + 60],
        [0, 120, z + 60],
      ],
      '#6d5638',
      t,
    );
    face(
      [
        [60, 120, z],
        [60, 120, z + 170],
        [60, 340, z + 170],
        [60, 370, z],
      ],
      '#a97f50',
      t,
    );
    face(
      [
        [-90, 120, z],
        [60, 120, z],
        [60, 370, z],
        [-90, 370, z],
      ],
      '#c79a66',
      t,
    );
    face(
      [
        [-108, 370, z - 18],
        [78, 370, z - 18],
        [78, 338, z + 188],
        [-108, 338, z + 188],
      ],
      '#5d6a52',
      t,
    );
    const [x, y] = place(-15, 295, z, t);
    context.beginPath();
    context.arc(x, y, (16 * 640) / Math.max(60, z - eye(t)), 0, 7);
    context.fillStyle = '#22231e';
    context.fill();
  };
  const draw = (t: number) => {
    context.fillStyle = '#c9d8dc';
    context.fillRect(0, 0, 960, 280);
    context.fillStyle = '#8fa468';
    context.fillRect(0, 280, 960, 260);
    context.lineWidth = 1.6;
    for (const rail of [40, 90])
      face(
        [
          [-110, rail, eye(t) + 70],
          [-110, rail + 18, eye(t) + 70],
          [-110, rail + 18, 9000],
          [-110, rail, 9000],
        ],
        '#93805c',
        t,
      );
    for (let n = 8; n >= 0; n--) if (300 + 900 * n - eye(t) > 70) box(300 + 900 * n, t);
  };
  const stream = canvas.captureStream(30);
  const recorder = new MediaRecorder(stream, { mimeType: 'video/webm;codecs=vp8', videoBitsPerSecond: 2_500_000 });
  const parts: Blob[] = [];
  recorder.ondataavailable = ({ data }) => parts.push(data);
  recorder.start();
  const began = performance.now();
  await new Promise<void>((resolve) => {
    const step = () => {
      const t = (performance.now() - began) / 1000;
      draw(t * 0.8);
      // Shaken: the picture over itself, shifted.
      if (t > 1 && t < 2)
        for (const shift of [3, 6, 9, 12]) {
          context.globalAlpha = 0.5;
          context.drawImage(canvas, shift, shift / 3);
          context.globalAlpha = 1;
        }
      if (t < seconds) requestAnimationFrame(step);
      else resolve();
    };
    step();
  });
  await new Promise((resolve) => {
    recorder.onstop = resolve;
    recorder.stop();
  });
  return [...new Uint8Array(await new Blob(parts).arrayBuffer())];
}

async function main(): Promise<void> {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--headless', '--no-sandbox', '--disable-gpu'],
  });
  const page = await browser.newPage();
  // The transpiler names functions with a helper that the page does not have.
  await page.addInitScript('globalThis.__name = (f) => f');
  await page.goto('about:blank');
  const bytes = await page.evaluate(recorded, SECONDS);
  await browser.close();
  writeFileSync('public/demo/nest-boxes.webm', Buffer.from(bytes));
  console.log(`nest-boxes.webm: ${(bytes.length / 1e6).toFixed(2)} MB`);
}

void main();
