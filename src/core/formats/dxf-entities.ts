import type { IArcEntity, IEllipseEntity, IEntity, ILineEntity } from 'dxf-parser';
import {
  circle,
  findPiecesOfSpline,
  findPiecesOfWeighted,
  moved,
  type Affine,
  type Arc,
  type Piece,
  type Vec,
} from '../geometry';
import { groupsOf, type Groups } from './dxf-groups';

/** Kinds that are read from their group codes. */
export const BY_GROUPS = ['CIRCLE', 'SPLINE', 'LWPOLYLINE', 'POLYLINE', 'VERTEX', 'SEQEND'];

const vec = (p: { x: number; y: number }): Vec => [p.x, p.y];

/** A plane that is looked at from behind: its x runs the other way (DXF reference, "Object coordinate systems"). */
const FROM_BEHIND: Affine = [-1, 0, 0, 1, 0, 0];

/** The pieces of an entity in its own place; undefined for kinds that are no line work, and what cannot be read exactly. */
export function findPiecesOfEntity(entity: IEntity): readonly Piece[] | undefined {
  const pieces = inOwnPlane(entity);
  return pieces && isFromBehind(entity) ? pieces.map((piece) => moved(piece, FROM_BEHIND)) : pieces;
}

interface WithDirection {
  readonly extrusionDirectionZ?: number;
  readonly extrusionDirection?: { readonly z: number };
}

/** Whether an entity says that its plane is seen from behind. */
export function isFromBehind(entity: IEntity & WithDirection): boolean {
  return (entity.extrusionDirectionZ ?? entity.extrusionDirection?.z ?? 1) < 0;
}

export function isClosedEntity(entity: IEntity): boolean {
  if (entity.type === 'ELLIPSE')
    return (
      Math.abs(forward((entity as IEllipseEntity).endAngle - (entity as IEllipseEntity).startAngle) - 2 * Math.PI) <
      1e-6
    );
  return entity.type === 'CIRCLE' || (isPolyline(entity) && isLoop(groupsOf(entity)));
}

function inOwnPlane(entity: IEntity): readonly Piece[] | undefined {
  switch (entity.type) {
    case 'LINE': {
      const [a, b] = (entity as ILineEntity).vertices;
      return a && b ? [{ kind: 'line', a: vec(a), b: vec(b) }] : undefined;
    }
    case 'ARC': {
      const { center, radius, startAngle, endAngle } = entity as IArcEntity;
      return [{ kind: 'arc', centre: vec(center), radius, start: startAngle, sweep: forward(endAngle - startAngle) }];
    }
    case 'CIRCLE':
      return piecesOfCircle(groupsOf(entity));
    case 'ELLIPSE':
      return piecesOfEllipse(entity as IEllipseEntity);
    case 'LWPOLYLINE':
      return piecesOfPolyline(verticesOf(groupsOf(entity)), isLoop(groupsOf(entity)));
    case 'POLYLINE':
      return piecesOfOldPolyline(entity as WithVertices);
    case 'SPLINE':
      return piecesOfSpline(groupsOf(entity));
    default:
      return undefined;
  }
}

const forward = (sweep: number) => (sweep > 0 ? sweep : sweep + 2 * Math.PI);

/** A circle of radius 1, from a parameter to another, that is stretched to the two half-axes. */
function piecesOfEllipse({
  center,
  majorAxisEndPoint: major,
  axisRatio,
  startAngle,
  endAngle,
}: IEllipseEntity): readonly Piece[] {
  const unit: Arc = {
    kind: 'arc',
    centre: [0, 0],
    radius: 1,
    start: startAngle,
    sweep: forward(endAngle - startAngle),
  };
  return [moved(unit, [major.x, major.y, -axisRatio * major.y, axisRatio * major.x, center.x, center.y])];
}

const isPolyline = ({ type }: IEntity) => type === 'LWPOLYLINE' || type === 'POLYLINE';

/** Flags of polylines and of their vertices (DXF reference, group 70). */
const FLAGS = { loop: 1, frame: 16, mesh: 16, faces: 64 } as const;
const isLoop = (groups: Groups) => (groups.number(70, 0) & FLAGS.loop) !== 0;

interface Vertex {
  readonly x: number;
  readonly y: number;
  readonly bulge: number;
}

/** Each vertex begins with its x; its y and what bulges behind it follow. */
function verticesOf(groups: Groups): Vertex[] {
  const vertices: { x: number; y: number; bulge: number }[] = [];
  for (const [code, value] of groups.inOrder) {
    const last = vertices.at(-1);
    if (code === 10) vertices.push({ x: Number(value), y: 0, bulge: 0 });
    else if (last && code === 20) last.y = Number(value);
    else if (last && code === 42) last.bulge = Number(value);
  }
  return vertices;
}

interface WithVertices extends IEntity {
  readonly vertices?: readonly Groups[];
}

/** Entities as the file has them in a row, the vertices of a polyline of the old kind with it. */
export function withVertices(entities: readonly IEntity[]): readonly IEntity[] {
  const joined: IEntity[] = [];
  for (const entity of entities) {
    const last = joined.at(-1) as (IEntity & { vertices?: Groups[] }) | undefined;
    if (entity.type === 'VERTEX' && last?.type === 'POLYLINE') (last.vertices ??= []).push(groupsOf(entity));
    else if (entity.type !== 'VERTEX' && entity.type !== 'SEQEND') joined.push(entity);
  }
  return joined;
}

function piecesOfPolyline(vertices: readonly Vertex[], closed: boolean): readonly Piece[] {
  const count = closed ? vertices.length : vertices.length - 1;
  return Array.from({ length: Math.max(0, count) }, (_, i): Piece => {
    const [a, b] = [vertices[i]!, vertices[(i + 1) % vertices.length]!];
    return a.bulge ? arcFromBulge(vec(a), vec(b), a.bulge) : { kind: 'line', a: vec(a), b: vec(b) };
  });
}

/** Meshes are no line work; the frame of a fitted curve is left for the curve. */
function piecesOfOldPolyline(entity: WithVertices): readonly Piece[] | undefined {
  const flags = groupsOf(entity).number(70, 0);
  if ((flags & (FLAGS.mesh | FLAGS.faces)) !== 0) return undefined;
  const vertices = (entity.vertices ?? []).filter((groups) => (groups.number(70, 0) & FLAGS.frame) === 0);
  return piecesOfPolyline(vertices.flatMap(verticesOf), isLoop(groupsOf(entity)));
}

function arcFromBulge(a: Vec, b: Vec, bulge: number): Arc {
  const sweep = 4 * Math.atan(bulge);
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const height = (1 - bulge * bulge) / (4 * bulge);
  const centre: Vec = [(a[0] + b[0]) / 2 - dy * height, (a[1] + b[1]) / 2 + dx * height];
  return {
    kind: 'arc',
    centre,
    radius: Math.hypot(a[0] - centre[0], a[1] - centre[1]),
    start: Math.atan2(a[1] - centre[1], a[0] - centre[0]),
    sweep,
  };
}

function piecesOfCircle(groups: Groups): readonly Piece[] {
  return [circle([groups.number(10, 0), groups.number(20, 0)], groups.number(40, 0))];
}

function piecesOfSpline(groups: Groups): readonly Piece[] | undefined {
  const ys = groups.numbers(20);
  const spline = {
    degree: groups.number(71, 3),
    knots: groups.numbers(40),
    points: groups.numbers(10).map((x, i): Vec => [x, ys[i]!]),
  };
  const weights = groups.numbers(41);
  return weights.some((weight) => weight !== weights[0])
    ? findPiecesOfWeighted(spline, weights)
    : findPiecesOfSpline(spline);
}
