/** Drawings of any kind as files, measured by libraries that share nothing with the writers: DXF by Debian’s python3-ezdxf, the path data of SVG by svg-pathdata. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { SVGPathData } from 'svg-pathdata';
import { readDxf, readSvg, summarize, writeDxf, writeSvg, type Drawing, type DrawnPath } from '../src/core/formats';
import { circle, enclosedArea, pieceLength, pointAt, type Piece, type Vec } from '../src/core/geometry';
import { drawRing } from '../src/core/planar/random-drawing';

/** The chance of a seed: the minimal standard generator (Park and Miller 1988). */
function chanceOf(seed: number): () => number {
  let state = (seed % 2147483646) + 1;
  return () => (state = (state * 16807) % 2147483647) / 2147483647;
}

/** Rings, open lines and circles on two layers, away from zero. */
function drawingOf(seed: number): Drawing {
  const chance = chanceOf(seed);
  const shifted = (pieces: readonly Piece[], [x, y]: Vec): readonly Piece[] =>
    pieces.map((piece) => {
      const by = ([a, b]: Vec): Vec => [a + x, b + y];
      if (piece.kind === 'line') return { ...piece, a: by(piece.a), b: by(piece.b) };
      if (piece.kind === 'cubic') return { ...piece, a: by(piece.a), b: by(piece.b), c: by(piece.c), d: by(piece.d) };
      return { ...piece, centre: by(piece.centre) };
    });
  const place = (): Vec => [400 * chance(), 300 * chance() - 500];
  const ring = (closed: boolean): DrawnPath => {
    const pieces = shifted(drawRing(chance, -3), place());
    return { closed, pieces: closed ? pieces : pieces.slice(0, -1) };
  };
  const hole = (): DrawnPath => ({ closed: true, pieces: [circle(place(), 1 + 9 * chance())] });
  return {
    layers: [
      { name: 'Outline', color: '#aa2233', paths: [ring(true), ring(false), ring(true)] },
      { name: 'Holes', color: '#225577', paths: [hole(), hole(), hole()] },
    ],
  };
}

const SEEDS = Array.from({ length: 24 }, (_, i) => 31 * i + 5);
const isInches = (i: number) => i % 3 === 2;
const unitOf = (i: number) => (isInches(i) ? 'inch' : 'mm');
const perUnit = (i: number) => (isInches(i) ? 25.4 : 1);
const lengthOf = ({ pieces }: DrawnPath) => pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);
const pathsOf = ({ layers }: Drawing) =>
  layers.flatMap(({ name, paths }) => paths.map((drawn) => ({ ...drawn, layer: name })));

/** What lies on a layer, mm: all its lines together, and what its closed paths hold. */
interface OnLayer {
  readonly length: number;
  readonly area: number;
}

function onLayer(drawing: Drawing, name: string): OnLayer {
  const { paths } = drawing.layers.find((layer) => layer.name === name)!;
  return {
    length: paths.reduce((sum, drawn) => sum + lengthOf(drawn), 0),
    area: paths.reduce((sum, { closed, pieces }) => sum + (closed ? Math.abs(enclosedArea(pieces)) : 0), 0),
  };
}

describe('a DXF file', () => {
  const script = `
import sys, json, ezdxf
def flat(e):
    return [e.dxf.start.vec2, e.dxf.end.vec2] if e.dxftype() == 'LINE' else [v.vec2 for v in e.flattening(1e-6)]
def run(f):
    out = {}
    for e in ezdxf.readfile(f).modelspace():
        parts = list(e.virtual_entities()) if e.dxftype() in ('LWPOLYLINE', 'POLYLINE') else [e]
        for places in map(flat, parts):
            pairs = list(zip(places, places[1:])); known = out.setdefault(e.dxf.layer, dict(length=0, swept=[]))
            known['length'] += sum(a.distance(b) for a, b in pairs)
            known['swept'].append(sum(a.x * b.y - b.x * a.y for a, b in pairs) / 2)
    return out
print(json.dumps([run(f) for f in sys.argv[1:]]))`;
  const folder = mkdtempSync(path.join(tmpdir(), 'written-'));
  const files = SEEDS.map((seed, i) => {
    const file = path.join(folder, `${seed}.dxf`);
    writeFileSync(file, writeDxf(drawingOf(seed), unitOf(i)));
    return file;
  });
  /** `swept`: the area that each part sweeps from zero. */
  type Judged = Record<string, { readonly length: number; readonly swept: readonly number[] }>;
  const judged = JSON.parse(
    execFileSync('/usr/bin/python3', ['-c', script, ...files], { encoding: 'utf8', maxBuffer: 1e8 }),
  ) as readonly Judged[];

  it('has every line as long as it was drawn, on its layer', () => {
    SEEDS.forEach((seed, i) => {
      for (const name of ['Outline', 'Holes']) {
        const { length } = onLayer(drawingOf(seed), name);
        expect([seed, name, Math.abs((judged[i]![name]!.length * perUnit(i)) / length - 1) < 1e-5]).toEqual([
          seed,
          name,
          true,
        ]);
      }
    });
  });

  it('has circles that hold what they should', () => {
    SEEDS.forEach((seed, i) => {
      const { area } = onLayer(drawingOf(seed), 'Holes');
      const swept = judged[i]!.Holes!.swept.reduce((sum, part) => sum + Math.abs(part), 0);
      expect([seed, Math.abs((swept * perUnit(i) ** 2) / area - 1) < 1e-4]).toEqual([seed, true]);
    });
  });

  it('comes back as it went, path by path', () => {
    SEEDS.forEach((seed, i) => {
      const drawing = drawingOf(seed);
      const read = readDxf(writeDxf(drawing, unitOf(i)));
      if (!read.ok) throw new Error(read.code);
      const [then, now] = [
        summarize({ unit: unitOf(i), paths: pathsOf(drawing) }),
        summarize({ unit: unitOf(i), paths: read.value.paths }),
      ];
      expect([seed, now.closed, now.openEnds, now.unit]).toEqual([seed, then.closed, then.openEnds, then.unit]);
      for (const key of ['width', 'height'] as const) expect(Math.abs(now[key] - then[key])).toBeLessThan(1e-5);
    });
  });
});

describe('an SVG file', () => {
  /** Path data in chords, by a library of its own: absolute, arcs as curves. */
  function chordsOf(data: string): readonly (readonly Vec[])[] {
    const runs: Vec[][] = [];
    let at: Vec = [0, 0];
    for (const command of new SVGPathData(data).toAbs().normalizeST().qtToC().aToC().normalizeHVZ(false).commands) {
      if (command.type === SVGPathData.MOVE_TO) runs.push([[command.x, command.y]]);
      else if (command.type === SVGPathData.LINE_TO) runs.at(-1)!.push([command.x, command.y]);
      else if (command.type === SVGPathData.CURVE_TO) {
        const cubic: Piece = {
          kind: 'cubic',
          a: at,
          b: [command.x1, command.y1],
          c: [command.x2, command.y2],
          d: [command.x, command.y],
        };
        runs.at(-1)!.push(...Array.from({ length: 64 }, (_, i) => pointAt(cubic, (i + 1) / 64)));
      } else if (command.type === SVGPathData.CLOSE_PATH) runs.at(-1)!.push(runs.at(-1)![0]!);
      at = runs.at(-1)!.at(-1)!;
    }
    return runs;
  }

  const alongChords = (run: readonly Vec[]) =>
    run.slice(1).reduce((sum, [x, y], i) => sum + Math.hypot(x - run[i]![0], y - run[i]![1]), 0);

  it('has every line as long as it was drawn, in millimetres of its own unit', () => {
    SEEDS.forEach((seed, i) => {
      const drawing = drawingOf(seed);
      const text = writeSvg(drawing, unitOf(i));
      const runs = [...text.matchAll(/ d="([^"]+)"/g)].flatMap(([, data]) => chordsOf(data!));
      const circles = [...text.matchAll(/<circle [^>]*\br="([^"]+)"/g)].map(
        ([, radius]) => 2 * Math.PI * Number(radius),
      );
      const whole = [...runs.map(alongChords), ...circles].reduce((sum, length) => sum + length, 0);
      const drawn = pathsOf(drawing).reduce((sum, one) => sum + lengthOf(one), 0);
      expect([seed, Math.abs((whole * perUnit(i)) / drawn - 1) < 2e-4]).toEqual([seed, true]);
    });
  });

  it('comes back as it went', () => {
    fc.assert(
      fc.property(fc.constantFrom(...SEEDS), fc.constantFrom('mm', 'inch'), (seed, unit) => {
        const drawing = drawingOf(seed);
        const read = readSvg(writeSvg(drawing, unit as 'mm'));
        if (!read.ok) throw new Error(read.code);
        const [then, now] = [pathsOf(drawing), read.value.paths].map((paths) => summarize({ unit: 'mm', paths }));
        expect([now!.closed, now!.openEnds]).toEqual([then!.closed, then!.openEnds]);
        expect(Math.abs(now!.width - then!.width) + Math.abs(now!.height - then!.height)).toBeLessThan(2e-4);
      }),
      { seed: 2, numRuns: 30 },
    );
  });
});
