/** Drawings whose planes stand in space, as DXF: read back by our own reader, and by ezdxf (Debian's python3-ezdxf), which knows nothing of this project. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { circle, pointAt, type Piece, type Vec } from '../src/core/geometry';
import { poseFacing, SIDES, toSpace, type Pose, type Vec3 } from '../src/core/space';
import { spaceCurveOf } from '../src/core/arrange';
import { readDxf, readSpaceDxf, spaceBoundsOf, writeDxf, type Drawing, type FileUnit } from '../src/core/formats';

const PLATE: readonly Piece[] = [
  { kind: 'line', a: [0, 0], b: [80, 0] },
  { kind: 'arc', centre: [80, 20], radius: 20, start: -Math.PI / 2, sweep: Math.PI },
  { kind: 'line', a: [80, 40], b: [0, 40] },
  { kind: 'line', a: [0, 40], b: [0, 0] },
];
const WAVE: readonly Piece[] = [
  { kind: 'cubic', a: [0, 60], b: [20, 130], c: [40, -20], d: [70, 70] },
  { kind: 'cubic', a: [70, 70], b: [90, 130], c: [100, 60], d: [110, 66] },
];
const OVAL: readonly Piece[] = [
  { kind: 'ellipse', centre: [30, 100], major: [18, 9], ratio: 0.4, start: 0.3, sweep: 2.9 },
];
const BOW: readonly Piece[] = [{ kind: 'arc', centre: [10, 10], radius: 33, start: 2, sweep: -2.5 }];

const drawingOn = (stands: Pose): Drawing => ({
  layers: [
    {
      name: 'Outline',
      color: '#b3243b',
      paths: [
        { pieces: PLATE, closed: true, stands },
        { pieces: [circle([40, 20], 11)], closed: true, stands },
        { pieces: WAVE, closed: false, stands },
        { pieces: OVAL, closed: false, stands },
        { pieces: BOW, closed: false, stands },
      ],
    },
  ],
});

const angle = fc.double({ min: -3, max: 3, noNaN: true });
/** Turned about all axes: an orthonormal pose anywhere. */
const anyPose = fc.tuple(angle, angle, angle, fc.constantFrom(...SIDES)).map(([a, b, c, side]): Pose => {
  const turn = ([x, y, z]: Vec3): Vec3 => {
    const [u, v] = [x * Math.cos(a) - y * Math.sin(a), x * Math.sin(a) + y * Math.cos(a)];
    const [p, q] = [v * Math.cos(b) - z * Math.sin(b), v * Math.sin(b) + z * Math.cos(b)];
    return [u * Math.cos(c) - q * Math.sin(c), p, u * Math.sin(c) + q * Math.cos(c)];
  };
  const { x, y } = poseFacing(side);
  return { origin: [100 * a, -70 * b, 40 * c], x: turn(x), y: turn(y) };
});

/** Sampled, from the pieces themselves. */
function sampled({ layers }: Drawing) {
  const places = layers.flatMap(({ paths }) =>
    paths.flatMap(({ pieces, stands }) =>
      pieces.flatMap((piece) =>
        Array.from({ length: 2001 }, (_, i) => toSpace(stands!, pointAt(piece, i / 2000) as Vec)),
      ),
    ),
  );
  const along = (pick: (...values: number[]) => number) =>
    [0, 1, 2].map((axis) => places.reduce((so, at) => pick(so, at[axis]!), places[0]![axis]!));
  return { least: along(Math.min), most: along(Math.max) };
}
const expectNear = (a: readonly number[], b: readonly number[], within: number) =>
  a.forEach((value, i) => expect(Math.abs(value - b[i]!)).toBeLessThan(within));

it('what is written is read back where it stands, whatever way the plane looks, in either unit', () => {
  fc.assert(
    fc.property(anyPose, fc.constantFrom<FileUnit>('mm', 'inch'), (pose, unit) => {
      const drawing = drawingOn(pose);
      const read = readSpaceDxf(writeDxf(drawing, unit));
      if (!read.ok) throw new Error(read.code);
      const { least, most } = sampled(drawing);
      const bounds = spaceBoundsOf(drawing)!;
      expectNear(bounds.corner, least, 1e-3);
      expectNear(
        bounds.size,
        most.map((value, axis) => value - least[axis]!),
        2e-3,
      );
      expectNear(read.value.corner, bounds.corner, 1e-6);
      expectNear(read.value.size, bounds.size, 1e-6);
      expect(read.value).toMatchObject({ unit, closed: 2, openEnds: 6, layers: ['Outline'] });
    }),
    { seed: 5, numRuns: 60 },
  );
});

it('what lies flat is written as ever, and read back so', () => {
  const flat: Drawing = {
    layers: drawingOn(poseFacing('top')).layers.map((layer) => ({
      ...layer,
      paths: layer.paths.map(({ stands: _stands, ...path }) => path),
    })),
  };
  const text = writeDxf(flat, 'mm');
  const [space, plain] = [readSpaceDxf(text), readDxf(text)];
  if (!space.ok || !plain.ok) throw new Error('unread');
  expect(space.value.size[2]).toBe(0);
  expect(plain.value.paths).toHaveLength(5);
  expect(readSpaceDxf('no drawing')).toMatchObject({ ok: false, code: 'dxf-not-understood' });
  expect(readSpaceDxf('')).toMatchObject({ ok: false });
});

it('ezdxf finds the same extents, whole entities and nothing to mend', () => {
  const folder = mkdtempSync(join(tmpdir(), 'space-'));
  const poses = fc.sample(anyPose, { seed: 9, numRuns: 8 });
  const files = [...poses, ...SIDES.map((side) => poseFacing(side, [5, 6, 7]))].map((pose, i) => {
    const drawing = drawingOn(pose);
    const file = join(folder, `${i}.dxf`);
    writeFileSync(file, writeDxf(drawing, 'mm'));
    return { file, bounds: spaceBoundsOf(drawing)! };
  });
  const script = `
import sys, json, ezdxf
from ezdxf import bbox
found = []
for name in sys.argv[1:]:
    doc = ezdxf.readfile(name); audit = doc.audit(); box = bbox.extents(doc.modelspace(), flatten=0.0005)
    kinds = sorted(e.dxftype() for e in doc.modelspace())
    found.append(dict(errors=len(audit.errors) + len(audit.fixes), least=list(box.extmin), size=list(box.size), kinds=kinds))
print(json.dumps(found))`;
  const found = JSON.parse(
    execFileSync('/usr/bin/python3', ['-c', script, ...files.map(({ file }) => file)], { encoding: 'utf8' }),
  ) as { errors: number; least: number[]; size: number[]; kinds: string[] }[];
  found.forEach(({ errors, least, size, kinds }, i) => {
    expect([errors, kinds]).toEqual([0, ['ARC', 'CIRCLE', 'ELLIPSE', 'LWPOLYLINE', 'SPLINE']]);
    expectNear(least, files[i]!.bounds.corner, 0.002);
    expectNear(size, files[i]!.bounds.size, 0.004);
  });
});

/** A bore of 30 mm square through an upright tube of 50 mm: the closed form is x² + y² = 50², x² + (z − 80)² = 30². */
const [TUBE, BORE] = [50, 30];

function rimInSpace(): Drawing {
  const bore = { closed: true, pieces: [circle([0, 80], BORE)] };
  const wall = {
    closed: false,
    pieces: [{ kind: 'arc', centre: [0, 0], radius: TUBE, start: Math.PI, sweep: Math.PI }],
  } as const;
  const rim = spaceCurveOf({ side: 'front', path: bore }, { side: 'top', path: wall }, 0.005);
  if (!rim.ok) throw new Error(rim.code);
  const sill = { closed: false, pieces: [{ kind: 'line', a: [0, 0, 0], b: [10, 20, 30] }] } as const;
  return { layers: [{ name: 'Rim', color: '#b3243b', paths: [], inSpace: [rim.value, sill] }] };
}

it.each<FileUnit>(['mm', 'inch'])(
  'a curve in space leaves in %s as lines and splines that ezdxf finds on both cylinders',
  (unit) => {
    const drawing = rimInSpace();
    const text = writeDxf(drawing, unit);
    const read = readSpaceDxf(text);
    if (!read.ok) throw new Error(read.code);
    const bounds = spaceBoundsOf(drawing)!;
    expectNear(read.value.corner, bounds.corner, 1e-6);
    expectNear(read.value.size, bounds.size, 1e-6);
    expect(read.value).toMatchObject({ unit, closed: 1, openEnds: 2, layers: ['Rim'] });
    const file = join(mkdtempSync(join(tmpdir(), 'rim-')), 'rim.dxf');
    writeFileSync(file, text);
    const script = `
import sys, json, ezdxf
doc = ezdxf.readfile(sys.argv[1]); audit = doc.audit(); space = doc.modelspace()
places = [list(p) for s in space.query("SPLINE") for p in s.flattening(0.0001)]
lines = [[list(l.dxf.start), list(l.dxf.end)] for l in space.query("LINE")]
print(json.dumps(dict(errors=len(audit.errors) + len(audit.fixes), places=places, lines=lines)))`;
    const found = JSON.parse(execFileSync('/usr/bin/python3', ['-c', script, file], { encoding: 'utf8' })) as {
      errors: number;
      places: Vec3[];
      lines: [Vec3, Vec3][];
    };
    const mm = unit === 'mm' ? 1 : 25.4;
    expect(found.errors).toBe(0);
    expect(found.places.length).toBeGreaterThan(100);
    for (const [x, y, z] of found.places.map((at) => at.map((value) => mm * value))) {
      expect(Math.abs(Math.hypot(x!, y!) - TUBE)).toBeLessThan(0.01);
      expect(Math.abs(Math.hypot(x!, z! - 80) - BORE)).toBeLessThan(0.01);
    }
    expectNear(
      found.lines
        .at(-1)!
        .flat()
        .map((value) => mm * value),
      [0, 0, 0, 10, 20, 30],
      1e-6,
    );
  },
);
