import { cross, distance, dot, lineAngle, mix, norm, subtract, type Vec } from '../geometry';
import type { ElementAt } from './element';
import type { RelationKind } from './relation';

/** Relations of which the object frame has to be known: what they say is no matter of one plane. */
export type SpatialKind = 'one-across' | 'one-deep' | 'one-up';

/** What a relation misses by, one number an equation, mm; not finite where it has no meaning. `value` is the relation's own. */
export type Equations = (on: readonly ElementAt[], value: number) => readonly number[];

type LineSeen = Extract<ElementAt, { kind: 'line' }>;
type RoundSeen = Extract<ElementAt, { kind: 'round' }>;

const along = ({ a, b }: LineSeen): Vec => subtract(b, a);
const asPoint = (it: ElementAt): Vec =>
  it.kind === 'point' ? it.at : it.kind === 'round' ? it.centre : mix(it.a, it.b, 0.5);
/** Distance of a place from a line, positive on its left. */
const offLine = (line: LineSeen, at: Vec) => cross(along(line), subtract(at, line.a)) / norm(along(line));

const line = (it: ElementAt | undefined) => it as LineSeen;
const round = (it: ElementAt | undefined) => it as RoundSeen;

/** Where two pieces share an end, if they do: within a millionth of their size. */
function sharedEnd(p: readonly Vec[], q: readonly Vec[]): Vec | undefined {
  return p.find((a) => q.some((b) => distance(a, b) <= 1e-6 * (1 + norm(a))));
}

/**
 * A line touches a round piece. Where they share an end, the spoke to it is square to the line, which is steadier than comparing a
 * distance with a radius: the two differ in second order only.
 */
function tangentToLine(touching: LineSeen, to: RoundSeen): number {
  const shared = sharedEnd([touching.a, touching.b], to.ends);
  if (shared) return dot(subtract(to.centre, shared), along(touching)) / norm(along(touching));
  return Math.abs(offLine(touching, to.centre)) - to.radius;
}

function tangentRounds(a: RoundSeen, b: RoundSeen): number {
  const shared = sharedEnd(a.ends, b.ends);
  if (shared) return cross(subtract(a.centre, shared), subtract(b.centre, shared)) / Math.max(a.radius, b.radius);
  const apart = distance(a.centre, b.centre);
  const [outside, inside] = [apart - (a.radius + b.radius), apart - Math.abs(a.radius - b.radius)];
  return Math.abs(outside) < Math.abs(inside) ? outside : inside;
}

/** Said with the point of the line at which it touches, the spoke to that is as long as the radius and square to the line: steadier than both conditions by themselves. */
function tangent([a, b, touching]: readonly ElementAt[]): readonly number[] {
  if (touching && a!.kind === 'line') {
    const spoke = subtract(round(b).centre, asPoint(touching));
    return [norm(spoke) - round(b).radius, dot(spoke, along(a!)) / norm(along(a!))];
  }
  if (a!.kind === 'line') return [tangentToLine(a!, round(b))];
  return b!.kind === 'line' ? [tangentToLine(b!, round(a))] : [tangentRounds(round(a), round(b))];
}

/** How far the turn from one line to another is from a value, radians. Lines have no front: half a turn is none. */
function turnedBy(a: Vec, b: Vec, value: number): number {
  return lineAngle(Math.atan2(cross(a, b), dot(a, b)) - value);
}

/** Where both ways are as near (lines that are square now), the first is taken: a search must not waver between them. Radians. */
const NO_CHOICE = 1e-3;

/** As `turnedBy`, whichever way the angle between them is counted. */
function between(a: Vec, b: Vec, value: number): number {
  const [one, other] = [turnedBy(a, b, value), turnedBy(a, b, -value)];
  return Math.abs(one) <= Math.abs(other) + NO_CHOICE ? one : other;
}

function apart([a, b]: readonly ElementAt[]): number {
  if (a!.kind === 'line') return Math.abs(offLine(a!, asPoint(b!)));
  return b!.kind === 'line' ? Math.abs(offLine(b!, asPoint(a!))) : distance(asPoint(a!), asPoint(b!));
}

/** Both ends of one line lie as far from the other, on the side on which it is: they are parallel by that. */
function linesApart(a: LineSeen, b: LineSeen, value: number): readonly number[] {
  const side = Math.sign(offLine(a, asPoint(b))) || 1;
  return [side * offLine(a, b.a) - value, side * offLine(a, b.b) - value];
}

const difference = (a: Vec, b: Vec): readonly number[] => [a[0] - b[0], a[1] - b[1]];

/** Each relation as its equations. All are lengths, so that one tolerance serves them. */
export const EQUATIONS: Readonly<Record<Exclude<RelationKind, SpatialKind>, Equations>> = {
  level: ([a]) => [along(line(a))[1]],
  upright: ([a]) => [along(line(a))[0]],
  parallel: ([a, b]) => [cross(along(line(a)), along(line(b))) / Math.max(norm(along(line(a))), norm(along(line(b))))],
  square: ([a, b]) => [dot(along(line(a)), along(line(b))) / Math.max(norm(along(line(a))), norm(along(line(b))))],
  collinear: ([a, b]) => [offLine(line(a), line(b).a), offLine(line(a), line(b).b)],
  tangent,
  concentric: ([a, b]) => difference(asPoint(a!), asPoint(b!)),
  coincident: ([a, b]) => difference(asPoint(a!), asPoint(b!)),
  on: ([p, it]) => [
    it!.kind === 'line' ? offLine(it!, asPoint(p!)) : distance(asPoint(p!), round(it).centre) - round(it).radius,
  ],
  middle: ([p, a]) => difference(asPoint(p!), asPoint(a!)),
  'equal-length': ([a, b]) => [norm(along(line(a))) - norm(along(line(b)))],
  'equal-radius': ([a, b]) => [round(a).radius - round(b).radius],
  'equal-spacing': (all) =>
    all.slice(2).flatMap((it, i) => difference(mix(asPoint(all[i]!), asPoint(it), 0.5), asPoint(all[i + 1]!))),
  symmetric: ([p, q, about]) => [
    offLine(line(about), mix(asPoint(p!), asPoint(q!), 0.5)),
    dot(subtract(asPoint(q!), asPoint(p!)), along(line(about))) / norm(along(line(about))),
  ],
  length: ([a], value) => [norm(along(line(a))) - value],
  radius: ([a], value) => [round(a).radius - value],
  angle: ([a, b], value) => [
    between(along(line(a)), along(line(b)), value) * Math.min(norm(along(line(a))), norm(along(line(b)))),
  ],
  direction: ([a], value) => [turnedBy([1, 0], along(line(a)), value) * norm(along(line(a)))],
  distance: ([a, b], value) =>
    a!.kind === 'line' && b!.kind === 'line' ? linesApart(a!, b!, value) : [apart([a!, b!]) - value],
  across: ([p], value) => [asPoint(p!)[0] - value],
  up: ([p], value) => [asPoint(p!)[1] - value],
};
