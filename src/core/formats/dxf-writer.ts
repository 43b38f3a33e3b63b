import { DxfWriter, LWPolylineFlags, point2d, point3d, TrueColor, Units } from '@tarikjabiri/dxf';
import {
  endOf,
  isFullCircle,
  moved,
  startOf,
  type Arc,
  type Cubic,
  type EllipticArc,
  type Line,
  type Piece,
  type Vec,
} from '../geometry';
import { scale3, type Vec3 } from '../space';
import { MM_PER_FILE_UNIT, scaledPiece, type Drawing, type DrawnPath, type FileUnit, type SpacePath } from './drawing';
import { FLAT, standingPlane, type DxfPlane } from './dxf-plane';

/**
 * A drawing as DXF (AC1021): $INSUNITS and $MEASUREMENT say the unit, lines and arcs in a row are one LWPOLYLINE with
 * bulges, a single one is a LINE or ARC, a circle a CIRCLE, cubics in a row one SPLINE of degree 3, a piece of an ellipse an ELLIPSE. Nothing is chopped
 * into chords. Paths whose plane stands somewhere lie there in space, others at height 0; curves in space are LINEs and SPLINEs. Layer names are made safe for DXF.
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
    for (const path of layer.inSpace ?? []) writeInSpace(writer, path, 1 / MM_PER_FILE_UNIT[unit]);
  }
  return writer.stringify();
}

function scaledPath(path: DrawnPath, factor: number): DrawnPath {
  const { stands } = path;
  const scaled = (value: number) => value * factor;
  const [x, y, z] = stands?.origin ?? [0, 0, 0];
  return {
    ...path,
    pieces: path.pieces.map((piece) => scaledPiece(piece, factor)),
    ...(stands ? { stands: { ...stands, origin: [scaled(x), scaled(y), scaled(z)] } } : {}),
  };
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

function writePath(writer: DxfWriter, { pieces, closed, stands }: DrawnPath): void {
  const plane = stands ? standingPlane(stands) : FLAT;
  const first = pieces[0];
  if (first && pieces.length === 1 && isFullCircle(first)) {
    const { centre, radius } = onPlane(plane, first);
    writer.addCircle(point3d(...centre, plane.elevation), radius, plane.options);
    return;
  }
  const runs = listRuns(pieces);
  for (const run of runs) {
    if (isCubic(run[0]!)) writeSpline(writer, run as Cubic[], plane);
    else if (run[0]!.kind === 'ellipse') writeEllipse(writer, run[0] as EllipticArc, plane);
    else if (run.length === 1) writeSingle(writer, run[0] as Line | Arc, plane);
    else writePolyline(writer, run as (Line | Arc)[], closed && runs.length === 1, plane);
  }
}

/** A piece in the axes that DXF gives a plane. */
const onPlane = <P extends Line | Arc>({ axes }: DxfPlane, piece: P): P => moved(piece, axes) as P;
const inSpace = ({ toSpace }: DxfPlane, place: Vec) => point3d(...toSpace(place));

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

function writeSingle(writer: DxfWriter, piece: Line | Arc, plane: DxfPlane): void {
  if (piece.kind === 'line') {
    writer.addLine(inSpace(plane, piece.a), inSpace(plane, piece.b));
    return;
  }
  const { centre, radius, start, sweep } = onPlane(plane, piece);
  const degrees = (radians: number) => (radians * 180) / Math.PI;
  const [from, to] = sweep > 0 ? [start, start + sweep] : [start + sweep, start];
  writer.addArc(point3d(...centre, plane.elevation), radius, degrees(from), degrees(to), plane.options);
}

/** DXF goes counter-clockwise from a parameter to another; what runs the other way is the same curve. */
function writeEllipse(writer: DxfWriter, { centre, major, ratio, start, sweep }: EllipticArc, plane: DxfPlane): void {
  const [from, to] = sweep > 0 ? [start, start + sweep] : [start + sweep, start];
  const whole = Math.abs(sweep) >= 2 * Math.PI - 1e-12;
  const [at, tip] = [centre, [centre[0] + major[0], centre[1] + major[1]] as const].map((place) =>
    plane.toSpace(place),
  );
  const axis = [0, 1, 2].map((i) => tip![i]! - at![i]!) as [number, number, number];
  const ends = whole ? ([0, 2 * Math.PI] as const) : ([from, to] as const);
  writer.addEllipse(point3d(...at!), point3d(...axis), ratio, ...ends, plane.options);
}

/** The tangent of a quarter of the sweep: what DXF calls bulge. */
const bulgeOf = (piece: Line | Arc) => (piece.kind === 'arc' ? Math.tan(piece.sweep / 4) : 0);

function writePolyline(writer: DxfWriter, drawn: readonly (Line | Arc)[], closed: boolean, plane: DxfPlane): void {
  const run = drawn.map((piece) => onPlane(plane, piece));
  const vertices = run.map((piece) => ({ point: point2d(...startOf(piece)), bulge: bulgeOf(piece) }));
  if (!closed) vertices.push({ point: point2d(...endOf(run.at(-1)!)), bulge: 0 });
  writer.addLWPolyline(vertices, {
    flags: closed ? LWPolylineFlags.Closed : LWPolylineFlags.None,
    ...(plane.elevation === 0 ? {} : { elevation: plane.elevation }),
    ...plane.options,
  });
}

/** Cubics end to end as one B-spline whose inner knots are threefold: the same curve, point for point. */
function writeSpline(writer: DxfWriter, run: readonly Cubic[], plane: DxfPlane): void {
  const places = [run[0]!.a, ...run.flatMap((cubic) => [cubic.b, cubic.c, cubic.d])];
  writeCubics(
    writer,
    places.map((place) => plane.toSpace(place)),
  );
}

/** Lines by themselves, cubics in a row as one spline. */
function writeInSpace(writer: DxfWriter, { pieces }: SpacePath, factor: number): void {
  const at = (place: Vec3) => scale3(place, factor);
  const cubics: Vec3[] = [];
  const put = () => cubics.length > 0 && writeCubics(writer, cubics.splice(0));
  for (const piece of pieces) {
    if (piece.kind === 'cubic')
      cubics.push(...(cubics.length > 0 ? [] : [at(piece.a)]), at(piece.b), at(piece.c), at(piece.d));
    else {
      put();
      writer.addLine(point3d(...at(piece.a)), point3d(...at(piece.b)));
    }
  }
  put();
}

/** The first place, and three for each cubic. */
function writeCubics(writer: DxfWriter, places: readonly Vec3[]): void {
  const controlPoints = places.map((place) => point3d(...place));
  const count = (places.length - 1) / 3;
  const inner = Array.from({ length: count - 1 }, (_, i) => [i + 1, i + 1, i + 1]).flat();
  const knots = [0, 0, 0, 0, ...inner, count, count, count, count];
  writer.addSpline({ controlPoints, degreeCurve: 3, knots });
}
