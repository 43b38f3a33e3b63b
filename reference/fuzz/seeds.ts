/** Whole files of every kind that comes in, to be spoilt. */
import { readFileSync } from 'node:fs';
import { zlibSync } from 'fflate';
import { createDeriver, drawingOf } from '../../src/core/derive';
import { writeBundle, writeDxf, writeSvg, type Drawing } from '../../src/core/formats';
import { sha256Hex } from '../../src/core/pictures';
import type { Job } from '../../src/core/job';
import type { Kind } from './readers';

const bytesOf = (text: string) => new TextEncoder().encode(text);
const jobOf = (name: string) => JSON.parse(readFileSync(`public/demo/${name}.json`, 'utf8')) as Job;

function drawn(name: string): Drawing {
  const job = jobOf(name);
  const drawing = drawingOf(job, createDeriver()(job), { plane: job.views[0]!.plane });
  if (!drawing.ok) throw new Error(drawing.code);
  return drawing.value;
}

const SVG = `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="80mm" viewBox="0 0 1200 800"><defs><g id="part"><circle cx="40" cy="40" r="20"/></g></defs><style>.a{display:none}</style>
<g transform="rotate(30 100 100) scale(2,.5) matrix(1 0 .2 1 5 6)" data-layer="A &amp; B"><path d="M10 10h50v-20l5 5c1 2 3 4 5 6s7 8 9 10q1 2 3 4t5 6a10 20 30 1 0 40 40z"/><rect x="1" y="2" width="30" height="40" rx="5"/><ellipse cx="5" cy="6" rx="7" ry="8"/>
<line x1="0" y1="0" x2="9" y2="9"/><polyline points="1,2 3,4 5,6"/><polygon points="1 2 3 4 5 6"/></g><use href="#part" x="5" y="6"/><text x="4">hidden</text></svg>`;

const GEOJSON = JSON.stringify({
  type: 'FeatureCollection',
  features: [
    {
      type: 'Feature',
      properties: { layer: 'walls' },
      geometry: {
        type: 'Polygon',
        coordinates: [
          [
            [9.01, 48.5],
            [9.02, 48.5],
            [9.02, 48.51],
            [9.01, 48.5],
          ],
        ],
      },
    },
    {
      type: 'Feature',
      properties: { name: 'way' },
      geometry: {
        type: 'GeometryCollection',
        geometries: [
          {
            type: 'MultiLineString',
            coordinates: [
              [
                [9.01, 48.5],
                [9.015, 48.505],
              ],
            ],
          },
          { type: 'Point', coordinates: [9, 48] },
        ],
      },
    },
  ],
});

/** The smallest whole TIFF of a grey ramp, as TIFF 6.0 has it: strips, one of them deflated. */
function tiff(isDeflated: boolean): Uint8Array {
  const pixels = Uint8Array.from({ length: 256 }, (_, i) => i);
  const data = isDeflated ? zlibSync(pixels) : pixels;
  const tags = [
    [256, 16],
    [257, 16],
    [258, 8],
    [259, isDeflated ? 8 : 1],
    [262, 1],
    [273, 8],
    [277, 1],
    [278, 16],
    [279, data.length],
  ] as const;
  const at = 8 + data.length + (data.length % 2);
  const bytes = new Uint8Array(at + 2 + 12 * tags.length + 4);
  const view = new DataView(bytes.buffer);
  bytes.set([0x49, 0x49, 42, 0]);
  view.setUint32(4, at, true);
  bytes.set(data, 8);
  view.setUint16(at, tags.length, true);
  tags.forEach(([tag, value], i) => {
    const entry = at + 2 + 12 * i;
    view.setUint16(entry, tag, true);
    view.setUint16(entry + 2, 4, true);
    view.setUint32(entry + 4, 1, true);
    view.setUint32(entry + 8, value, true);
  });
  return bytes;
}

const PROBLEM = JSON.stringify({
  name: 'plate',
  image: { width: 4000, height: 3000 },
  sheet: 'photo',
  model: 'auto',
  clickSigmaPx: 0.5,
  points: {
    a: [500, 500],
    b: [1300, 520],
    c: { at: [1290, 1010], again: [[1291, 1009]] },
    d: [505, 1000],
    e: [2000, 2000],
    f: [3000, 2100],
  },
  evidence: [
    { id: 'card', kind: 'rectangle', corners: ['a', 'b', 'c', 'd'], widthMm: 85.6, heightMm: 53.98, sigmaMm: 0.1 },
    { id: 'rule', kind: 'length', from: 'e', to: 'f', mm: 108, sigmaMm: 0.2 },
  ],
  ask: { lengths: [['a', 'f']], points: ['e'] },
});

/** Two scans of one thing. */
const SPACE = JSON.stringify({
  name: 'box',
  kind: 'space',
  views: (['front', 'top'] as const).map((side) => ({
    id: side,
    image: { width: 2000, height: 1500 },
    sheet: 'drawing',
    side,
    points: { a: [300, 1200], b: [1500, 1210], c: { at: [1490, 400], sigma: 0.5 }, d: [310, 405] },
    evidence: [{ id: 'w', kind: 'length', from: 'a', to: 'b', mm: 150, sigma: 0.2 }],
  })),
  features: {
    A: { seen: { front: ['a'], top: ['a'] }, mm: [0, 0, 0] },
    B: { seen: { front: ['b'], top: ['b'] }, mm: [150, null, null], sigma: 0.5 },
    C: { seen: { front: ['c'], top: ['d'] } },
    base: { only: 'up', seen: { front: ['a', 'b'] } },
    top: { only: 'up', seen: { front: ['c', 'd'] } },
  },
  evidence: [
    { id: 'h', kind: 'distance', along: 'up', from: 'base', to: 'top', mm: 101 },
    { id: 'far', kind: 'distance', from: 'A', to: 'C', mm: 180, guess: true },
    { id: 'level', kind: 'same', along: ['deep'], of: ['A', 'B'] },
  ],
  ask: { distances: [['A', 'B']], features: ['B'] },
});

const photo = () => new Uint8Array(readFileSync('public/demo/stones.jpg')).slice(0, 20_000);

export function seedsOf(kind: Kind): readonly Uint8Array[] {
  switch (kind) {
    case 'dxf':
      return [bytesOf(writeDxf(drawn('blade-finished'), 'mm')), new Uint8Array(readFileSync('public/demo/pond.dxf'))];
    case 'svg':
      return [bytesOf(SVG), bytesOf(writeSvg(drawn('nest-half'), 'mm'))];
    case 'geojson':
      return [bytesOf(GEOJSON)];
    case 'tiff':
      return [tiff(false), tiff(true)];
    case 'picture':
      return [photo(), tiff(false)];
    case 'job':
      return ['blade-start', 'blade-finished', 'nest-half', 'shed', 'hanger'].map((name) =>
        bytesOf(JSON.stringify(jobOf(name))),
      );
    case 'bundle': {
      const picture = photo();
      const job = jobOf('blade-finished');
      const sheets = job.sheets.map((sheet) => ({ ...sheet, picture: sha256Hex(picture) }));
      return [writeBundle({ job: { ...job, sheets }, pictures: new Map([[sha256Hex(picture), picture]]) })];
    }
    case 'solve':
      return [bytesOf(PROBLEM), bytesOf(SPACE)];
    case 'length':
      return [
        '412 mm',
        `14"`,
        '5/16 in',
        `1' 4 1/2"`,
        '7 + 3 5/8 in',
        '2 × (19.05 − 1/8") / 3',
        '1,234.5 ± 0.2 mm',
      ].map(bytesOf);
    case 'angle':
      return ['30°', '1:12', '12 %', '30° 15\' 20"', '0.5 rad'].map(bytesOf);
    case 'world':
      return [bytesOf('0.5\n0\n0\n-0.5\n523400.25\n5391200.75\n')];
  }
}
