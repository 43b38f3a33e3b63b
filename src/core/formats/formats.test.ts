import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { createDeriver, drawingOf } from '../derive';
import { distance, nearestOn, pointAt, type Piece, type Vec } from '../geometry';
import { createJob, JOB_VERSION, readJob, type Job } from '../job';
import { shapeOf, type Chain, type Segment, type SegmentKind } from '../outline';
import { inspectPicture, readPictureTags, sha256Hex } from '../pictures';
import {
  readBundle,
  readDxf,
  readSvg,
  safeLayerName,
  summarize,
  writeBundle,
  writeDxf,
  writeSvg,
  writeWorldFile,
  type Drawing,
  type DrawnPath,
} from '.';

const photo = new Uint8Array(readFileSync('public/demo/blade.jpg'));
const finished = (): Job => {
  const job = readJob(JSON.parse(readFileSync('public/demo/blade-finished.json', 'utf8')));
  if (!job.ok) throw new Error(job.code);
  return job.value;
};

/** Random drawings as people make them: chains of every kind of segment over scattered points, and circles. */
const coordinate = fc.integer({ min: -40_000, max: 40_000 }).map((hundredths) => hundredths / 100);
const chainPath: fc.Arbitrary<DrawnPath> = fc
  .record({
    points: fc.array(fc.tuple(coordinate, coordinate), { minLength: 3, maxLength: 9 }),
    kinds: fc.array(fc.constantFrom<SegmentKind>('line', 'tangent', 'curve', 'arc'), { minLength: 9, maxLength: 9 }),
    closed: fc.boolean(),
  })
  .map(({ points, kinds, closed }) => {
    const count = points.length - (closed ? 0 : 1);
    const chain: Chain = {
      shape: 'chain',
      id: 'c',
      layer: 'l',
      plane: 'v',
      closed,
      nodes: points.map((at, i) => ({ id: `n${i}`, place: { kind: 'pointed', at, sigma: 1 }, smooth: true })),
      segments: kinds
        .slice(0, count)
        .map((kind, i): Segment =>
          kind === 'arc'
            ? { kind, through: { kind: 'pointed', at: [points[i]![0] + 13, points[i]![1] + 31], sigma: 1 } }
            : kind === 'tangent' && i === 0
              ? { kind: 'line' }
              : { kind },
        ),
    };
    return { closed, pieces: shapeOf(chain, { scaled: true, toPlane: (p) => p }).pieces };
  });
const circlePath: fc.Arbitrary<DrawnPath> = fc
  .record({ centre: fc.tuple(coordinate, coordinate), radius: fc.integer({ min: 1, max: 20_000 }).map((r) => r / 100) })
  .map(({ centre, radius }) => ({
    closed: true,
    pieces: [{ kind: 'arc', centre, radius, start: 0, sweep: 2 * Math.PI }],
  }));
const drawing: fc.Arbitrary<Drawing> = fc
  .array(fc.oneof(chainPath, circlePath), { minLength: 1, maxLength: 4 })
  .map((paths) => ({
    layers: [
      { name: 'Cut', color: '#b3243b', paths: paths.slice(0, 2) },
      { name: 'Holes', color: '#20261f', paths: paths.slice(2) },
    ].filter((layer) => layer.paths.length > 0),
  }))
  // Arcs of nearly straight points have radii of kilometres, and a tangent arc that has to turn right round has no shape.
  .filter(({ layers }) =>
    layers.every((layer) =>
      layer.paths.every((p) => p.pieces.every((piece) => piece.kind !== 'arc' || piece.radius < 5000)),
    ),
  );

const piecesOf = (paths: readonly { readonly pieces: readonly Piece[] }[]) => paths.flatMap((p) => p.pieces);

/** How far the written pieces stray from the read ones: every sampled place has one of them under it. */
function deviation(written: readonly Piece[], read: readonly Piece[]): number {
  const places: Vec[] = written.flatMap((piece) => [0, 0.3, 0.5, 0.8, 1].map((t) => pointAt(piece, t)));
  return Math.max(...places.map((place) => Math.min(...read.map((piece) => nearestOn(piece, place).distance))));
}

describe.each(['mm', 'inch'] as const)('in %s', (unit) => {
  it('a DXF says what was drawn, arcs as arcs and curves as curves', () => {
    fc.assert(
      fc.property(drawing, (drawn) => {
        const reading = readDxf(writeDxf(drawn, unit));
        if (!reading.ok) throw new Error(reading.code);
        const paths = drawn.layers.flatMap((layer) => layer.paths);
        expect(reading.value.unit).toBe(unit);
        expect(reading.value.ignored).toBe(0);
        expect(
          piecesOf(reading.value.paths)
            .map((piece) => piece.kind)
            .sort(),
        ).toEqual(
          piecesOf(paths)
            .map((piece) => piece.kind)
            .sort(),
        );
        expect(deviation(piecesOf(paths), piecesOf(reading.value.paths))).toBeLessThan(1e-6);
      }),
      { numRuns: 40 },
    );
  });

  it('an SVG says what was drawn to a thousandth of a millimetre', () => {
    fc.assert(
      fc.property(drawing, (drawn) => {
        const reading = readSvg(writeSvg(drawn, unit));
        if (!reading.ok) throw new Error(reading.code);
        const paths = drawn.layers.flatMap((layer) => layer.paths);
        const [own, read] = [
          summarize({ unit, paths: paths.map((p) => ({ ...p, layer: '' })) }),
          summarize(reading.value),
        ];
        expect(read).toMatchObject({ unit, closed: own.closed, openEnds: own.openEnds });
        expect(Math.abs(read.width - own.width)).toBeLessThan(1e-3);
        expect(Math.abs(read.height - own.height)).toBeLessThan(1e-3);
        // Where it lies from zero comes along, with every piece.
        expect(distance(read.corner, own.corner)).toBeLessThan(1e-3);
        expect(deviation(piecesOf(paths), piecesOf(reading.value.paths))).toBeLessThan(1e-3);
      }),
      { numRuns: 40 },
    );
  });
});

/** Debian's python3-ezdxf, a DXF library that shares nothing with ours, as the judge. */
it('DXF files pass an audit without a single remark', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'bryony-'));
  const drawings = fc.sample(drawing, { numRuns: 12, seed: 7 });
  const files = drawings.map((drawn, i) => {
    const file = path.join(folder, `${i}.dxf`);
    writeFileSync(file, writeDxf(drawn, i % 2 ? 'inch' : 'mm'));
    return file;
  });
  const script =
    'import sys, ezdxf\nfor f in sys.argv[1:]:\n d = ezdxf.readfile(f); a = d.audit(); print(len(a.errors), len(a.fixes), d.header["$INSUNITS"], d.header["$MEASUREMENT"], d.dxfversion)';
  const lines = execFileSync('/usr/bin/python3', ['-c', script, ...files], { encoding: 'utf8' })
    .trim()
    .split('\n');
  expect(lines).toEqual(files.map((_, i) => (i % 2 ? '0 0 1 0 AC1021' : '0 0 4 1 AC1021')));
});

it('layer names are made safe, and kept apart', () => {
  expect(safeLayerName('a/b:c*?')).toBe('a-b-c--');
  expect(safeLayerName('  ')).toBe('Outline');
  const path_: DrawnPath = { closed: false, pieces: [{ kind: 'line', a: [0, 0], b: [1, 0] }] };
  const reading = readDxf(
    writeDxf(
      {
        layers: [
          { name: 'a/b', color: '#000000', paths: [path_] },
          { name: 'a:b', color: '#000000', paths: [path_] },
        ],
      },
      'mm',
    ),
  );
  expect(reading.ok && reading.value.paths.map((p) => p.layer)).toEqual(['a-b', 'a-b 2']);
  expect(writeSvg({ layers: [{ name: '<&">', color: '#000000', paths: [path_] }] }, 'mm')).toContain(
    'data-layer="&lt;&amp;&quot;&gt;"',
  );
});

describe('what leaves in a file', () => {
  const job = finished();
  const leaving = (changed: Job, only?: readonly string[]) =>
    drawingOf(changed, createDeriver()(changed), { plane: 'blade-view', only });
  it('is only what was drawn and is shown', () => {
    const all = leaving(job);
    expect(all.ok && all.value.layers.map((layer) => layer.paths.length)).toEqual([1, 4]);
    const hidden = leaving({ ...job, layers: job.layers.map((layer) => ({ ...layer, show: layer.id !== 'holes' })) });
    expect(hidden.ok && hidden.value.layers.map((layer) => layer.name)).toEqual(['Outline']);
    const one = leaving(job, ['blade-hole-0']);
    expect(one.ok && one.value.layers.flatMap((layer) => layer.paths)).toHaveLength(1);
  });
  it('is refused without scale and without anything drawn', () => {
    expect(leaving({ ...job, views: job.views.map((view) => ({ ...view, evidence: [] })) })).toMatchObject({
      code: 'drawing-without-scale',
    });
    expect(leaving({ ...job, outlines: [] })).toMatchObject({ code: 'drawing-empty' });
  });
});

describe('bundles', () => {
  const job = finished();
  const bundle = writeBundle({ job, pictures: new Map([[sha256Hex(photo), photo]]) });
  it('come back with an equal job and the same pictures, bit for bit', () => {
    const read = readBundle(bundle);
    expect(read.ok && read.value.job).toEqual(job);
    expect(read.ok && distance([0, Buffer.compare(read.value.pictures.get(sha256Hex(photo))!, photo)], [0, 0])).toBe(0);
  });
  it('are refused when a byte of a picture or of the job is wrong, or half is missing', () => {
    const flipped = bundle.slice();
    flipped[Math.floor(flipped.length / 2)]! ^= 1;
    expect(readBundle(flipped)).toMatchObject({ ok: false, code: 'bundle-damaged' });
    expect(readBundle(bundle.slice(0, bundle.length / 2))).toMatchObject({ ok: false, code: 'bundle-damaged' });
  });
  const documentOf = (of: object) => strToU8(JSON.stringify(of));
  const manifestOf = (of: object) => ({
    format: 'bryony-bundle',
    version: 1,
    files: { 'job.json': sha256Hex(documentOf(of)) },
  });
  const zipped = (manifest: unknown, files: Record<string, Uint8Array> = {}) =>
    zipSync({ 'manifest.json': strToU8(JSON.stringify(manifest)), ...files });
  it.each([
    ['not a zip', strToU8('hello'), 'bundle-not-ours'],
    ['nothing', new Uint8Array(0), 'bundle-not-ours'],
    ['somebody else’s zip', zipSync({ 'a.txt': strToU8('a') }), 'bundle-not-ours'],
    ['a newer one', zipped({ format: 'bryony-bundle', version: 9, files: {} }), 'bundle-newer'],
    ['one without a job', zipped({ format: 'bryony-bundle', version: 1, files: {} }), 'bundle-damaged'],
    ['one that lacks its picture', zipped({ ...manifestOf(job) }, { 'job.json': documentOf(job) }), 'bundle-damaged'],
    [
      'one with another job format',
      writeBundle({
        job: { ...createJob('a', 'b', new Date(0)), version: (JOB_VERSION + 1) as never },
        pictures: new Map(),
      }),
      'job-newer',
    ],
  ])('are refused when they are %s', (_, bytes, code) => expect(readBundle(bytes)).toMatchObject({ ok: false, code }));
  it.each([
    null,
    [],
    7,
    'manifest',
    { format: 'bryony-bundle', version: 1, files: null },
    { format: 'bryony-bundle', version: 1, files: [] },
    { format: 'bryony-bundle', version: '1', files: { 'job.json': 'a' } },
    { ...manifestOf(job), files: { ...manifestOf(job).files, '../outside': 'a'.repeat(64) } },
    JSON.parse('{"format":"bryony-bundle","version":1,"files":{"__proto__":"x","constructor":"y"}}'),
    { ...manifestOf(job), missing: 'all' },
  ])('are refused with a manifest that makes no sense, %j', (manifest) => {
    expect(readBundle(zipped(manifest, { 'job.json': documentOf(job) }))).toMatchObject({
      ok: false,
      code: expect.stringMatching(/^bundle-(damaged|not-ours)$/),
    });
  });
  it.each([
    null,
    [],
    'job',
    { format: 'bryony-job', version: 1, views: [null] },
    { format: 'bryony-job', version: 7, outlines: [{ recipe: { openings: 3 } }] },
  ])('are refused with a job that is none, %j', (document) => {
    expect(
      readBundle(
        zipped(
          { ...manifestOf({}), files: { 'job.json': sha256Hex(strToU8(JSON.stringify(document))) } },
          { 'job.json': strToU8(JSON.stringify(document)) },
        ),
      ),
    ).toMatchObject({ ok: false, code: expect.stringMatching(/^job-/) });
  });
  it('say which pictures were gone when they were packed, and open without them', () => {
    const read = readBundle(writeBundle({ job, pictures: new Map() }));
    expect(read.ok && [read.value.job, read.value.pictures.size]).toEqual([job, 0]);
  });
  it('are unpacked only as far as the manifest lists: strangers beside them are not looked at', () => {
    const document = documentOf({
      ...job,
      sheets: [],
      views: [],
      outlines: [],
      guides: [],
      relations: [],
      regions: [],
      dimensions: [],
      parts: [],
    });
    const manifest = { ...manifestOf({}), files: { 'job.json': sha256Hex(document) } };
    const strangers = { constructor: strToU8('x'), toString: strToU8('y'), 'zeros.bin': new Uint8Array(3_000_000) };
    const zip = zipSync({ 'manifest.json': strToU8(JSON.stringify(manifest)), 'job.json': document, ...strangers });
    // The stranger's compressed bytes are spoilt, so that unpacking it would fail.
    const at = zip.findIndex((_, i) => String.fromCharCode(...zip.subarray(i, i + 9)) === 'zeros.bin');
    zip.fill(0xff, at + 9, at + 9 + 64);
    expect(readBundle(zip)).toMatchObject({ ok: true, value: { job: { name: job.name } } });
  });
  it('are refused before they are unpacked when they claim too much', () => {
    const bomb = zipSync({
      'job.json': new Uint8Array(1000),
      'manifest.json': strToU8(
        JSON.stringify({ format: 'bryony-bundle', version: 1, files: { 'job.json': 'a'.repeat(64) } }),
      ),
    });
    // The uncompressed size stands at offset 24 of the central directory entry (PKWARE APPNOTE, section 4.3.12).
    const at = bomb.findIndex(
      (_, i) => bomb[i] === 0x50 && bomb[i + 1] === 0x4b && bomb[i + 2] === 1 && bomb[i + 3] === 2,
    );
    new DataView(bomb.buffer).setUint32(at + 24, 0xf0000000, true);
    expect(readBundle(bomb)).toMatchObject({ code: 'bundle-too-large' });
  });
});

describe('picture files', () => {
  it('are known by their bytes, and their tags are read', () => {
    expect(inspectPicture(photo)).toMatchObject({
      value: { mediaType: 'image/jpeg', width: 4032, height: 3024, truncated: false },
    });
    expect(readPictureTags(photo)).toEqual({
      camera: 'pocket camera',
      focalMm: 9.2,
      focal35mm: 52,
      time: '2026:05:14 10:21:30',
      orientation: 1,
    });
    expect(readPictureTags(strToU8('no picture'))).toEqual({});
  });
  const png = (width: number, height: number) => {
    const bytes = new Uint8Array(33);
    bytes.set([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52]);
    new DataView(bytes.buffer).setUint32(16, width);
    new DataView(bytes.buffer).setUint32(20, height);
    return bytes;
  };
  it.each([
    ['empty', new Uint8Array(0), 'picture-empty'],
    ['text', strToU8('just words, whatever the name says'), 'picture-not-understood'],
    ['one pixel', png(1, 1), 'picture-too-small'],
    ['of 120 megapixels', png(12000, 10000), 'picture-too-large'],
    [
      'an SVG',
      strToU8('<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"></svg>'),
      'picture-kind-not-read',
    ],
  ])('are refused when they are %s', (_, bytes, code) =>
    expect(inspectPicture(bytes)).toMatchObject({ ok: false, code }),
  );
  it('are taken with a word when they end half-way or hold several frames', () => {
    expect(inspectPicture(photo.slice(0, photo.length / 2))).toMatchObject({ value: { truncated: true } });
    const frame = [0x2c, 0, 0, 0, 0, 8, 0, 8, 0, 0, 2, 1, 0, 0];
    const gif = (frames: number) =>
      new Uint8Array([
        ...strToU8('GIF89a'),
        8,
        0,
        8,
        0,
        0,
        0,
        0,
        ...Array.from({ length: frames }, () => frame).flat(),
        0x3b,
      ]);
    expect(inspectPicture(gif(1))).toMatchObject({ value: { animated: false } });
    expect(inspectPicture(gif(2))).toMatchObject({ value: { animated: true } });
  });
  // NIST FIPS 180-2, appendix B.1: the digest of "abc".
  it('are named by their SHA-256', () =>
    expect(sha256Hex(strToU8('abc'))).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad'));
});

it('says in a world file where the middle of every pixel lies', () => {
  const [across, turnA, turnB, down, x, y] = writeWorldFile([-20, 130], 4).trim().split('\n').map(Number) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  // Column 10, row 3 has its middle 10.5 and 3.5 pixels of 0.25 mm from the corner.
  expect([x + 10 * across + 3 * turnB, y + 3 * down + 10 * turnA]).toEqual([-20 + 10.5 / 4, 130 - 3.5 / 4]);
});
