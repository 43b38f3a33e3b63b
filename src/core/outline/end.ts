import type { Piece, Vec } from '../geometry';
import type { Outline } from './outline';
import type { Shape } from './shape';

/** What something is said of: a whole circle, a node of a chain, the centre of a circle (`node: 'centre'`), or the segment that begins at a node. */
export interface OutlineEnd {
  readonly outline: string;
  readonly node?: string | undefined;
  readonly segment?: string | undefined;
}

export const CENTRE = 'centre';

export type Thing = { readonly kind: 'place'; readonly at: Vec } | { readonly kind: 'piece'; readonly piece: Piece };

/** The place or the piece that an end names, among outlines with these shapes; undefined when it is gone. */
export const findThing = (
  end: OutlineEnd,
  outlines: readonly Outline[],
  shapes: { get(outline: string): Shape | undefined },
): Thing | undefined =>
  thingOf(
    end,
    outlines.find(({ id }) => id === end.outline),
    shapes.get(end.outline),
  );

function thingOf({ node, segment }: OutlineEnd, it: Outline | undefined, shape: Shape | undefined): Thing | undefined {
  if (!it || !shape) return undefined;
  const indexOf = (id: string) => (it.shape === 'chain' ? it.nodes.findIndex((other) => other.id === id) : -1);
  const at = node === undefined ? undefined : node === CENTRE ? shape.nodes[0] : shape.nodes[indexOf(node)];
  if (node !== undefined) return at && { kind: 'place', at };
  const piece = shape.pieces[segment === undefined ? 0 : indexOf(segment)];
  return piece && { kind: 'piece', piece };
}
