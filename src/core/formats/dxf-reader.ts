import DxfParser, { type IArcEntity, type ICircleEntity, type IEntity, type ILineEntity, type ILwpolylineEntity, type ISplineEntity } from 'dxf-parser';
import { done, refused, type Result } from '../basics';
import { circle, type Arc, type Piece, type Vec } from '../geometry';
import { scaledPiece } from './drawing';
import type { FilePath, FileReading } from './file-reading';

/** Millimetres in a drawing unit by $INSUNITS (DXF reference, header variables): inch, foot, mm, cm, m. */
const MM_PER_INSUNIT: Readonly<Record<number, number>> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000 };

/** Reads a DXF with a parser that shares nothing with the writer. mm out. Entities that are not outlines are counted. */
export function readDxf(text: string): Result<FileReading> {
  let dxf;
  try {
    dxf = new DxfParser().parseSync(text);
  } catch {
    return refused('dxf-not-understood');
  }
  if (!dxf) return refused('dxf-not-understood');
  const insunits = Number(dxf.header?.['$INSUNITS'] ?? 0);
  const mm = MM_PER_INSUNIT[insunits];
  const paths: FilePath[] = [];
  let ignored = 0;
  for (const entity of dxf.entities) {
    const pieces = piecesOf(entity);
    if (!pieces) ignored++;
    else paths.push({ layer: entity.layer, closed: isClosed(entity), pieces: pieces.map((piece) => scaledPiece(piece, mm ?? 1)) });
  }
  return done({ unit: mm === undefined ? undefined : mm === 25.4 ? 'inch' : mm === 1 ? 'mm' : undefined, unitMm: mm, paths, ignored });
}

function isClosed(entity: IEntity): boolean {
  return entity.type === 'CIRCLE' || (entity.type === 'LWPOLYLINE' && (entity as ILwpolylineEntity).shape === true);
}

const vec = (p: { x: number; y: number }): Vec => [p.x, p.y];

function piecesOf(entity: IEntity): Piece[] | undefined {
  switch (entity.type) {
    case 'LINE': {
      const [a, b] = (entity as ILineEntity).vertices;
      return a && b ? [{ kind: 'line', a: vec(a), b: vec(b) }] : undefined;
    }
    case 'ARC': {
      const arc = entity as IArcEntity;
      const sweep = arc.endAngle - arc.startAngle;
      return [{ kind: 'arc', centre: vec(arc.center), radius: arc.radius, start: arc.startAngle, sweep: sweep > 0 ? sweep : sweep + 2 * Math.PI }];
    }
    case 'CIRCLE':
      return [circle(vec((entity as ICircleEntity).center), (entity as ICircleEntity).radius)];
    case 'LWPOLYLINE':
      return piecesOfPolyline(entity as ILwpolylineEntity);
    case 'SPLINE':
      return piecesOfSpline(entity as ISplineEntity);
    default:
      return undefined;
  }
}

function piecesOfPolyline({ vertices, shape }: ILwpolylineEntity): Piece[] {
  const count = shape ? vertices.length : vertices.length - 1;
  return Array.from({ length: Math.max(0, count) }, (_, i): Piece => {
    const [a, b] = [vertices[i]!, vertices[(i + 1) % vertices.length]!];
    return a.bulge ? arcFromBulge(vec(a), vec(b), a.bulge) : { kind: 'line', a: vec(a), b: vec(b) };
  });
}

function arcFromBulge(a: Vec, b: Vec, bulge: number): Arc {
  const sweep = 4 * Math.atan(bulge);
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const height = (1 - bulge * bulge) / (4 * bulge);
  const centre: Vec = [(a[0] + b[0]) / 2 - dy * height, (a[1] + b[1]) / 2 + dx * height];
  return { kind: 'arc', centre, radius: Math.hypot(a[0] - centre[0], a[1] - centre[1]), start: Math.atan2(a[1] - centre[1], a[0] - centre[0]), sweep };
}

/** Cubic splines whose inner knots are threefold, which is how cubics end to end are written; others are not read yet. */
function piecesOfSpline({ controlPoints = [], degreeOfSplineCurve, knotValues = [] }: ISplineEntity): Piece[] | undefined {
  const inner = knotValues.slice(4, -4);
  const threefold = inner.length % 3 === 0 && inner.every((knot, i) => knot === inner[i - (i % 3)]);
  if (degreeOfSplineCurve !== 3 || controlPoints.length < 4 || controlPoints.length % 3 !== 1 || !threefold) return undefined;
  return Array.from({ length: (controlPoints.length - 1) / 3 }, (_, i): Piece => {
    const [a, b, c, d] = controlPoints.slice(3 * i, 3 * i + 4).map(vec) as [Vec, Vec, Vec, Vec];
    return { kind: 'cubic', a, b, c, d };
  });
}
