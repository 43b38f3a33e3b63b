import { findCircumcentre, type Vec } from '../geometry';
import { CENTRE, type Chain } from '../outline';
import type { Relatable } from './relatable';
import type { RelationEnd } from './relation';

/** What a relation is about, as the unknowns that say where it lies. */
export type Element =
  | { readonly kind: 'point'; readonly block: string }
  | { readonly kind: 'line'; readonly a: string; readonly b: string }
  | { readonly kind: 'arc'; readonly a: string; readonly through: string; readonly b: string }
  /** A whole circle: three numbers, its centre and its radius. As a point it is its centre. */
  | { readonly kind: 'circle'; readonly block: string };

/** An element at given values of its unknowns. */
export type ElementAt =
  | { readonly kind: 'point'; readonly at: Vec }
  | { readonly kind: 'line'; readonly a: Vec; readonly b: Vec }
  | { readonly kind: 'round'; readonly centre: Vec; readonly radius: number; readonly ends: readonly Vec[] };

export const nodeBlock = (outline: string, node: string) => `${outline}.${node}`;
export const throughBlock = (outline: string, node: string) => `${outline}.${node}~`;
export const circleBlock = (outline: string) => outline;

/** The element that an end of a relation names; undefined when it is gone, or is of a kind that nothing can be said about (curves). */
export function findElement(end: RelationEnd, outlines: ReadonlyMap<string, Relatable>): Element | undefined {
  const outline = outlines.get(end.outline);
  if (!outline) return undefined;
  if (outline.shape === 'circle') {
    if (end.segment !== undefined) return undefined;
    return end.node === CENTRE
      ? { kind: 'point', block: circleBlock(outline.id) }
      : { kind: 'circle', block: circleBlock(outline.id) };
  }
  if (end.node !== undefined)
    return outline.nodes.some(({ id }) => id === end.node)
      ? { kind: 'point', block: nodeBlock(outline.id, end.node) }
      : undefined;
  return end.segment === undefined ? undefined : findSegmentElement(outline, end.segment);
}

function findSegmentElement(chain: Chain, from: string): Element | undefined {
  const index = chain.nodes.findIndex(({ id }) => id === from);
  const [segment, next] = [chain.segments[index], chain.nodes[(index + 1) % chain.nodes.length]];
  if (!segment || !next) return undefined;
  const [a, b] = [nodeBlock(chain.id, from), nodeBlock(chain.id, next.id)];
  if (segment.kind === 'line') return { kind: 'line', a, b };
  const isRound =
    segment.kind === 'arc' || (segment.kind === 'tangent' && findElementBefore(chain, from) !== undefined);
  return isRound ? { kind: 'arc', a, through: throughBlock(chain.id, from), b } : undefined;
}

/** What a tangent arc leans on, as far as something can be said about it: the segment that ends where it begins. */
export function findElementBefore(chain: Chain, from: string): Element | undefined {
  const index = chain.nodes.findIndex(({ id }) => id === from);
  const before =
    chain.nodes[index === 0 && chain.closed && chain.nodes.length > 1 ? chain.nodes.length - 1 : index - 1];
  // A chain of tangent arcs that runs round into itself has no beginning.
  return before && !(index === 0 && chain.segments[0]!.kind === 'tangent')
    ? findSegmentElement(chain, before.id)
    : undefined;
}

export function blocksOf(element: Element): readonly string[] {
  switch (element.kind) {
    case 'line':
      return [element.a, element.b];
    case 'arc':
      return [element.a, element.through, element.b];
    case 'point':
    case 'circle':
      return [element.block];
  }
}

/** An element where its unknowns put it. An arc whose three points lie in a line is round about a place infinitely far away: not a number. */
export function seen(element: Element, values: readonly (readonly number[])[]): ElementAt {
  const place = (i: number): Vec => [values[i]![0]!, values[i]![1]!];
  switch (element.kind) {
    case 'point':
      return { kind: 'point', at: place(0) };
    case 'line':
      return { kind: 'line', a: place(0), b: place(1) };
    case 'circle':
      return { kind: 'round', centre: place(0), radius: values[0]![2]!, ends: [] };
    case 'arc': {
      const centre = findCircumcentre(place(0), place(1), place(2)) ?? [NaN, NaN];
      return {
        kind: 'round',
        centre,
        radius: Math.hypot(centre[0] - place(0)[0], centre[1] - place(0)[1]),
        ends: [place(0), place(2)],
      };
    }
  }
}
