import type { Condition } from '../../adjust';
import { awayFrom, distance, lineThrough, type Vec } from '../../geometry';
import { onPlane, type Conditions, type EvidenceContext } from './context';
import type { Observation, ObservationOf, LineEnds } from './evidence';
import { missOfCorner, missOfSide } from './on-rectangle';
import { circleThrough, cornersOfSides, directionOf, doubleArea, sizeOfCorners, wrapped } from './plane-figures';

const RADIANS = Math.PI / 180;
const HALF_TURN = Math.PI;

/** A piece of evidence as conditions of the adjustment, all in the group of its id. */
export function conditionsOf(piece: Observation, context: EvidenceContext): Conditions {
  switch (piece.kind) {
    case 'length':
      return length(piece, context);
    case 'equal':
      return equal(piece, context);
    case 'circle':
      return circle(piece, context);
    case 'rectangle':
      return rectangle(piece, context);
    case 'parallel':
      return directions(piece, context, 0);
    case 'square':
      return directions(piece, context, HALF_TURN / 2);
    case 'angle':
      return angle(piece, context);
    case 'level':
      return level(piece, context);
    case 'straight':
      return straight(piece, context);
    case 'known-point':
      return knownPoint(piece, context);
  }
}

function length({ id, from, to, mm, sigma }: ObservationOf<'length'>, context: EvidenceContext): Conditions {
  return {
    blocks: [],
    conditions: [
      onPlane(context, {
        group: id,
        exact: false,
        points: [from, to],
        linearize: ([a, b]) => {
          const apart = distance(a!, b!);
          const [x, y] = [(b![0] - a![0]) / apart / sigma, (b![1] - a![1]) / apart / sigma];
          return { residuals: [(apart - mm) / sigma], slopes: [[-x, -y, x, y]] };
        },
      }),
    ],
  };
}

function equal({ id, lines, sigma }: ObservationOf<'equal'>, context: EvidenceContext): Conditions {
  const [first, ...others] = lines;
  return {
    blocks: [],
    conditions: others.map((line) =>
      onPlane(context, {
        group: id,
        exact: sigma === undefined,
        points: [...first!, ...line],
        residuals: ([a, b, c, d]) => [(distance(c!, d!) - distance(a!, b!)) / (sigma ?? 1)],
      }),
    ),
  };
}

/** Every rim point lies exactly on one circle, whose diameter was stated once. */
function circle({ id, through, diameterMm, sigma }: ObservationOf<'circle'>, context: EvidenceContext): Conditions {
  const own = `${id}:circle`;
  const { centre, radius } = circleThrough(through.map(context.place));
  const rim = through.map((point) =>
    onPlane(context, {
      group: id,
      exact: true,
      points: [point],
      blocks: [own],
      linearize: ([place], [numbers]) => {
        const [x, y, radius] = numbers as unknown as readonly [number, number, number];
        const away = distance(place!, [x, y]);
        const [u, v] = [(place![0] - x) / away, (place![1] - y) / away];
        return { residuals: [away - radius], slopes: [[u, v, -u, -v, -1]] };
      },
    }),
  );
  const size = {
    group: id,
    exact: false,
    origin: 'stated' as const,
    blocks: [own],
    residuals: ([numbers]: readonly (readonly number[])[]) => [(2 * numbers![2]! - diameterMm!) / sigma],
  };
  return {
    blocks: [{ id: own, start: [...centre, radius] }],
    conditions: diameterMm === undefined ? rim : [...rim, size],
  };
}

/** A rectangle of its own (middle, turn, width, height) that corners or side points lie on exactly; its sizes are stated once each. */
function rectangle(piece: ObservationOf<'rectangle'>, context: EvidenceContext): Conditions {
  const { id, corners, sides, widthMm, heightMm, proportion, sigma } = piece;
  const own = `${id}:rectangle`;
  const placed = corners ? corners.map(context.place) : cornersOfSides(sides!.map((side) => side.map(context.place)));
  const { width, height } = sizeOfCorners(placed);
  const hand = Math.sign(doubleArea(placed));
  const middle: Vec = [0, 1].map(
    (axis) => placed.reduce((sum, corner) => sum + corner[axis]!, 0) / 4,
  ) as unknown as Vec;
  const turn = directionOf([placed[0]!, placed[1]!]);
  const said = (exact: boolean, missOf: (numbers: readonly number[]) => number) => ({
    group: id,
    exact,
    origin: 'stated' as const,
    blocks: [own],
    residuals: ([numbers]: readonly (readonly number[])[]) => [missOf(numbers!)],
  });
  return {
    blocks: [{ id: own, start: [...middle, turn, width, height] }],
    conditions: [
      ...onRectangle(piece, context, own, hand),
      ...(widthMm === undefined ? [] : [said(false, (numbers) => (numbers[3]! - widthMm) / sigma)]),
      ...(heightMm === undefined ? [] : [said(false, (numbers) => (numbers[4]! - heightMm) / sigma)]),
      ...(proportion === undefined ? [] : [said(true, (numbers) => numbers[3]! - proportion * numbers[4]!)]),
    ],
  };
}

/** That its corners, or the points on its sides, lie on it. */
function onRectangle(
  { id, corners, sides }: ObservationOf<'rectangle'>,
  context: EvidenceContext,
  own: string,
  hand: number,
): readonly Condition[] {
  const lying = (point: string) => ({ group: id, exact: true, points: [point], blocks: [own] });
  if (corners)
    return corners.map((corner, i) =>
      onPlane(context, {
        ...lying(corner),
        linearize: ([place], [numbers]) => missOfCorner(place!, numbers!, hand, i),
      }),
    );
  return sides!.flatMap((side, i) =>
    side.map((point) =>
      onPlane(context, {
        ...lying(point),
        linearize: ([place], [numbers]) => missOfSide(place!, numbers!, hand, i),
      }),
    ),
  );
}

/** Every further line runs at `apart` to the first, whichever way the two are drawn. */
function directions(
  { id, lines, sigmaDegrees }: ObservationOf<'parallel' | 'square'>,
  context: EvidenceContext,
  apart: number,
): Conditions {
  const [first, ...others] = lines;
  return {
    blocks: [],
    conditions: others.map((line) =>
      onPlane(context, {
        group: id,
        exact: sigmaDegrees === undefined,
        points: [...first!, ...line],
        residuals: ([a, b, c, d]) => [
          wrapped(directionOf([c!, d!]) - directionOf([a!, b!]) - apart, HALF_TURN) / noise(sigmaDegrees),
        ],
      }),
    ),
  };
}

/** The angle between two lines as they are drawn, from their first points to their second. */
function angle({ id, lines, degrees, sigmaDegrees }: ObservationOf<'angle'>, context: EvidenceContext): Conditions {
  const [first, second] = lines as readonly [LineEnds, LineEnds];
  return {
    blocks: [],
    conditions: [
      onPlane(context, {
        group: id,
        exact: sigmaDegrees === undefined,
        points: [...first, ...second],
        residuals: ([a, b, c, d]) => [
          (Math.abs(wrapped(directionOf([c!, d!]) - directionOf([a!, b!]), 2 * HALF_TURN)) - degrees * RADIANS) /
            noise(sigmaDegrees),
        ],
      }),
    ],
  };
}

function level(
  { id, line, degrees, sigmaDegrees, isDirected }: ObservationOf<'level'>,
  context: EvidenceContext,
): Conditions {
  const period = isDirected ? 2 * HALF_TURN : HALF_TURN;
  return {
    blocks: [],
    conditions: [
      onPlane(context, {
        group: id,
        exact: sigmaDegrees === undefined,
        points: line,
        residuals: ([a, b]) => [wrapped(directionOf([a!, b!]) - degrees * RADIANS, period) / noise(sigmaDegrees)],
      }),
    ],
  };
}

function straight({ id, through, sigma }: ObservationOf<'straight'>, context: EvidenceContext): Conditions {
  const own = `${id}:line`;
  const { normal, offset } = lineThrough(through.map(context.place));
  return {
    blocks: [{ id: own, start: [normal, offset] }],
    conditions: through.map((point) =>
      onPlane(context, {
        group: id,
        exact: sigma === undefined,
        points: [point],
        blocks: [own],
        linearize: ([place], [numbers]) => {
          const [x, y] = place!;
          const [normal, offset] = numbers as unknown as Vec;
          const [c, s, noise] = [Math.cos(normal), Math.sin(normal), sigma ?? 1];
          return {
            residuals: [awayFrom({ normal, offset }, place!) / noise],
            slopes: [[c / noise, s / noise, (y * c - x * s) / noise, -1 / noise]],
          };
        },
      }),
    ),
  };
}

function knownPoint({ id, point, mm, sigma }: ObservationOf<'known-point'>, context: EvidenceContext): Conditions {
  return {
    blocks: [],
    conditions: [
      onPlane(context, {
        group: id,
        exact: sigma === undefined,
        points: [point],
        residuals: ([place]) => [(place![0] - mm[0]) / (sigma ?? 1), (place![1] - mm[1]) / (sigma ?? 1)],
      }),
    ],
  };
}

const noise = (sigmaDegrees: number | undefined) => (sigmaDegrees === undefined ? 1 : sigmaDegrees * RADIANS);
