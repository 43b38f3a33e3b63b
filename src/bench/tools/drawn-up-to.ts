import type { Chain } from '@/core/outline';
import type { Relation, RelationEnd } from '@/core/relate';
import type { ToolContext } from './tool';

/** What is true of a segment that was drawn up to something, or with a typed size: `from` and `to` are its nodes. */
export interface SaidOfSegment {
  readonly kind: 'tangent' | 'square' | 'radius';
  readonly from: string;
  readonly to: string;
  readonly end?: RelationEnd | undefined;
  readonly value?: number | undefined;
}

/** What was said while it was drawn, of segments that are still there. */
export function relationsSaid(
  says: readonly SaidOfSegment[],
  outline: Chain,
  { newId, fitted: { view } }: ToolContext,
): readonly Relation[] {
  const has = (id: string) => outline.nodes.some((node) => node.id === id);
  const relation = (kind: Relation['kind'], on: Relation['on'], value?: number): Relation => ({
    id: newId(),
    plane: view.plane,
    kind,
    on,
    ...(value === undefined ? {} : { value }),
  });
  return says
    .filter(({ from, to }) => has(from) && has(to))
    .flatMap(({ kind, from, to, end, value }): readonly Relation[] => {
      const segment: RelationEnd = { outline: outline.id, segment: from };
      if (!end) return [relation(kind, [segment], value)];
      const node: RelationEnd = { outline: outline.id, node: to };
      if (end.node !== undefined) return [];
      return kind === 'tangent'
        ? [relation(kind, [segment, end, node])]
        : [relation(kind, [segment, end]), relation('on', [node, end])];
    });
}
