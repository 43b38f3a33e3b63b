import { DxfWriter, LWPolylineFlags, point2d, point3d, TrueColor, Units } from '@tarikjabiri/dxf';
import {
  endOf,
  isFullCircle,
  startOf,
  type Arc,
  type Cubic,
  type EllipticArc,
  type Line,
  type Piece,
} from '../geometry';
import { MM_PER_FILE_UNIT, scaledPiece, type Drawing, type DrawnPath, type FileUnit } from './drawing';

/**
 * A drawing as DXF (AC1021): $INSUNITS and $MEASUREMENT say the unit, lines and arcs in a row are one LWPOLYLINE with
 * bulges, a single one is a LINE or ARC, a circle a CIRCLE, cubics in a row one SPLINE of degree 3, a piece of an ellipse an ELLIPSE. Nothing is chopped
 * into chords. Layer names are made safe for DXF.
 */
export function writeDxf(drawing: Drawing, unit: FileUnit): string {
  const writer = new DxfWriter();
  writer.setUnits(unit === 'mm' ? Units.Millimeters : Units.Inches);
  writer.setVariable('$MEASUREMENT', { 70: unit === 'mm' ? 1 : 0 });
  const names = new Set<string>();
  for (const layer of drawing.layers) {
    const name = uniqueName(safeLayerName(layer.name), names);
    const record = writer.addLayer(name, 7, 'CONTINUOUS');
    record.trueColor = TrueColor.fromHex(layer.color);
    writer.setCurrentLayerName(name);
    for (const path of layer.paths) writePath(writer, scaledPath(path, 1 / MM_PER_FILE_UNIT[unit]));
  }
  return writer.stringify();
}

function scaledPath(path: DrawnPath, factor: number): DrawnPath {
  return { ...path, pieces: path.pieces.map((piece) => scaledPiece(piece, factor)) };
}

/** DXF forbids these characters in names of table records (DXF reference, symbol names). */
export function safeLayerName(name: string): string {
  const safe = name
    .replace(/[<>/\\":;?*|=`,\u0000-\u001f]/g, '-')
    .trim()
    .slice(0, 200);
  return safe === '' ? 'Outline' : safe;
}

function uniqueName(name: string, taken: Set<string>): string {
  let unique = name;
  for (let i = 2; taken.has(unique.toLowerCase()); i++) unique = `${name} ${i}`;
  taken.add(unique.toLowerCase());
  return unique;
}

const isCubic = (piece: Piece): piece is Cubic => piece.kind === 'cubic';

function writePath(writer: DxfWriter, { pieces, closed }: DrawnPath): void {
  const first = pieces[0];
  if (first && pieces.length === 1 && isFullCircle(first)) {
    writer.addCircle(point3d(...first.centre), first.radius);
    return;
  }
  const runs = listRuns(pieces);
  for (const run of runs) {
    if (isCubic(run[0]!)) writeSpline(writer, run as Cubic[]);
    else if (run[0]!.kind === 'ellipse') writeEllipse(writer, run[0] as EllipticArc);
    else if (run.length === 1) writeSingle(writer, run[0] as Line | Arc);
    else writePolyline(writer, run as (Line | Arc)[], closed && runs.length === 1);
  }
}

/** Consecutive cubics, consecutive lines and arcs, and each piece of an ellipse by itself. */
function listRuns(pieces: readonly Piece[]): Piece[][] {
  const runs: Piece[][] = [];
  for (const piece of pieces) {
    const run = runs.at(-1);
    if (run && piece.kind !== 'ellipse' && run[0]!.kind !== 'ellipse' && isCubic(run[0]!) === isCubic(piece))
      run.push(piece);
    else runs.push([piece]);
  }
  return runs;
}

function writeSingle(writer: DxfWriter, piece: Line | Arc): void {
  if (piece.kind === 'line') {
    writer.addLine(point3d(...piece.a), point3d(...piece.b));
    return;
  }
  const degrees = (radians: number) => (radians * 180) / Math.PI;
  const [from, to] =
    piece.sweep > 0 ? [piece.start, piece.start + piece.sweep] : [piece.start + piece.sweep, piece.start];
  writer.addArc(point3d(...piece.centre), piece.radius, degrees(from), degrees(to));
}

/** DXF goes counter-clockwise from a parameter to another; what runs the other way is the same curve. */
function writeEllipse(writer: DxfWriter, { centre, major, ratio, start, sweep }: EllipticArc): void {
  const [from, to] = sweep > 0 ? [start, start + sweep] : [start + sweep, start];
  const whole = Math.abs(sweep) >= 2 * Math.PI - 1e-12;
  writer.addEllipse(point3d(...centre), point3d(...major), ratio, whole ? 0 : from, whole ? 2 * Math.PI : to);
}

/** The tangent of a quarter of the sweep: what DXF calls bulge. */
const bulgeOf = (piece: Line | Arc) => (piece.kind === 'arc' ? Math.tan(piece.sweep / 4) : 0);

function writePolyline(writer: DxfWriter, run: readonly (Line | Arc)[], closed: boolean): void {
  const vertices = run.map((piece) => ({ point: point2d(...startOf(piece)), bulge: bulgeOf(piece) }));
  if (!closed) vertices.push({ point: point2d(...endOf(run.at(-1)!)), bulge: 0 });
  writer.addLWPolyline(vertices, { flags: closed ? LWPolylineFlags.Closed : LWPolylineFlags.None });
}

/** Cubics end to end as one B-spline whose inner knots are threefold: the same curve, point for point. */
function writeSpline(writer: DxfWriter, run: readonly Cubic[]): void {
  const controlPoints = [run[0]!.a, ...run.flatMap((cubic) => [cubic.b, cubic.c, cubic.d])].map((p) => point3d(...p));
  const inner = run.slice(1).flatMap((_, i) => [i + 1, i + 1, i + 1]);
  const knots = [0, 0, 0, 0, ...inner, run.length, run.length, run.length, run.length];
  writer.addSpline({ controlPoints, degreeCurve: 3, knots });
}
