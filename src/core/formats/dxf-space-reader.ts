import { done, refused, type Result } from '../basics';
import { pieceBounds, positiveAngle, type Piece } from '../geometry';
import { cross3, scale3, type Vec3 } from '../space';
import { findPiecesOfEntity } from './dxf-entities';
import { Groups } from './dxf-groups';
import type { FileUnit } from './drawing';

/** What a file says of itself in space. mm. */
export interface SpaceSummary {
  readonly unit: FileUnit | undefined;
  /** The least coordinates, and how far it reaches from there. */
  readonly corner: Vec3;
  readonly size: Vec3;
  readonly closed: number;
  /** Places at which an odd number of open ends meet. */
  readonly openEnds: number;
  readonly layers: readonly string[];
}

const AXES = [0, 1, 2] as const;

/** What an entity takes up along each axis, whether it is closed, and where it begins and ends if not. */
interface Read {
  readonly least: Vec3;
  readonly most: Vec3;
  readonly ends: readonly Vec3[] | undefined;
}

/**
 * Reads back line work that stands in space: lines, arcs, circles, ellipses, polylines with bulges and splines of degree 3 with threefold inner knots, wherever their planes stand. It shares nothing with the writer but the kinds. Refused: what is no
 * DXF. Other kinds are passed over: it is for files that were just written.
 */
export function readSpaceDxf(text: string): Result<SpaceSummary> {
  const groups = groupsOf(text);
  if (groups.length === 0) return refused('dxf-not-understood');
  const insunits = groups.findIndex(([code, value]) => code === 9 && value === '$INSUNITS');
  const said = insunits < 0 ? undefined : Number(groups[insunits + 1]?.[1]);
  const mm = said === 1 ? 25.4 : 1;
  const entities = entitiesOf(groups);
  const read = entities.flatMap(({ kind, own }) => readEntity(kind, own) ?? []);
  const along = (pick: (one: Read) => Vec3, of: (...values: number[]) => number) =>
    AXES.map((axis) => (read.length > 0 ? mm * of(...read.map((one) => pick(one)[axis])) : 0)) as unknown as Vec3;
  const [corner, most] = [along(({ least }) => least, Math.min), along((one) => one.most, Math.max)];
  const { loops, loose } = linked(read.flatMap(({ ends }) => (ends ? [ends.map((at) => scale3(at, mm))] : [])));
  return done({
    unit: said === 1 ? 'inch' : said === 4 ? 'mm' : undefined,
    corner,
    size: AXES.map((axis) => most[axis] - corner[axis]) as unknown as Vec3,
    closed: read.filter(({ ends }) => ends === undefined).length + loops,
    openEnds: loose,
    layers: [...new Set(entities.map(({ own }) => own.text(8) ?? '0'))].sort(),
  });
}

type Pair = readonly [code: number, value: string];

function groupsOf(text: string): Pair[] {
  const lines = text.split(/\r\n|\n|\r/);
  const pairs = Array.from({ length: Math.floor(lines.length / 2) }, (_, i): Pair => [
    Number(lines[2 * i]),
    lines[2 * i + 1]!.trim(),
  ]);
  return pairs.every(([code]) => Number.isInteger(code)) ? pairs : [];
}

function entitiesOf(groups: readonly Pair[]): { readonly kind: string; readonly own: Groups }[] {
  const begin = groups.findIndex(
    ([code, value], i) => code === 2 && value === 'ENTITIES' && groups[i - 1]?.[1] === 'SECTION',
  );
  const found: { kind: string; own: Pair[] }[] = [];
  for (const [code, value] of begin < 0 ? [] : groups.slice(begin + 1)) {
    if (code === 0 && value === 'ENDSEC') break;
    if (code === 0) found.push({ kind: value, own: [] });
    else found.at(-1)?.own.push([code, value]);
  }
  return found.map(({ kind, own }) => ({ kind, own: new Groups(own) }));
}

const triple = (own: Groups, code: number, at = 0): Vec3 =>
  [0, 10, 20].map((more) => own.numbers(code + more)[at] ?? 0) as unknown as Vec3;

function readEntity(kind: string, own: Groups): Read | undefined {
  switch (kind) {
    case 'LINE':
      return around([triple(own, 10), triple(own, 11)], [triple(own, 10), triple(own, 11)]);
    case 'SPLINE':
      return readSpline(own);
    case 'ELLIPSE':
      return readEllipse(own);
    case 'ARC':
    case 'CIRCLE':
    case 'LWPOLYLINE':
      return readOnPlane(kind, own);
    default:
      return undefined;
  }
}

function around(places: readonly Vec3[], ends: readonly Vec3[] | undefined): Read {
  const of = (pick: (...values: number[]) => number) =>
    AXES.map((axis) => pick(...places.map((place) => place[axis]))) as unknown as Vec3;
  return { least: of(Math.min), most: of(Math.max), ends };
}

/** Each three control points and the one before them are a cubic. */
function readSpline(own: Groups): Read {
  const points = own.numbers(10).map((_, i) => triple(own, 10, i));
  const cubics = Array.from({ length: Math.floor((points.length - 1) / 3) }, (_, i) => points.slice(3 * i, 3 * i + 4));
  const reach = AXES.map((axis) => {
    const bounds = cubics.map(([a, b, c, d]) =>
      pieceBounds({ kind: 'cubic', a: [a![axis], 0], b: [b![axis], 0], c: [c![axis], 0], d: [d![axis], 0] }),
    );
    return [Math.min(...bounds.map(({ min }) => min[0])), Math.max(...bounds.map(({ max }) => max[0]))] as const;
  });
  const [first, last] = [points[0]!, points.at(-1)!];
  const isClosed = AXES.every((axis) => Math.abs(first[axis] - last[axis]) < SAME);
  return {
    least: reach.map(([least]) => least) as unknown as Vec3,
    most: reach.map(([, most]) => most) as unknown as Vec3,
    ends: isClosed ? undefined : [first, last],
  };
}

const WHOLE = 2 * Math.PI;
const SAME = 1e-4;

/** c + M cos t + m sin t, from one t to another. */
function readRound(centre: Vec3, major: Vec3, minor: Vec3, from: number, to: number): Read {
  const sweep = positiveAngle(to - from) < 1e-9 ? WHOLE : positiveAngle(to - from);
  const at = (t: number) =>
    AXES.map((axis) => centre[axis] + major[axis] * Math.cos(t) + minor[axis] * Math.sin(t)) as unknown as Vec3;
  const turning = AXES.flatMap((axis) => {
    const t = Math.atan2(minor[axis], major[axis]);
    return [t, t + Math.PI].filter((each) => positiveAngle(each - from) <= sweep);
  });
  const ends = [at(from), at(from + sweep)];
  return around([...ends, ...turning.map(at)], sweep >= WHOLE - 1e-9 ? undefined : ends);
}

function readEllipse(own: Groups): Read {
  const [centre, major, normal] = [triple(own, 10), triple(own, 11), normalOf(own)];
  const ratio = own.number(40, 1);
  const minor = scale3(cross3(normal, major), ratio);
  return readRound(centre, major, minor, own.number(41, 0), own.number(42, WHOLE));
}

const normalOf = (own: Groups): Vec3 => (own.numbers(210).length > 0 ? triple(own, 210) : [0, 0, 1]);
/** In the axes that follow from a normal (DXF reference, "Arbitrary Axis Algorithm"). */
function readOnPlane(kind: string, own: Groups): Read | undefined {
  const normal = normalOf(own);
  const right = cross3(Math.abs(normal[0]) < 1 / 64 && Math.abs(normal[1]) < 1 / 64 ? [0, 1, 0] : [0, 0, 1], normal);
  const x = scale3(right, 1 / Math.hypot(...right));
  const y = cross3(normal, x);
  const high = kind === 'LWPOLYLINE' ? own.number(38, 0) : own.number(30, 0);
  const inSpace = ([u, v]: readonly [number, number]): Vec3 =>
    AXES.map((axis) => u * x[axis] + v * y[axis] + high * normal[axis]) as unknown as Vec3;
  const pieces = kind === 'ARC' ? [arcOf(own)] : findPiecesOfEntity({ type: kind, groups: own } as never);
  if (!pieces || pieces.length === 0) return undefined;
  const read = pieces.map((piece) => readPiece(piece, inSpace, x, y));
  const isClosed = kind === 'CIRCLE' || (kind === 'LWPOLYLINE' && (own.number(70, 0) & 1) === 1);
  const ends = isClosed ? undefined : [read[0]!.ends![0]!, read.at(-1)!.ends!.at(-1)!];
  return around(
    read.flatMap(({ least, most }) => [least, most]),
    ends,
  );
}

const arcOf = (own: Groups): Piece => {
  const [start, end] = [own.number(50, 0), own.number(51, 0)].map((degrees) => (degrees * Math.PI) / 180) as [
    number,
    number,
  ];
  return {
    kind: 'arc',
    centre: [own.number(10, 0), own.number(20, 0)],
    radius: own.number(40, 0),
    start,
    sweep: positiveAngle(end - start),
  };
};

function readPiece(piece: Piece, inSpace: (place: readonly [number, number]) => Vec3, x: Vec3, y: Vec3): Read {
  if (piece.kind === 'line') return around([inSpace(piece.a), inSpace(piece.b)], [inSpace(piece.a), inSpace(piece.b)]);
  if (piece.kind !== 'arc') throw new Error(piece.kind);
  const { centre, radius, start, sweep } = piece;
  const [major, minor] = [scale3(x, radius), scale3(y, radius)];
  const [from, to] = sweep > 0 ? [start, start + sweep] : [start + sweep, start];
  const read = readRound(inSpace(centre), major, minor, from, to);
  return sweep > 0 || !read.ends ? read : { ...read, ends: [...read.ends].reverse() };
}

/** Open paths that meet end to end, two at each place, close an outline together. */
function linked(paths: readonly (readonly Vec3[])[]): { readonly loops: number; readonly loose: number } {
  const places: { readonly at: Vec3; readonly paths: number[] }[] = [];
  paths.forEach((ends, path) =>
    ends.forEach((at) => {
      const known = places.find((place) => AXES.every((axis) => Math.abs(place.at[axis] - at[axis]) < SAME));
      if (known) known.paths.push(path);
      else places.push({ at, paths: [path] });
    }),
  );
  const chains: Set<number>[] = [];
  for (const { paths: meeting } of places) {
    const touched = chains.filter((chain) => meeting.some((path) => chain.has(path)));
    touched.forEach((chain) => chains.splice(chains.indexOf(chain), 1));
    chains.push(new Set([...meeting, ...touched.flatMap((chain) => [...chain])]));
  }
  const loose = places.filter((place) => place.paths.length % 2 === 1);
  return {
    loops: chains.filter((chain) => !loose.some((place) => place.paths.some((path) => chain.has(path)))).length,
    loose: loose.length,
  };
}
