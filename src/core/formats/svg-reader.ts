import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { SVGPathData } from 'svg-pathdata';
import { done, refused, type Result } from '../basics';
import { circle, distance, findArcThrough, type Piece, type Vec } from '../geometry';
import { scaledPiece } from './drawing';
import type { FilePath, FileReading } from './file-reading';

/** Millimetres in a unit of SVG lengths; a CSS px is 1/96 in (CSS Values and Units, section 6.2). */
const MM: Readonly<Record<string, number>> = { mm: 1, cm: 10, in: 25.4, px: 25.4 / 96, '': 25.4 / 96, pt: 25.4 / 72, pc: 25.4 / 6 };

interface Element {
  readonly [name: string]: unknown;
}

const list = (value: unknown): Element[] => (value === undefined || value === '' ? [] : Array.isArray(value) ? value : [value as Element]);

/**
 * Reads back an SVG that holds groups of paths and circles, with general-purpose XML and path parsers. mm out, y up.
 * Weak: no transforms, no nested groups, arcs of circles only; what is not read is counted as ignored.
 */
export function readSvg(text: string): Result<FileReading> {
  if (XMLValidator.validate(text) !== true) return refused('svg-not-understood');
  const parsed = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '' }).parse(text) as { svg?: Element };
  const svg = parsed.svg;
  const size = /^([\d.]+)([a-z]*)$/.exec(String(svg?.width ?? ''));
  const box = String(svg?.viewBox ?? '').split(/[\s,]+/).map(Number);
  if (!svg || !size || box.length !== 4 || !(box[2]! > 0)) return refused('svg-not-understood');
  const unitMm = (Number(size[1]) * (MM[size[2]!] ?? NaN)) / box[2]!;
  const upright = (p: Vec): Vec => [p[0], box[3]! - p[1]];
  const paths: FilePath[] = [];
  let ignored = 0;
  for (const group of list(svg.g)) {
    const layer = String(group['data-layer'] ?? group.id ?? '');
    for (const element of list(group.circle)) {
      paths.push({ layer, closed: true, pieces: [scaledPiece(circle(upright([Number(element.cx), Number(element.cy)]), Number(element.r)), unitMm)] });
    }
    for (const element of list(group.path)) {
      const path = readPath(String(element.d ?? ''), upright);
      if (path) paths.push({ layer, closed: path.closed, pieces: path.pieces.map((piece) => scaledPiece(piece, unitMm)) });
      else ignored++;
    }
  }
  const unit = Math.abs(unitMm - 1) < 1e-6 ? 'mm' : Math.abs(unitMm - 25.4) < 1e-5 ? 'inch' : undefined;
  return done({ unit, unitMm, paths, ignored });
}

function readPath(d: string, upright: (p: Vec) => Vec): { closed: boolean; pieces: Piece[] } | undefined {
  const pieces: Piece[] = [];
  let [start, at]: [Vec, Vec] = [[0, 0], [0, 0]];
  let closed = false;
  for (const command of new SVGPathData(d).toAbs().commands) {
    if (command.type === SVGPathData.CLOSE_PATH) {
      if (distance(at, start) > 1e-6) pieces.push({ kind: 'line', a: at, b: start });
      closed = true;
      continue;
    }
    if (!('x' in command) || !('y' in command)) return undefined;
    const to = upright([command.x, command.y]);
    if (command.type === SVGPathData.MOVE_TO) start = to;
    else if (command.type === SVGPathData.LINE_TO) pieces.push({ kind: 'line', a: at, b: to });
    else if (command.type === SVGPathData.CURVE_TO) pieces.push({ kind: 'cubic', a: at, b: upright([command.x1, command.y1]), c: upright([command.x2, command.y2]), d: to });
    else if (command.type === SVGPathData.ARC && command.rX === command.rY) pieces.push(arcOf(at, to, command.rX, Boolean(command.lArcFlag), command.sweepFlag ? -1 : 1));
    else return undefined;
    at = to;
  }
  return pieces.length > 0 ? { closed, pieces } : undefined;
}

/** From end points, radius and flags to a centre (SVG 2, appendix B.2.4), on a plane with y up: `turn` is its sign. */
function arcOf(a: Vec, b: Vec, radius: number, large: boolean, turn: 1 | -1): Piece {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const half = Math.hypot(dx, dy) / 2;
  const height = Math.sqrt(Math.max(0, radius * radius - half * half)) * (large === turn > 0 ? -1 : 1);
  const centre: Vec = [(a[0] + b[0]) / 2 - (dy / (2 * half)) * height, (a[1] + b[1]) / 2 + (dx / (2 * half)) * height];
  const start = Math.atan2(a[1] - centre[1], a[0] - centre[0]);
  const size = 2 * Math.asin(Math.min(1, half / Math.max(radius, half)));
  const sweep = turn * (large ? 2 * Math.PI - size : size);
  return findArcThrough(a, [centre[0] + radius * Math.cos(start + sweep / 2), centre[1] + radius * Math.sin(start + sweep / 2)], b) ?? { kind: 'line', a, b };
}
