import { axesOf, startOf, type Arc, type EllipticArc, type Piece } from './piece';
import { add, angleOf, cross, dot, norm, scale, subtract, type Vec } from './vec';

/** x' = a·x + c·y + e, y' = b·x + d·y + f. */
export type Affine = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export const UNMOVED: Affine = [1, 0, 0, 1, 0, 0];

export const applied = ([a, b, c, d, e, f]: Affine, [x, y]: Vec): Vec => [a * x + c * y + e, b * x + d * y + f];

/** First `inner`, then `outer`. */
export function composed(outer: Affine, [a, b, c, d, e, f]: Affine): Affine {
  const [p, q, r, s] = outer;
  return [p * a + r * b, q * a + s * b, p * c + r * d, q * c + s * d, ...applied(outer, [e, f])];
}

/** Turned by an angle (radians, counter-clockwise where y is up), stretched before that, moved after. */
export function placed(at: Vec, angle = 0, across = 1, up = across): Affine {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return [across * cos, across * sin, -up * sin, up * cos, at[0], at[1]];
}

/** Off by less than this share, a map counts as one that keeps circles round. */
const ROUND = 1e-9;

function keepsCircles([a, b, c, d]: Affine): boolean {
  const [across, up] = [a * a + b * b, c * c + d * d];
  return Math.abs(across - up) <= ROUND * (across + up) && Math.abs(a * c + b * d) <= ROUND * (across + up);
}

/** A piece under an affine map, exact. A circle that is squeezed becomes an ellipse. */
export function moved(piece: Piece, map: Affine): Piece {
  switch (piece.kind) {
    case 'line':
      return { kind: 'line', a: applied(map, piece.a), b: applied(map, piece.b) };
    case 'cubic':
      return {
        kind: 'cubic',
        a: applied(map, piece.a),
        b: applied(map, piece.b),
        c: applied(map, piece.c),
        d: applied(map, piece.d),
      };
    case 'arc':
      return keepsCircles(map)
        ? movedArc(piece, map)
        : movedEllipse({ ...piece, kind: 'ellipse', major: [piece.radius, 0], ratio: 1 }, map);
    case 'ellipse':
      return movedEllipse(piece, map);
  }
}

function movedArc(arc: Arc, map: Affine): Arc {
  const centre = applied(map, arc.centre);
  const hand = Math.sign(map[0] * map[3] - map[1] * map[2]);
  return {
    kind: 'arc',
    centre,
    radius: arc.radius * Math.hypot(map[0], map[1]),
    start: angleOf(subtract(applied(map, startOf(arc)), centre)),
    sweep: hand * arc.sweep,
  };
}

/** An ellipse by two conjugate half-diameters p (at u = 0) and q (at a quarter turn): its axes are where the distance from the centre stands still. */
export function ellipseFrom(centre: Vec, p: Vec, q: Vec, start: number, sweep: number): EllipticArc {
  const first = Math.atan2(2 * dot(p, q), dot(p, p) - dot(q, q)) / 2;
  const [c, s] = [Math.cos(first), Math.sin(first)];
  const [major, minor] = [add(scale(p, c), scale(q, s)), subtract(scale(q, c), scale(p, s))];
  const hand = cross(major, minor) < 0 ? -1 : 1;
  return {
    kind: 'ellipse',
    centre,
    major,
    ratio: Math.min(1, Math.max(FLATTEST, norm(minor) / norm(major))),
    start: hand * (start - first),
    sweep: hand * sweep,
  };
}

/** An ellipse flatter than this is drawn as flat as this: files want a ratio above nothing. */
const FLATTEST = 1e-6;

function movedEllipse(ellipse: EllipticArc, map: Affine): EllipticArc {
  const centre = applied(map, ellipse.centre);
  const [p, q] = axesOf(ellipse).map((axis) => subtract(applied(map, add(ellipse.centre, axis)), centre)) as [Vec, Vec];
  return ellipseFrom(centre, p, q, ellipse.start, ellipse.sweep);
}
