import { median } from '../basics';
import { distance, type Vec } from '../geometry';
import {
  circleThrough,
  cornersOfSides,
  directionOf,
  pointsOf,
  sizeOfCorners,
  wrapped,
  type Observation,
  type Points,
} from './evidence';
import { firstNumberOf, type MapModel } from './models';
import { OWN_PLANE } from './projection';
import { listSlants, type Slant, type Slants } from './slants';
import { isInFront, toPlane, type SheetMap } from './sheet-map';

/** Slants that are tried when square-on does not lead anywhere, eight ways round (radians; for a map without camera the horizon's numbers are about as large). */
const STEEP = 0.6;
const SLANTS = Array.from({ length: 8 }, (_, i): Vec => [
  STEEP * Math.cos((i * Math.PI) / 4),
  STEEP * Math.sin((i * Math.PI) / 4),
]);

/**
 * Numbers of a model to start from, square-on first. Each has the scale that the stated sizes ask for, and turn and shift from
 * level lines and known points. Slants that put a point behind the horizon are left out.
 */
export function* listStarts(model: MapModel, evidence: readonly Observation[], points: Points): Generator<number[]> {
  const canTilt = model.parts.some(({ id }) => id === 'tilt');
  for (const tilt of [[0, 0], ...(canTilt ? SLANTS : [])] as const) {
    const numbers = startAt(model, evidence, points, { tilt });
    if (numbers) yield numbers;
  }
}

/** Numbers of a camera to start from when it may have been held any way: what rectangles and circles tell, or else every slant. */
export function listSlantedStarts(
  model: MapModel,
  evidence: readonly Observation[],
  points: Points,
): { readonly starts: readonly (readonly number[])[]; readonly by: Slants['by'] | 'nothing' } {
  const { slants, by } = listSlants(model.picture, evidence, points);
  const told = slants
    .map((slant) => startAt(model, evidence, points, slant))
    .filter((numbers) => numbers !== undefined);
  return told.length > 0 ? { starts: told, by } : { starts: [...listStarts(model, evidence, points)], by: 'nothing' };
}

function startAt(
  model: MapModel,
  evidence: readonly Observation[],
  points: Points,
  { tilt, focal }: Pick<Slant, 'tilt'> & Partial<Slant>,
): number[] | undefined {
  const numbers = model.parts.flatMap(({ id, start }) =>
    id === 'tilt' ? [...tilt] : id === 'focal' && focal ? [Math.log(focal)] : [...start],
  );
  const placeWith =
    (map: SheetMap) =>
    (name: string): Vec =>
      toPlane(map, points[name]!.at);
  const first = model.mapAt(numbers, OWN_PLANE);
  if (!evidence.every((piece) => pointsOf(piece).every((name) => isInFront(first, points[name]!.at)))) return undefined;
  const ratios = ratiosIn(evidence, placeWith(first));
  if (ratios.length > 0) numbers[firstNumberOf(model, 'scale')]! += Math.log(median(ratios));
  if (firstNumberOf(model, 'turn') >= 0)
    numbers[firstNumberOf(model, 'turn')] = findTurn(evidence, placeWith(model.mapAt(numbers, OWN_PLANE)));
  const shift = firstNumberOf(model, 'shift');
  if (shift >= 0)
    [numbers[shift], numbers[shift + 1]] = meanShift(evidence, placeWith(model.mapAt(numbers, OWN_PLANE)));
  return numbers;
}

/** Stated over shown, for every size that pieces state and for the known places that lie farthest apart, when places are as `place` says. */
export const ratiosIn = (evidence: readonly Observation[], place: (name: string) => Vec): number[] => [
  ...evidence.flatMap((piece) => sizeRatios(piece, place)),
  ...spacingRatios(evidence, place),
];

/** Stated over shown, for every size that a piece states. */
function sizeRatios(piece: Observation, place: (name: string) => Vec): number[] {
  if (piece.kind === 'length') return [piece.mm / distance(place(piece.from), place(piece.to))];
  if (piece.kind === 'circle')
    return piece.diameterMm === undefined
      ? []
      : [piece.diameterMm / (2 * circleThrough(piece.through.map(place)).radius)];
  if (piece.kind !== 'rectangle') return [];
  const { width, height } = sizeOfCorners(
    piece.corners ? piece.corners.map(place) : cornersOfSides(piece.sides!.map((side) => side.map(place))),
  );
  return [
    ...(piece.widthMm === undefined ? [] : [piece.widthMm / width]),
    ...(piece.heightMm === undefined ? [] : [piece.heightMm / height]),
  ];
}

type Known = Extract<Observation, { kind: 'known-point' }>;
const listKnown = (evidence: readonly Observation[]) =>
  evidence.filter((piece): piece is Known => piece.kind === 'known-point');

function spacingRatios(evidence: readonly Observation[], place: (name: string) => Vec): number[] {
  const pair = furthestApart(listKnown(evidence));
  return pair ? [distance(pair[0].mm, pair[1].mm) / distance(place(pair[0].point), place(pair[1].point))] : [];
}

function furthestApart(known: readonly Known[]): readonly [Known, Known] | undefined {
  let best: readonly [Known, Known] | undefined;
  for (const a of known)
    for (const b of known) if (distance(a.mm, b.mm) > (best ? distance(best[0].mm, best[1].mm) : 0)) best = [a, b];
  return best;
}

function findTurn(evidence: readonly Observation[], place: (name: string) => Vec): number {
  const pair = furthestApart(listKnown(evidence));
  if (pair)
    return wrapped(
      directionOf([pair[0].mm, pair[1].mm]) - directionOf([place(pair[0].point), place(pair[1].point)]),
      2 * Math.PI,
    );
  const level = evidence.find((piece) => piece.kind === 'level');
  return level?.kind === 'level'
    ? wrapped((level.degrees * Math.PI) / 180 - directionOf([place(level.line[0]), place(level.line[1])]), Math.PI)
    : 0;
}

function meanShift(evidence: readonly Observation[], place: (name: string) => Vec): [number, number] {
  const known = listKnown(evidence);
  const mean = (axis: 0 | 1) =>
    known.reduce((sum, { point, mm }) => sum + mm[axis] - place(point)[axis], 0) / known.length;
  return [mean(0), mean(1)];
}
