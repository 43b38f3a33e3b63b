import {
  add,
  dot,
  cross,
  distance,
  mix,
  norm,
  perpendicular,
  polar,
  positiveAngle,
  scale,
  subtract,
  type Vec,
} from './vec';

/** The pieces that outlines are made of, in one plane, y up. Parameter t runs from 0 at the start to 1 at the end. */
export interface Line {
  readonly kind: 'line';
  readonly a: Vec;
  readonly b: Vec;
}

/** `start` in radians, `sweep` signed (counter-clockwise positive); a sweep of ±2π is a whole circle. */
export interface Arc {
  readonly kind: 'arc';
  readonly centre: Vec;
  readonly radius: number;
  readonly start: number;
  readonly sweep: number;
}

/** A cubic Bézier curve: from a to d, drawn towards the handles b and c. */
export interface Cubic {
  readonly kind: 'cubic';
  readonly a: Vec;
  readonly b: Vec;
  readonly c: Vec;
  readonly d: Vec;
}

/**
 * A piece of an ellipse: centre + cos(u)·major + sin(u)·ratio·(major turned a quarter left), u from `start` over `sweep` (radians, signed). `major` is the longer
 * half-axis: ratio is above 0 and at most 1. A sweep of ±2π is a whole one.
 */
export interface EllipticArc {
  readonly kind: 'ellipse';
  readonly centre: Vec;
  readonly major: Vec;
  readonly ratio: number;
  readonly start: number;
  readonly sweep: number;
}

export type Piece = Line | Arc | Cubic | EllipticArc;

const isWholeTurn = ({ sweep }: { readonly sweep: number }) => Math.abs(sweep) >= 2 * Math.PI - 1e-12;

export function isFullCircle(piece: Piece): piece is Arc {
  return piece.kind === 'arc' && isWholeTurn(piece);
}

/** Whether a piece closes on itself: a whole circle or ellipse. */
export function isRound(piece: Piece): piece is Arc | EllipticArc {
  return (piece.kind === 'arc' || piece.kind === 'ellipse') && isWholeTurn(piece);
}

/** The half-axes of an ellipse as displacements from its centre. */
export const axesOf = ({ major, ratio }: EllipticArc): readonly [Vec, Vec] => [
  major,
  scale(perpendicular(major), ratio),
];

/** a·cos(u) + b·sin(u) */
const turned = (a: Vec, b: Vec, u: number): Vec => add(scale(a, Math.cos(u)), scale(b, Math.sin(u)));

export function pointAt(piece: Piece, t: number): Vec {
  switch (piece.kind) {
    case 'line':
      return mix(piece.a, piece.b, t);
    case 'arc':
      return add(piece.centre, polar(piece.radius, piece.start + piece.sweep * t));
    case 'ellipse':
      return add(piece.centre, turned(...axesOf(piece), piece.start + piece.sweep * t));
    case 'cubic': {
      const s = 1 - t;
      const [p, q, r, u] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
      return [
        p * piece.a[0] + q * piece.b[0] + r * piece.c[0] + u * piece.d[0],
        p * piece.a[1] + q * piece.b[1] + r * piece.c[1] + u * piece.d[1],
      ];
    }
  }
}

/** dP/dt: its length is the speed, its direction the tangent. Zero where a cubic's handle lies on its end. */
export function velocityAt(piece: Piece, t: number): Vec {
  switch (piece.kind) {
    case 'line':
      return subtract(piece.b, piece.a);
    case 'arc':
      return scale(perpendicular(polar(piece.radius, piece.start + piece.sweep * t)), piece.sweep);
    case 'ellipse':
      return scale(turned(...axesOf(piece), piece.start + piece.sweep * t + Math.PI / 2), piece.sweep);
    case 'cubic': {
      const { a, b, c, d } = piece;
      const s = 1 - t;
      const [p, q, r] = [3 * s * s, 6 * s * t, 3 * t * t];
      // Coordinate by coordinate, without displacements between: nothing is asked for as often.
      return [
        p * (b[0] - a[0]) + q * (c[0] - b[0]) + r * (d[0] - c[0]),
        p * (b[1] - a[1]) + q * (c[1] - b[1]) + r * (d[1] - c[1]),
      ];
    }
  }
}

/** d²P/dt² */
export function accelerationAt(piece: Piece, t: number): Vec {
  switch (piece.kind) {
    case 'line':
      return [0, 0];
    case 'arc':
      return scale(polar(piece.radius, piece.start + piece.sweep * t), -(piece.sweep ** 2));
    case 'ellipse':
      return scale(turned(...axesOf(piece), piece.start + piece.sweep * t), -(piece.sweep ** 2));
    case 'cubic': {
      const { a, b, c, d } = piece;
      const [p, q] = [6 * (1 - t), 6 * t];
      return [
        p * (a[0] - 2 * b[0] + c[0]) + q * (b[0] - 2 * c[0] + d[0]),
        p * (a[1] - 2 * b[1] + c[1]) + q * (b[1] - 2 * c[1] + d[1]),
      ];
    }
  }
}

/** Curvature, 1/unit: positive where it turns left. Not a number where a cubic stands still. */
export function curvatureAt(piece: Piece, t: number): number {
  const velocity = velocityAt(piece, t);
  return cross(velocity, accelerationAt(piece, t)) / norm(velocity) ** 3;
}

/** Tangent direction, also at a cubic's end whose handle is withdrawn: there the next different control point leads. */
export function tangentAt(piece: Piece, t: number): Vec {
  const velocity = velocityAt(piece, t);
  const size = norm(velocity);
  if (size > 1e-12) return scale(velocity, 1 / size);
  if (piece.kind !== 'cubic') return [1, 0];
  const near = t < 0.5 ? velocityAt(piece, 1e-4) : velocityAt(piece, 1 - 1e-4);
  return norm(near) > 0 ? scale(near, 1 / norm(near)) : [1, 0];
}

export const startOf = (piece: Piece): Vec => (piece.kind === 'cubic' ? piece.a : pointAt(piece, 0));
export const endOf = (piece: Piece): Vec => (piece.kind === 'cubic' ? piece.d : pointAt(piece, 1));

export function reversed(piece: Piece): Piece {
  switch (piece.kind) {
    case 'line':
      return { kind: 'line', a: piece.b, b: piece.a };
    case 'arc':
    case 'ellipse':
      return { ...piece, start: piece.start + piece.sweep, sweep: -piece.sweep };
    case 'cubic':
      return { kind: 'cubic', a: piece.d, b: piece.c, c: piece.b, d: piece.a };
  }
}

/** Where an angle about the centre (of an ellipse: its u) lies on an arc, as t in [0, 1], or undefined outside it. `slack` in radians. */
export function findArcParameter(
  arc: Pick<Arc | EllipticArc, 'start' | 'sweep'>,
  angle: number,
  slack = 1e-9,
): number | undefined {
  const size = Math.abs(arc.sweep);
  if (size === 0) return undefined;
  const turned = positiveAngle((angle - arc.start) * Math.sign(arc.sweep));
  if (turned <= size + slack) return Math.min(1, turned / size);
  return turned >= 2 * Math.PI - slack ? 0 : undefined;
}

/** Sweep of what bows by a millionth of its chord, radians. */
const AS_GOOD_AS_STRAIGHT = 8e-6;

/** An arc that bows by less than a millionth of its chord is the chord: its middle lies so far away that rounding there is more than it bows. Anything else as it is. */
export function withoutFalseBow(piece: Piece): Piece {
  return piece.kind === 'arc' && Math.abs(piece.sweep) < AS_GOOD_AS_STRAIGHT
    ? { kind: 'line', a: startOf(piece), b: endOf(piece) }
    : piece;
}

/** The arc through three points in this order; undefined when they lie in a line or two of them are one. */
export function findArcThrough(a: Vec, through: Vec, b: Vec): Arc | undefined {
  const centre = findCircumcentre(a, through, b);
  if (!centre) return undefined;
  const angle = (p: Vec) => Math.atan2(p[1] - centre[1], p[0] - centre[0]);
  const start = angle(a);
  const counter = cross(subtract(through, a), subtract(b, through)) > 0;
  const sweep = counter ? positiveAngle(angle(b) - start) : -positiveAngle(start - angle(b));
  return { kind: 'arc', centre, radius: distance(centre, a), start, sweep };
}

/** Centre of the circle through three points; undefined when they lie in a line within 1e-9 of their own spread. */
export function findCircumcentre(a: Vec, b: Vec, c: Vec): Vec | undefined {
  const [p, q] = [subtract(b, a), subtract(c, a)];
  const twice = 2 * cross(p, q);
  const spread = Math.max(dot(p, p), dot(q, q));
  if (Math.abs(twice) <= 2e-9 * spread || distance(b, c) <= 1e-12 * Math.sqrt(spread)) return undefined;
  const [pp, qq] = [dot(p, p), dot(q, q)];
  return [a[0] + (q[1] * pp - p[1] * qq) / twice, a[1] + (p[0] * qq - q[0] * pp) / twice];
}

/** The arc that leaves `a` along `direction` and ends at `b`; a line when b lies straight ahead; undefined straight behind. */
export function findTangentArc(a: Vec, direction: Vec, b: Vec): Arc | Line | undefined {
  const chord = subtract(b, a);
  const length = norm(chord);
  if (length === 0) return undefined;
  const side = cross(direction, chord) / norm(direction);
  if (Math.abs(side) <= 1e-9 * length) return dot(direction, chord) > 0 ? { kind: 'line', a, b } : undefined;
  const radius = (length * length) / (2 * side);
  const centre = add(a, scale(perpendicular(direction), radius / norm(direction)));
  const half = Math.atan2(side, dot(direction, chord) / norm(direction));
  const start = Math.atan2(a[1] - centre[1], a[0] - centre[0]);
  return { kind: 'arc', centre, radius: Math.abs(radius), start, sweep: 2 * half };
}

export function circle(centre: Vec, radius: number): Arc {
  return { kind: 'arc', centre, radius, start: 0, sweep: 2 * Math.PI };
}
