import { awayFrom, distance, lineThrough, type Vec } from '../../geometry';
import type { Evidence } from './evidence';
import { circleThrough, cornersOfSides, directionOf, sizeOfCorners, wrapped } from './plane-figures';

/** A number that a piece of evidence comes to, and what was said of it. mm, or degrees when `unit` says so. */
export interface EvidenceFigure {
  readonly name:
    'length' | 'difference' | 'diameter' | 'roundness' | 'width' | 'height' | 'angle' | 'bow' | 'across' | 'up';
  readonly unit: 'mm' | 'degrees';
  readonly said: number | undefined;
  /** One sigma of what was said; 0 for an exact relation. */
  readonly sigma: number;
  /** From the places of the piece's points on the plane, mm. */
  of(place: (name: string) => Vec): number;
}

const DEGREES = 180 / Math.PI;

/** What can be read off a piece once there is a map: for showing it beside what was said, and for checks. */
export function figuresOf(piece: Evidence): readonly EvidenceFigure[] {
  switch (piece.kind) {
    case 'length':
      return [
        {
          name: 'length',
          unit: 'mm',
          said: piece.mm,
          sigma: piece.sigma,
          of: (place) => distance(place(piece.from), place(piece.to)),
        },
      ];
    case 'equal':
      return piece.lines.slice(1).map(([c, d]) => ({
        name: 'difference',
        unit: 'mm',
        said: 0,
        sigma: piece.sigma ?? 0,
        of: (place) => distance(place(c), place(d)) - distance(place(piece.lines[0]![0]), place(piece.lines[0]![1])),
      }));
    case 'circle':
      return [
        {
          name: 'diameter',
          unit: 'mm',
          said: piece.diameterMm,
          sigma: piece.sigma,
          of: (place) => 2 * circleThrough(piece.through.map(place)).radius,
        },
      ];
    case 'rectangle': {
      const size = (place: (name: string) => Vec) =>
        sizeOfCorners(
          piece.corners ? piece.corners.map(place) : cornersOfSides(piece.sides!.map((side) => side.map(place))),
        );
      return [
        { name: 'width', unit: 'mm', said: piece.widthMm, sigma: piece.sigma, of: (place) => size(place).width },
        { name: 'height', unit: 'mm', said: piece.heightMm, sigma: piece.sigma, of: (place) => size(place).height },
      ];
    }
    case 'parallel':
      return directions(piece.lines, 0, piece.sigmaDegrees);
    case 'square':
      return directions(piece.lines, 90, piece.sigmaDegrees);
    case 'angle':
      return [
        {
          name: 'angle',
          unit: 'degrees',
          said: piece.degrees,
          sigma: piece.sigmaDegrees ?? 0,
          of: (place) => Math.abs(wrapped(lineAngle(piece.lines[1]!, place) - lineAngle(piece.lines[0]!, place), 360)),
        },
      ];
    case 'level':
      return [
        {
          name: 'angle',
          unit: 'degrees',
          said: piece.degrees,
          sigma: piece.sigmaDegrees ?? 0,
          of: (place) => piece.degrees + wrapped(lineAngle(piece.line, place) - piece.degrees, 180),
        },
      ];
    case 'straight':
      return [
        { name: 'bow', unit: 'mm', said: 0, sigma: piece.sigma ?? 0, of: (place) => bowOf(piece.through.map(place)) },
      ];
    case 'known-point':
      return (['across', 'up'] as const).map((name, axis) => ({
        name,
        unit: 'mm',
        said: piece.mm[axis],
        sigma: piece.sigma ?? 0,
        of: (place) => place(piece.point)[axis]!,
      }));
  }
}

const lineAngle = (line: readonly [string, string], place: (name: string) => Vec) =>
  directionOf([place(line[0]), place(line[1])]) * DEGREES;

function directions(lines: readonly (readonly [string, string])[], apart: number, sigma = 0): EvidenceFigure[] {
  return lines.slice(1).map((line) => ({
    name: 'angle',
    unit: 'degrees',
    said: apart,
    sigma,
    of: (place) => apart + wrapped(lineAngle(line, place) - lineAngle(lines[0]!, place) - apart, 180),
  }));
}

/** The signed bow: how far the point that strays most lies from the straight line through all. */
function bowOf(places: readonly Vec[]): number {
  const line = lineThrough(places);
  return places
    .map((place) => awayFrom(line, place))
    .reduce((worst, away) => (Math.abs(away) > Math.abs(worst) ? away : worst), 0);
}
