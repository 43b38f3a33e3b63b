import type { Measured } from '../adjust';
import {
  dot,
  findClearance,
  mix,
  startOf,
  subtract,
  windingNumber,
  type Line,
  type Piece,
  type Vec,
} from '../geometry';
import type { Job, Setback } from '../job';
import { findThing, type Outline, type Shape, type Siting } from '../outline';
import type { Derived } from './derived';
import { measureShapes } from './figures';
import { isSitedBy } from './sited';

/** How what is set on a plane keeps from an edge there. mm */
export interface Clearance {
  /** How much farther it stays than it has to, its overhang taken off; below nothing it is over by so much. One sigma. */
  readonly margin: Measured;
  /** Its place that comes nearest, as it is drawn, and the edge's. */
  readonly from: Vec;
  readonly to: Vec;
}

interface Judged {
  readonly job: Job;
  readonly derived: Derived;
}

type Shapes = ReadonlyMap<string, Shape>;

/** The edge that has to be kept from; undefined when it is gone, or bent now. */
export function edgeKept(
  { on: [end] }: Setback,
  { outlines }: Pick<Job, 'outlines'>,
  shapes: Shapes,
): Line | undefined {
  const thing = findThing(end, outlines, shapes);
  return thing?.kind === 'piece' && thing.piece.kind === 'line' ? thing.piece : undefined;
}

/** Share of an edge by which one looks beside it to see on which side it holds something. */
const BESIDE = 1e-6;

/** On which side of an edge what is set there belongs: within what the edge is of, where that is shut, else where most of some pieces lies. 1: to its left. */
export function innerSideOf({ a, b }: Line, of: Shape | undefined, pieces: readonly Piece[]): 1 | -1 {
  const [along, middle] = [subtract(b, a), mix(a, b, 0.5)];
  const left: Vec = [-along[1], along[0]];
  const [x, y] = middle;
  if (of?.closed) return windingNumber(of.finished, [x + BESIDE * left[0], y + BESIDE * left[1]]) === 0 ? -1 : 1;
  return pieces.reduce((sum, piece) => sum + dot(left, subtract(startOf(piece), middle)), 0) < 0 ? -1 : 1;
}

/** What a siting shows on its plane: on shown layers, and no aids. */
export const outlinesSited = (
  { outlines, layers }: Pick<Job, 'outlines' | 'layers'>,
  siting: Siting,
): readonly Outline[] =>
  outlines.filter(
    (outline) =>
      isSitedBy(siting, outline) && !outline.aid && layers.some(({ id, show }) => id === outline.layer && show),
  );

/** How a drawing keeps from an edge; undefined where one of them is gone, or the drawing lies past the edge's ends and beyond it. */
export function clearanceOf(setback: Setback, siting: Siting, { job, derived }: Judged): Clearance | undefined {
  const edge = edgeKept(setback, job, derived.shapes);
  if (!edge) return undefined;
  const sited = outlinesSited(job, siting);
  const piecesOf = (outlines: readonly Outline[], shapes: Shapes) =>
    outlines.flatMap(({ id }) => shapes.get(id)?.finished ?? []);
  const boundary = job.outlines.filter(({ id }) => id === setback.on[0].outline);
  const inner = innerSideOf(edge, derived.shapes.get(boundary[0]!.id), piecesOf(sited, derived.shapes));
  const gaps = sited.flatMap((outline) => {
    const gap = findClearance(piecesOf([outline], derived.shapes), edge, inner);
    return gap ? [{ outline, gap }] : [];
  });
  if (gaps.length === 0) return undefined;
  const { outline, gap } = gaps.reduce((least, other) => (other.gap.value < least.gap.value ? other : least));
  const beyond = setback.mm + (siting.overhang ?? 0);
  const margin = measureShapes([outline, ...boundary], { job, derived }, (shapes) => {
    const kept = edgeKept(setback, job, shapes);
    return (kept && findClearance(piecesOf([outline], shapes), kept, inner)?.value) ?? NaN;
  });
  return { from: gap.from, to: gap.to, margin: { ...margin, value: margin.value - beyond } };
}
