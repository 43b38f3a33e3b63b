import { SVGPathData } from 'svg-pathdata';
import { circle, composed, distance, moved, placed, quadratic, type Affine, type Piece, type Vec } from '../geometry';

/** Attributes of an element, as text. */
export type Attributes = Readonly<Record<string, string>>;

export interface SvgPath {
  readonly closed: boolean;
  readonly pieces: readonly Piece[];
}

const number = (text: string | undefined, otherwise = 0) =>
  text === undefined || text.trim() === '' ? otherwise : Number.parseFloat(text);

/** What a shape draws, in its own user units, y down; undefined for elements that are no shapes. Sizes in percent are not read. */
export function findShape(name: string, at: Attributes): readonly SvgPath[] | undefined {
  switch (name) {
    case 'path':
      return pathsOf(at.d ?? '');
    case 'circle':
      return round([number(at.cx), number(at.cy)], number(at.r), number(at.r));
    case 'ellipse':
      return round([number(at.cx), number(at.cy)], number(at.rx), number(at.ry));
    case 'rect':
      return rectangle(at);
    case 'line':
      return [
        {
          closed: false,
          pieces: [{ kind: 'line', a: [number(at.x1), number(at.y1)], b: [number(at.x2), number(at.y2)] }],
        },
      ];
    case 'polyline':
    case 'polygon': {
      const points = cornersOf(at.points ?? '');
      return points.length > 1
        ? [{ closed: name === 'polygon', pieces: through(name === 'polygon' ? [...points, points[0]!] : points) }]
        : [];
    }
    default:
      return undefined;
  }
}

function round(centre: Vec, rx: number, ry: number): readonly SvgPath[] {
  return rx > 0 && ry > 0 ? [{ closed: true, pieces: [moved(circle([0, 0], 1), placed(centre, 0, rx, ry))] }] : [];
}

function cornersOf(text: string): Vec[] {
  const numbers = text
    .split(/[\s,]+/)
    .filter(Boolean)
    .map(Number);
  return Array.from({ length: Math.floor(numbers.length / 2) }, (_, i): Vec => [numbers[2 * i]!, numbers[2 * i + 1]!]);
}

const through = (points: readonly Vec[]): Piece[] =>
  points.slice(1).map((b, i) => ({ kind: 'line', a: points[i]!, b }));

/** Corners are rounded by a quarter of an ellipse; a radius that is not given is like the other one (SVG 2, section 10.2). */
function rectangle(at: Attributes): readonly SvgPath[] {
  const [x, y, w, h] = [number(at.x), number(at.y), number(at.width), number(at.height)];
  if (!(w > 0) || !(h > 0)) return [];
  const rx = Math.min(w / 2, number(at.rx ?? at.ry)),
    ry = Math.min(h / 2, number(at.ry ?? at.rx));
  if (!(rx > 0) || !(ry > 0))
    return [
      {
        closed: true,
        pieces: through([
          [x, y],
          [x + w, y],
          [x + w, y + h],
          [x, y + h],
          [x, y],
        ]),
      },
    ];
  const corner = (toX: number, toY: number) => `A${rx} ${ry} 0 0 1 ${toX} ${toY}`;
  return pathsOf(
    `M${x + rx} ${y}H${x + w - rx}${corner(x + w, y + ry)}V${y + h - ry}${corner(x + w - rx, y + h)}H${x + rx}${corner(x, y + h - ry)}V${y + ry}${corner(x + rx, y)}Z`,
  );
}

/** A path's data, one path for each of its parts. What comes after a fault in it is left out, as browsers do. */
function pathsOf(d: string): readonly SvgPath[] {
  const paths: { closed: boolean; pieces: Piece[] }[] = [];
  let [start, at]: [Vec, Vec] = [
    [0, 0],
    [0, 0],
  ];
  const draw = (piece: Piece, to: Vec) => {
    const last = paths.at(-1);
    if (!last || last.closed) paths.push({ closed: false, pieces: [piece] });
    else last.pieces.push(piece);
    at = to;
  };
  for (const command of commandsOf(d)) {
    if (command.type === SVGPathData.CLOSE_PATH) {
      if (distance(at, start) > 1e-6) draw({ kind: 'line', a: at, b: start }, start);
      const last = paths.at(-1);
      if (last) last.closed = true;
      at = start;
      continue;
    }
    if (!('x' in command) || !('y' in command)) continue;
    const to: Vec = [command.x, command.y];
    if (command.type === SVGPathData.MOVE_TO) {
      start = at = to;
      paths.push({ closed: false, pieces: [] });
    } else if (command.type === SVGPathData.LINE_TO) draw({ kind: 'line', a: at, b: to }, to);
    else if (command.type === SVGPathData.CURVE_TO)
      draw({ kind: 'cubic', a: at, b: [command.x1, command.y1], c: [command.x2, command.y2], d: to }, to);
    else if (command.type === SVGPathData.QUAD_TO) draw(quadratic(at, [command.x1, command.y1], to), to);
    else if (command.type === SVGPathData.ARC) for (const piece of ellipticalArc(at, to, command)) draw(piece, to);
  }
  return paths.filter(({ pieces }) => pieces.length > 0);
}

function commandsOf(d: string) {
  try {
    return new SVGPathData(d).toAbs().normalizeHVZ(false).normalizeST().commands;
  } catch {
    return [];
  }
}

interface ArcFlags {
  readonly rX: number;
  readonly rY: number;
  readonly xRot: number;
  readonly lArcFlag: number | boolean;
  readonly sweepFlag: number | boolean;
}

/** From end points, half-axes and flags to a centre: the arc of a circle of radius 1 that is stretched (SVG 2, appendix B.2.4 and B.2.5). */
function ellipticalArc(from: Vec, to: Vec, { rX, rY, xRot, lArcFlag, sweepFlag }: ArcFlags): readonly Piece[] {
  if (distance(from, to) === 0) return [];
  if (!(Math.abs(rX) > 0) || !(Math.abs(rY) > 0)) return [{ kind: 'line', a: from, b: to }];
  const turn = (xRot * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const [hx, hy] = [(from[0] - to[0]) / 2, (from[1] - to[1]) / 2];
  // On the circle of radius 1: half the chord, and how far its middle lies from the centre.
  const half: Vec = [(c * hx + s * hy) / Math.abs(rX), (c * hy - s * hx) / Math.abs(rY)];
  const grown = Math.max(1, Math.hypot(...half));
  const [ux, uy] = [half[0] / grown, half[1] / grown];
  const chord = ux * ux + uy * uy;
  const away = Math.sqrt(Math.max(0, (1 - chord) / chord)) * (Boolean(lArcFlag) === Boolean(sweepFlag) ? -1 : 1);
  const [cx, cy] = [away * uy, -away * ux];
  const start = Math.atan2(uy - cy, ux - cx);
  let sweep = Math.atan2(-uy - cy, -ux - cx) - start;
  if (sweepFlag && sweep <= 0) sweep += 2 * Math.PI;
  if (!sweepFlag && sweep >= 0) sweep -= 2 * Math.PI;
  const [rx, ry] = [Math.abs(rX) * grown, Math.abs(rY) * grown];
  const stretched: Affine = composed(placed([(from[0] + to[0]) / 2, (from[1] + to[1]) / 2], turn), [
    rx,
    0,
    0,
    ry,
    0,
    0,
  ]);
  return [moved({ kind: 'arc', centre: [cx, cy], radius: 1, start, sweep }, stretched)];
}
