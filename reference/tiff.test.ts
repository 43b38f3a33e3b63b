/** TIFF files of every usual kind, written and read by Debian's python3-pil as a second opinion. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { deflateSync } from 'node:zlib';

import { decodeTiffPage, readTiffPages } from '../src/core/pictures';

const folder = mkdtempSync(path.join(tmpdir(), 'tiff-'));
const [WIDTH, HEIGHT] = [61, 47];
const SCRIPT = `
import sys
from PIL import Image
w, h, out = ${WIDTH}, ${HEIGHT}, sys.argv[1]
color = Image.new('RGB', (w, h)); color.putdata([((7 * x + 3 * y) % 256, (x * y) % 256, (5 * y) % 256) for y in range(h) for x in range(w)])
def save(name, im, **options):
    im.save(f'{out}/{name}.tif', dpi=(300, 300), **options)
    open(f'{out}/{name}.raw', 'wb').write(Image.open(f'{out}/{name}.tif').convert('RGBA').tobytes())
for compression in [None, 'tiff_lzw', 'tiff_deflate', 'packbits']:
    for mode in ['L', 'RGB', 'RGBA', 'P', '1']: save(f'{mode}-{compression}', color.convert(mode), compression=compression)
for compression in ['group3', 'group4']: save(f'1-{compression}', color.convert('1'), compression=compression)
save('RGB-jpeg', color.resize((64, 48)), compression='jpeg', quality=95)
save('CMYK-None', color.convert('CMYK'))
deep = Image.new('I;16', (w, h)); deep.putdata([(1031 * x + 577 * y) % 65536 for y in range(h) for x in range(w)])
deep.save(f'{out}/I;16-None.tif'); open(f'{out}/I;16-None.raw', 'wb').write(bytes(v for y in range(h) for x in range(w) for v in ([((1031 * x + 577 * y) % 65536) >> 8] * 3 + [255])))
color.save(f'{out}/pages.tif', save_all=True, append_images=[color.convert('L').resize((40, 30)), color.convert('1')], resolution=118.11, resolution_unit=3)
tags = Image.Exif(); tags[274] = 6
color.save(f'{out}/turned.tif', exif=tags)
`;
execFileSync('/usr/bin/python3', ['-c', SCRIPT, folder]);
const bytesOf = (name: string) => new Uint8Array(readFileSync(path.join(folder, name)));

function decoded(name: string, page = 0) {
  const picture = decodeTiffPage(bytesOf(`${name}.tif`), page);
  if (!picture.ok) throw new Error(`${name}: ${picture.code}`);
  return picture.value;
}

const plain = ['L', 'RGB', 'RGBA', 'P', '1'].flatMap((mode) =>
  ['None', 'tiff_lzw', 'tiff_deflate', 'packbits'].map((compression) => `${mode}-${compression}`),
);
it.each([...plain, '1-group3', '1-group4', 'I;16-None'])('every pixel of %s comes in as it is', (name) => {
  const { width, height, rows } = decoded(name);
  expect([width, height]).toEqual([WIDTH, HEIGHT]);
  expect(Buffer.concat([rows(0, 7), rows(7, height)]).equals(readFileSync(path.join(folder, `${name}.raw`)))).toBe(
    true,
  );
});

it.each(['RGB-jpeg', 'CMYK-None'])('%s comes in within what its kind allows', (name) => {
  const { rows, height, isInk } = decoded(name);
  const rgba = rows(0, height);
  const theirs = readFileSync(path.join(folder, `${name}.raw`));
  expect(rgba.length).toBe(theirs.length);
  expect(Math.max(...rgba.map((value, i) => Math.abs(value - theirs[i]!)))).toBeLessThan(6);
  expect(isInk).toBe(name === 'CMYK-None');
});

it('pages come in one by one, with resolution and orientation', () => {
  expect(readTiffPages(bytesOf('pages.tif'))).toMatchObject({
    ok: true,
    value: [
      { width: 61, height: 47, dpi: expect.closeTo(300, 0) },
      { width: 40, height: 30 },
      { width: 61, bits: 1 },
    ],
  });
  expect(decoded('pages', 1).rows(0, 30)).toHaveLength(4 * 40 * 30);
  expect(readTiffPages(bytesOf('turned.tif'))).toMatchObject({ ok: true, value: [{ orientation: 6 }] });
  expect(readTiffPages(bytesOf('RGB-None.tif'))).toMatchObject({ ok: true, value: [{ dpi: 300 }] });
});

it('a file that ends early, claims the moon, or goes round in circles is refused', () => {
  const whole = bytesOf('RGB-tiff_lzw.tif');
  expect(decodeTiffPage(whole.slice(0, 400), 0).ok).toBe(false);
  expect(readTiffPages(new Uint8Array([0x49, 0x49, 42, 0]))).toMatchObject({
    ok: false,
    code: 'picture-not-understood',
  });
  expect(decodeTiffPage(whole, 7)).toMatchObject({ ok: false });
  const directory = new DataView(whole.buffer).getUint32(4, true);
  const count = new DataView(whole.buffer).getUint16(directory, true);
  const moon = whole.slice();
  const view = new DataView(moon.buffer);
  for (let i = 0; i < count; i++) {
    const at = directory + 2 + 12 * i;
    if (![256, 257].includes(view.getUint16(at, true))) continue;
    view.setUint16(at + 2, 4, true);
    view.setUint32(at + 8, 65_000, true);
  }
  expect(readTiffPages(moon)).toMatchObject({ ok: false, code: 'picture-too-large', detail: { megapixels: 4225 } });
  const circle = whole.slice();
  new DataView(circle.buffer).setUint32(directory + 2 + 12 * count, directory, true);
  expect(readTiffPages(circle)).toMatchObject({ ok: false, code: 'picture-not-understood' });
});

it.each([278, 322, 323])(
  'strips and tiles of no size at all (tag %i) are refused, not gone through for ever',
  (tag) => {
    const bytes = bytesOf('RGB-None.tif');
    const view = new DataView(bytes.buffer);
    const directory = view.getUint32(4, true);
    const entries = Array.from({ length: view.getUint16(directory, true) }, (_, i) => directory + 2 + 12 * i);
    const rowsOfStrip = entries.find((entry) => view.getUint16(entry, true) === 278)!;
    view.setUint16(rowsOfStrip, tag, true);
    view.setUint32(rowsOfStrip + 8, 0, true);
    expect(decodeTiffPage(bytes, 0)).toMatchObject({ ok: false, code: 'picture-not-decoded' });
  },
);

it('a strip that would unpack to far more than the page holds is refused before it does', () => {
  const zeros = deflateSync(new Uint8Array(300_000_000));
  expect(zeros.length).toBeLessThan(400_000);
  const bytes = bytesOf('RGB-tiff_deflate.tif');
  const bomb = new Uint8Array(bytes.length + zeros.length);
  bomb.set(bytes);
  bomb.set(zeros, bytes.length);
  const view = new DataView(bomb.buffer);
  const directory = view.getUint32(4, true);
  for (let entry = directory + 2; entry < directory + 2 + 12 * view.getUint16(directory, true); entry += 12) {
    const tag = view.getUint16(entry, true);
    if (tag === 273) view.setUint32(entry + 8, bytes.length, true);
    if (tag !== 279) continue;
    view.setUint16(entry + 2, 4, true);
    view.setUint32(entry + 8, zeros.length, true);
  }
  const before = process.memoryUsage().rss;
  expect(decodeTiffPage(bomb, 0)).toMatchObject({ ok: false, code: 'picture-not-decoded' });
  expect(process.memoryUsage().rss - before).toBeLessThan(150e6);
});
