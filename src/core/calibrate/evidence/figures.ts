import { awayFrom, distance, lineThrough, type Vec } from '../../geometry';
import type { Observation } from './evidence';
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

type Read = EvidenceFigure['of'];
type Name = EvidenceFigure['name'];

const millimetres = (name: Name, said: number | undefined, sigma: number, of: Read): EvidenceFigure => ({
  name,
  unit: 'mm',
  said,
  sigma,
  of,
});
const degrees = (said: number, sigma: number, of: Read): EvidenceFigure => ({
  name: 'angle',
  unit: 'degrees',
  said,
  sigma,
  of,
});

/** What can be read off a piece once there is a map: for showing it beside what was said, and for checks. */
export function listFigures(piece: Observation): readonly EvidenceFigure[] {
  switch (piece.kind) {
    case 'length':
      return [millimetres('length', piece.mm, piece.sigma, (place) => lengthOf([piece.from, piece.to], place))];
    case 'equal': {
      const [first, ...others] = piece.lines;
      const longer =
        (line: Ends): Read =>
        (place) =>
          lengthOf(line, place) - lengthOf(first!, place);
      return others.map((line) => millimetres('difference', 0, piece.sigma ?? 0, longer(line)));
    }
    case 'circle': {
      const across: Read = (place) => 2 * circleThrough(piece.through.map(place)).radius;
      return [millimetres('diameter', piece.diameterMm, piece.sigma, across)];
    }
    case 'rectangle': {
      const size = (place: PlaceOf) =>
        sizeOfCorners(
          piece.corners ? piece.corners.map(place) : cornersOfSides(piece.sides!.map((side) => side.map(place))),
        );
      return [
        millimetres('width', piece.widthMm, piece.sigma, (place) => size(place).width),
        millimetres('height', piece.heightMm, piece.sigma, (place) => size(place).height),
      ];
    }
    case 'straight':
      return [millimetres('bow', 0, piece.sigma ?? 0, (place) => bowOf(piece.through.map(place)))];
    case 'known-point':
      return (['across', 'up'] as const).map((name, axis) =>
        millimetres(name, piece.mm[axis], piece.sigma ?? 0, (place) => place(piece.point)[axis]!),
      );
    default:
      return anglesOf(piece);
  }
}

/** Of pieces that tell directions. */
function anglesOf(piece: Extract<Observation, { kind: 'parallel' | 'square' | 'angle' | 'level' }>) {
  const sigma = piece.sigmaDegrees ?? 0;
  switch (piece.kind) {
    case 'parallel':
      return directions(piece.lines, 0, sigma);
    case 'square':
      return directions(piece.lines, 90, sigma);
    case 'angle': {
      const [first, second] = piece.lines;
      const between: Read = (place) => Math.abs(wrapped(lineAngle(second!, place) - lineAngle(first!, place), 360));
      return [degrees(piece.degrees, sigma, between)];
    }
    case 'level': {
      const near: Read = (place) => piece.degrees + wrapped(lineAngle(piece.line, place) - piece.degrees, 180);
      return [degrees(piece.degrees, sigma, near)];
    }
  }
}

type PlaceOf = (name: string) => Vec;
type Ends = readonly [string, string];

const lengthOf = ([from, to]: Ends, place: PlaceOf) => distance(place(from), place(to));

const lineAngle = (line: Ends, place: PlaceOf) => directionOf([place(line[0]), place(line[1])]) * DEGREES;

function directions(lines: readonly Ends[], apart: number, sigma: number): EvidenceFigure[] {
  const from =
    (line: Ends): Read =>
    (place) =>
      apart + wrapped(lineAngle(line, place) - lineAngle(lines[0]!, place) - apart, 180);
  return lines.slice(1).map((line) => degrees(apart, sigma, from(line)));
}

/** The signed bow: how far the point that strays most lies from the straight line through all. */
function bowOf(places: readonly Vec[]): number {
  const line = lineThrough(places);
  return places
    .map((place) => awayFrom(line, place))
    .reduce((worst, away) => (Math.abs(away) > Math.abs(worst) ? away : worst), 0);
}
