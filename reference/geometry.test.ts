/** Reference geometry against what another library wrote, against published figures, and against itself. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import proj4 from 'proj4';
import {
  createReferenceSearch,
  findProjection,
  pieceAt,
  readDxf,
  readReference,
  readSvg,
  readWorldFile,
  writeWorldFile,
} from '../src/core/formats';
import { applied, findPiecesOfSpline, pieceLength, pointAt, type Vec } from '../src/core/geometry';
import { createJob, isHoldable, readJob } from '../src/core/job';

const bytesOf = (text: string) => new TextEncoder().encode(text).buffer as ArrayBuffer;

describe('DXF as Debian’s python3-ezdxf writes it', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'dxf-'));
  const script = `
import sys, json, ezdxf
doc = ezdxf.new('R2010', setup=True); doc.header['$INSUNITS'] = 6
doc.layers.add('survey'); doc.layers.add('off').off()
msp = doc.modelspace(); on = dict(layer='survey')
block = doc.blocks.new('STONE', base_point=(1, 1)); block.add_circle((2, 1), 0.5); block.add_line((1, 1), (3, 2), dxfattribs=dict(layer='inner'))
outer = doc.blocks.new('GROUP'); outer.add_blockref('STONE', (4, 0), dxfattribs=dict(rotation=30)); outer.add_arc((0, 0), 2, 20, 110)
msp.add_line((0, 0), (3, 4), dxfattribs=on)
msp.add_arc((1, 2), 5, 300, 45, dxfattribs=on)
msp.add_circle((7, 7), 2.5, dxfattribs=on)
msp.add_ellipse((3, 3), (4, 1), 0.4, 0.3, 4.0, dxfattribs=on)
msp.add_lwpolyline([(0, 0, 0.5), (4, 0, 0), (4, 3, -0.3)], format='xyb', close=True, dxfattribs=on)
msp.add_polyline2d([(0, 0), (5, 1), (6, 4)], dxfattribs=on)
msp.add_spline([], dxfattribs=on).apply_construction_tool(ezdxf.math.BSpline([(0, 0), (2, 4), (5, -3), (8, 2), (9, 9), (12, 3)], order=4))
msp.add_spline([], dxfattribs=on).apply_construction_tool(ezdxf.math.BSpline([(0, 0), (2, 4), (5, -3), (8, 2)], order=3))
msp.add_rational_spline([(1, 0), (1, 1), (0, 1)], [1, 0.5 ** 0.5, 1], degree=2, dxfattribs=on)
msp.add_circle((50, 7), 2.25, dxfattribs=dict(layer='survey', extrusion=(0, 0, -1)))
msp.add_blockref('STONE', (20, 5), dxfattribs=dict(layer='survey', xscale=2, yscale=2, rotation=15))
msp.add_blockref('STONE', (30, 5), dxfattribs=dict(layer='survey', xscale=2, yscale=0.5, rotation=75))
msp.add_blockref('GROUP', (40, 5), dxfattribs=dict(layer='survey', xscale=-1, yscale=1, rotation=10, row_count=2, column_count=3, row_spacing=6, column_spacing=9))
msp.add_text('pond', dxfattribs=on); msp.add_hatch(dxfattribs=on); msp.add_line((0, 0), (1, 1), dxfattribs=dict(layer='off'))
doc.saveas(sys.argv[1])
def length(e):
    if e.dxftype() == 'INSERT':
        return sum(sum(length(part) for part in one.virtual_entities()) for one in (e.multi_insert() if e.mcount > 1 else [e]))
    if e.dxftype() in ('LWPOLYLINE', 'POLYLINE'): return sum(length(part) for part in e.virtual_entities())
    flat = [e.dxf.start, e.dxf.end] if e.dxftype() == 'LINE' else list(e.flattening(1e-7)); return sum(a.distance(b) for a, b in zip(flat, flat[1:]))
print(json.dumps([length(e) for e in msp if e.dxftype() not in ('TEXT', 'HATCH')]))`;
  const file = path.join(folder, 'all.dxf');
  const lengths = JSON.parse(execFileSync('/usr/bin/python3', ['-c', script, file], { encoding: 'utf8' })) as number[];
  const read = readDxf(readFileSync(file, 'utf8'));
  if (!read.ok) throw new Error(read.code);

  it('comes in with its unit, its layers, the same lengths, and a count of what is no line work', () => {
    expect(read.value).toMatchObject({ unitMm: 1000, ignoredKinds: { TEXT: 1, HATCH: 1 }, hidden: ['off'] });
    expect([...new Set(read.value.paths.map(({ layer }) => layer))].sort()).toEqual(['inner', 'off', 'survey']);
    const whole = (list: readonly number[]) => list.reduce((sum, length) => sum + length, 0);
    const own = read.value.paths.map(({ pieces }) => whole(pieces.map(pieceLength)) / 1000);
    // The ten plain entities one by one; blocks come apart into what is in them.
    for (const [i, length] of lengths.slice(0, 10).entries()) expect(Math.abs(own[i]! / length - 1)).toBeLessThan(2e-6);
    expect(Math.abs(whole(own) / whole(lengths) - 1)).toBeLessThan(2e-6);
  });

  it('finds a circle that is drawn from behind where it is seen, and a weighted spline that is a quarter circle round', () => {
    const [spline, circle] = read.value.paths.slice(8, 10).map(({ pieces }) => pieces);
    expect(circle).toMatchObject([{ kind: 'arc', centre: [-50_000, 7000], radius: 2250 }]);
    for (const piece of spline!)
      for (const t of [0, 0.3, 0.7, 1]) expect(Math.hypot(...pointAt(piece, t)) / 1000).toBeCloseTo(1, 6);
  });

  it('keeps what is round round, under a turned block too, and moves a far zero near', () => {
    const round = read.value.paths
      .filter(({ pieces, closed }) => closed && pieces.length === 1)
      .map(({ pieces }) => pieces[0]!);
    expect(round.filter(({ kind }) => kind === 'arc').length).toBeGreaterThanOrEqual(2);
    const far = readReference({
      bytes: bytesOf('{"type":"LineString","coordinates":[[500123,5400456],[500133,5400456]]}'),
      format: 'geojson',
      placing: 'free',
    });
    expect(far).toMatchObject({
      ok: true,
      value: { bounds: { min: [23_000, 56_000], max: [33_000, 56_000] }, site: { zero: [500_100_000, 5_400_400_000] } },
    });
    // A survey in metres on a national grid, as a drawing: near its own zero too, and a job holds where that is.
    const survey =
      '0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n6\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nLINE\n8\nhedge\n10\n500123\n20\n5400456\n11\n500133\n21\n5400456\n0\nENDSEC\n0\nEOF\n';
    const drawn = readReference({ bytes: bytesOf(survey), format: 'dxf', placing: 'free' });
    expect(drawn).toMatchObject({
      ok: true,
      value: {
        bounds: { min: [23_000, 56_000], max: [33_000, 56_000] },
        site: { zero: [500_100_000, 5_400_400_000] },
        ignoredKinds: {},
      },
    });
    if (!drawn.ok) return;
    const job = createJob('j', 'Job', new Date(0));
    expect(isHoldable(job, { ...job, site: drawn.value.site })).toBe(true);
    expect(readJob({ ...job, site: drawn.value.site }).ok).toBe(true);
  });

  it('is read in another unit when somebody says so, and searched by box and layer', () => {
    const inches = readReference({
      bytes: new Uint8Array(readFileSync(file)).buffer,
      format: 'dxf',
      unitMm: 25.4,
      placing: 'as-drawn',
    });
    if (!inches.ok) throw new Error(inches.code);
    expect(pieceLength(pieceAt(inches.value, 0))).toBeCloseTo(5 * 25.4, 9);
    const near = createReferenceSearch(inches.value, ['off']);
    const found = near([-1, -1], [1, 1]).map((i) => inches.value.layers[inches.value.layerOf[i]!]!.name);
    expect(found.length).toBeGreaterThan(2);
    expect(found).not.toContain('off');
  });
});

it('splines are the same curve piece by piece, whatever their knots', () => {
  const spline = fc.record({
    degree: fc.constantFrom(1, 2, 3),
    steps: fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 4, maxLength: 9 }),
    spread: fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 40, maxLength: 40 }),
  });
  fc.assert(
    fc.property(spline, ({ degree, steps, spread }) => {
      let at = 0;
      const inner = steps.map((step) => (at += step));
      const knots = [...Array(degree + 1).fill(-1), ...inner, ...Array(degree + 1).fill(at + 1)] as number[];
      const points = Array.from({ length: knots.length - degree - 1 }, (_, i): Vec => [
        spread[2 * i]!,
        spread[2 * i + 1]!,
      ]);
      const pieces = findPiecesOfSpline({ degree, knots, points })!;
      const spans = [...new Set(knots)].sort((a, b) => a - b);
      // Where a knot is there as often as the degree and once more, the curve is torn: nothing to compare there.
      pieces.forEach((piece, i) => {
        const u = (spans[i]! + spans[i + 1]!) / 2;
        const [x, y] = deBoor(degree, knots, points, u);
        expect(Math.hypot(x - pointAt(piece, 0.5)[0], y - pointAt(piece, 0.5)[1])).toBeLessThan(1e-9);
      });
      expect(pieces).toHaveLength(spans.length - 1);
    }),
    { seed: 4, numRuns: 200 },
  );
});

/** de Boor's recurrence, written as its definition. */
function deBoor(degree: number, knots: readonly number[], points: readonly Vec[], u: number): Vec {
  const blend = (i: number, k: number): number => {
    if (k === 0) return u >= knots[i]! && u < knots[i + 1]! ? 1 : 0;
    const part = (from: number, to: number) => (to > from ? (u - from) / (to - from) : 0);
    const [up, down] = [
      part(knots[i]!, knots[i + k]!),
      knots[i + k + 1]! > knots[i + 1]! ? (knots[i + k + 1]! - u) / (knots[i + k + 1]! - knots[i + 1]!) : 0,
    ];
    return up * blend(i, k - 1) + down * blend(i + 1, k - 1);
  };
  return points.reduce<Vec>(
    (sum, p, i) => [sum[0] + p[0] * blend(i, degree), sum[1] + p[1] * blend(i, degree)],
    [0, 0],
  );
}

describe('SVG', () => {
  const lengthsOf = (svg: string) => {
    const read = readSvg(svg);
    if (!read.ok) throw new Error(read.code);
    return read.value.paths.map(({ pieces }) => pieces.reduce((sum, piece) => sum + pieceLength(piece), 0));
  };

  // CSS Values and Units, section 6.2: 1in = 2.54cm = 25.4mm = 96px = 72pt = 6pc, 1Q = 1/40 cm.
  it.each([
    ['96px', 25.4],
    ['96', 25.4],
    ['1in', 25.4],
    ['2.54cm', 25.4],
    ['25.4mm', 25.4],
    ['72pt', 25.4],
    ['6pc', 25.4],
    ['101.6Q', 25.4],
  ])('as wide as %s is an inch', (width, mm) => {
    expect(
      lengthsOf(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${width}" viewBox="0 0 10 10"><line x1="0" y1="5" x2="10" y2="5"/></svg>`,
      )[0],
    ).toBeCloseTo(mm, 9);
  });

  it('is read through groups, transforms, shapes and what is used again; scripts, pictures and outside links are only counted', () => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100mm" height="100mm" viewBox="0 0 100 100">
      <defs><path id="p" d="M0 0h10a5 5 0 0 1 0 10z"/></defs><script>alert(1)</script><image href="http://elsewhere.example/x.png"/><use href="http://elsewhere.example/y.svg#z"/>
      <g id="walls" transform="translate(10 20) rotate(90) scale(2)"><rect width="10" height="5"/><circle r="3"/><ellipse rx="4" ry="2"/><polygon points="0,0 3,0 3,4"/></g>
      <g id="paths"><use xlink:href="#p" x="5"/><path d="M0 0q5 5 10 0t10 0M0 20c1 1 2 1 3 0"/><g style="display:none"><line x2="9"/></g></g></svg>`;
    const read = readSvg(svg);
    if (!read.ok) throw new Error(read.code);
    expect(read.value.ignoredKinds).toEqual({ script: 1, image: 1, use: 1 });
    const round = (value: number) => Number(value.toFixed(3));
    // An ellipse of 4 by 2 has a circumference of 19.3769 (Ramanujan, from memory: exact to the digits shown).
    expect(lengthsOf(svg).map(round)).toEqual(
      [60, round(12 * Math.PI), 38.754, 24, round(10 + Math.hypot(10, 10) + 5 * Math.PI), 22.956, 3.443].map((v) =>
        expect.closeTo(v, 2),
      ),
    );
    expect(read.value.paths.map(({ layer }) => layer)).toEqual([
      'walls',
      'walls',
      'walls',
      'walls',
      'paths',
      'paths',
      'paths',
    ]);
  });

  it('is refused when its entities multiply or groups call for each other without end', () => {
    expect(
      readSvg('<!DOCTYPE svg [<!ENTITY a "aaaa">]><svg xmlns="http://www.w3.org/2000/svg" width="1" height="1"/>'),
    ).toMatchObject({ ok: false });
    const rounds = Array.from(
      { length: 30 },
      (_, i) => `<g id="g${i}">${`<use href="#g${i + 1}"/>`.repeat(10)}</g>`,
    ).join('');
    expect(readSvg(`<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9">${rounds}</svg>`)).toMatchObject({
      ok: false,
      code: 'reference-too-large',
    });
  });
});

describe('maps', () => {
  it('are laid flat as the published examples say', () => {
    // Snyder, Map Projections: A Working Manual (1987), p. 269: Clarke 1866, 40°30′ N 73°30′ W about 75° W with 0.9996.
    const [x, y] = proj4(
      '+proj=longlat +ellps=clrk66 +no_defs',
      '+proj=tmerc +lat_0=0 +lon_0=-75 +k=0.9996 +ellps=clrk66',
      [-73.5, 40.5],
    );
    expect([x, y]).toEqual([expect.closeTo(127106.5, 0), expect.closeTo(4484124.4, 0)]);
  });

  it('keep lengths near the middle of a site, and come back', () => {
    const site = [9.1, 48.7] as const;
    const plane = findProjection(site)!;
    // A degree of latitude at 48.7° on WGS 84 is 111 207 m (series for the meridian's arc, Snyder p. 17).
    const [, north] = plane.toPlane([9.1, 48.71]);
    expect(north / 1000).toBeCloseTo(1112.07, 0);
    for (const [lon, lat] of [
      [9.1, 48.7],
      [9.13, 48.72],
      [9.05, 48.66],
    ] as const) {
      const back = plane.fromPlane(plane.toPlane([lon, lat]));
      expect(Math.hypot(back[0] - lon, back[1] - lat)).toBeLessThan(1e-9);
    }
    const utm = findProjection(site, '+proj=utm +zone=32 +datum=WGS84')!;
    const there = proj4('EPSG:4326', '+proj=utm +zone=32 +datum=WGS84', [9.11, 48.705]) as [number, number];
    const [a, b] = [utm.toPlane(there), plane.toPlane([9.11, 48.705])];
    expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(0.01);
  });

  it('say with a world file where a picture lies, there and back', () => {
    const map = readWorldFile(writeWorldFile([100, 200], 4));
    if (!map.ok) throw new Error(map.code);
    expect(applied(map.value, [0, 0])).toEqual([expect.closeTo(100, 9), expect.closeTo(200, 9)]);
    expect(applied(map.value, [40, 8])).toEqual([expect.closeTo(110, 9), expect.closeTo(198, 9)]);
    expect(readWorldFile('1\n2\n3')).toMatchObject({ ok: false, code: 'world-file-not-understood' });
  });
});
