/** Figures for what comes in large: a scan of 70 megapixels, a drawing of 200,000 entities. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Browser } from 'playwright-core';

type Row = (what: string, measured: string, budget: string) => void;

/** An A3 sheet at 600 dots an inch in colour, with strokes and dirt on it, written by Debian's python3-pil. */
function largeScan(folder: string): string {
  const file = path.join(folder, 'scan.tif');
  const script = `
import sys, random
from PIL import Image, ImageDraw
random.seed(5); w, h = 9921, 7016
sheet = Image.linear_gradient('L').resize((w, h)).point(lambda v: 210 + v // 8); draw = ImageDraw.Draw(sheet)
for _ in range(400): draw.line([random.randrange(w), random.randrange(h), random.randrange(w), random.randrange(h)], fill=40, width=6)
for _ in range(20000):
    x, y = random.randrange(w), random.randrange(h); draw.ellipse([x, y, x + random.randrange(2, 7), y + random.randrange(2, 7)], fill=80)
Image.merge('RGB', (sheet, sheet, sheet)).save(sys.argv[1], compression='tiff_deflate', dpi=(600, 600))`;
  execFileSync('/usr/bin/python3', ['-c', script, file]);
  return file;
}

function largeDrawing(folder: string, entities: number): string {
  const file = path.join(folder, 'town.dxf');
  const lines = Array.from({ length: entities }, (_, i) => {
    const [x, y] = [(i % 500) * 2, Math.floor(i / 500) * 2];
    return `0\nLINE\n8\n${i % 12}\n10\n${x}\n20\n${y}\n11\n${x + 1.6}\n21\n${y + (i % 3)}\n`;
  });
  writeFileSync(
    file,
    `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n6\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${lines.join('')}0\nENDSEC\n0\nEOF\n`,
  );
  return file;
}

/** The most memory that any page's process of this machine had at once, MB (Linux: VmHWM). */
function peakOfPages(): number {
  const peaks = readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map((pid) => {
      try {
        if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('--type=renderer')) return 0;
        return Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
      } catch {
        return 0;
      }
    });
  return Math.max(...peaks);
}

const seconds = (from: number) => `${((performance.now() - from) / 1000).toFixed(1)} s`;

export async function measureSources(browser: Browser, home: string, row: Row): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), 'bryony-bench-'));
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(home);
  await page.getByTestId('new-job').click();
  const scan = largeScan(folder);
  let began = performance.now();
  await page.getByTestId('picture-files').setInputFiles(scan);
  await page.getByRole('button', { name: /^scan, / }).waitFor({ timeout: 180_000 });
  row('a 70 MP TIFF in colour, from chosen to shown', seconds(began), '5 s');
  row('the most memory of the page meanwhile', `${Math.round(peakOfPages())} MB`, '900 MB');
  await page.getByTestId('step-sources').click();
  await page.getByTestId('panel-clean').click();
  await page.getByTestId('specks-field').fill('8 px');
  began = performance.now();
  await page.getByText(/would go\.$/).waitFor({ timeout: 180_000 });
  row('specks counted on 70 MP', seconds(began), 'no budget');
  await page.getByTestId('remove-specks').click();
  await page.getByTestId('even-out').click();
  began = performance.now();
  await page.getByText(/^Cleaning …/).waitFor();
  await page.getByText('What was done').waitFor({ timeout: 180_000 });
  row('70 MP made even and its specks taken away', seconds(began), 'no budget');
  row('the most memory of the page by then', `${Math.round(peakOfPages())} MB`, 'stated beside the above');
  await page.close();

  const drawing = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await drawing.goto(home);
  await drawing.getByTestId('new-job').click();
  began = performance.now();
  await drawing.getByTestId('picture-files').setInputFiles(largeDrawing(folder, 200_000));
  await drawing
    .getByText(/200000 lines and curves/)
    .first()
    .waitFor({ timeout: 120_000 });
  row('a DXF of 200,000 lines, from chosen to read', seconds(began), 'no budget');
  await drawing.getByTestId('look-at-reference').click();
  began = performance.now();
  await drawing.getByTestId('reference-ink').first().waitFor({ state: 'attached', timeout: 60_000 });
  row('its ink made', seconds(began), 'no budget');
  await drawing.close();
}
