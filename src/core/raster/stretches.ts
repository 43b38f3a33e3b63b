import type { FoundEdge } from './edge';

/**
 * So many places along an edge, each the middle of as many of the edges that scans along it found, in their order. What is wrong with an edge is mostly wrong with all of it: together they
 * know where it lies as two of them would.
 */
export function middlesOf(edges: readonly FoundEdge[], count: number): readonly FoundEdge[] {
  return Array.from({ length: count }, (_, i) => {
    const some = edges.slice(Math.round((i * edges.length) / count), Math.round(((i + 1) * edges.length) / count));
    const mean = (of: (edge: FoundEdge) => number) => some.reduce((sum, edge) => sum + of(edge), 0) / some.length;
    const { normal, kind } = some[0]!;
    return {
      at: [mean(({ at }) => at[0]), mean(({ at }) => at[1])],
      normal,
      kind,
      sigma: Math.sqrt(count / 2) * mean(({ sigma }) => sigma),
    };
  });
}
