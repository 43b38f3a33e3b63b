import { angleOf, endOf, isFullCircle, norm, pointAt, startOf, type Piece, type Vec } from '../geometry';
import {
  findDrawingBounds,
  MM_PER_FILE_UNIT,
  scaledPiece,
  type Drawing,
  type DrawnPath,
  type FileUnit,
} from './drawing';

const MARGIN_MM = 1;
/** Says of a file that its 0 0 is the zero that its drawing was given. */
export const ZERO_KEPT = 'data-zero';

/**
 * A drawing as SVG whose user unit is the file's unit: width and height carry it, the view box repeats it. The drawing's zero is the file's 0 0, and the view box says
 * where the page begins from there. One group a layer, true arcs and cubics, y turned over as SVG wants it. An empty drawing is a 2 mm empty picture.
 */
export function writeSvg(drawing: Drawing, unit: FileUnit): string {
  const per = 1 / MM_PER_FILE_UNIT[unit];
  const bounds = findDrawingBounds(drawing) ?? { min: [0, 0], max: [0, 0] };
  const [left, top] = [bounds.min[0] - MARGIN_MM, bounds.max[1] + MARGIN_MM];
  const [x, y, width, height] = [left, -top, bounds.max[0] - left + MARGIN_MM, top - bounds.min[1] + MARGIN_MM].map(
    (mm) => number(mm * per),
  );
  const sign = unit === 'mm' ? 'mm' : 'in';
  const place = (p: Vec): Vec => [p[0], -p[1]];
  const groups = drawing.layers.map((layer) => {
    const paths = layer.paths.map(
      (path) => `    ${element({ ...path, pieces: path.pieces.map((piece) => scaledPiece(piece, per)) }, place)}`,
    );
    return [
      `  <g id="${escape(idOf(layer.name))}" data-layer="${escape(layer.name)}" stroke="${layer.color}">`,
      ...paths,
      '  </g>',
    ].join('\n');
  });
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}${sign}" height="${height}${sign}" viewBox="${x} ${y} ${width} ${height}" ${ZERO_KEPT}="0 0" fill="none" stroke-width="${number(0.25 * per)}">`,
    ...groups,
    '</svg>',
    '',
  ].join('\n');
}

/** Seven decimals: a tenth of a nanometre in mm files. */
const number = (value: number) => String(Number(value.toFixed(7)) || 0);
const pair = (p: Vec) => `${number(p[0])} ${number(p[1])}`;
const escape = (text: string) =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
const idOf = (name: string) => `layer-${name.trim().replace(/[^\p{L}\p{N}_-]+/gu, '-') || 'outline'}`;

function element({ pieces, closed }: DrawnPath, place: (p: Vec) => Vec): string {
  const first = pieces[0];
  if (!first) return '<path d=""/>';
  if (pieces.length === 1 && isFullCircle(first)) {
    const [x, y] = place(first.centre);
    return `<circle cx="${number(x)}" cy="${number(y)}" r="${number(first.radius)}"/>`;
  }
  const steps = pieces.map((piece) => step(piece, place)).join(' ');
  return `<path d="M ${pair(place(startOf(first)))} ${steps}${closed ? ' Z' : ''}"/>`;
}

/**
 * SVG gives an arc by its ends and radius, from which a reader has to find the centre. Near half a turn that magnifies a
 * rounding of the radius a thousandfold, so longer arcs are written as several of at most this sweep.
 */
const LONGEST_SWEEP = (2 * Math.PI) / 3;

function step(piece: Piece, place: (p: Vec) => Vec): string {
  if (piece.kind === 'line') return `L ${pair(place(endOf(piece)))}`;
  if (piece.kind === 'cubic') return `C ${pair(place(piece.b))} ${pair(place(piece.c))} ${pair(place(endOf(piece)))}`;
  const count = Math.max(1, Math.ceil(Math.abs(piece.sweep) / LONGEST_SWEEP - 1e-9));
  const clockwise = piece.sweep > 0 ? 0 : 1;
  const axes =
    piece.kind === 'arc'
      ? `${number(piece.radius)} ${number(piece.radius)} 0`
      : `${number(norm(piece.major))} ${number(norm(piece.major) * piece.ratio)} ${number((-angleOf(piece.major) * 180) / Math.PI)}`;
  return Array.from(
    { length: count },
    (_, i) => `A ${axes} 0 ${clockwise} ${pair(place(pointAt(piece, (i + 1) / count)))}`,
  ).join(' ');
}
