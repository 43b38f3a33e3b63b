import type { Draft } from 'immer';
import { endsOfSegment, type Outline } from '../outline';
import { draft, replaceById } from './command';
import { keepOpenings } from './opening-ends';
import type { Job } from './schema';

/** The node at which a segment ends, in a chain that has it. */
function endOfSegment(outline: Outline, from: string): string | undefined {
  if (outline.shape !== 'chain') return undefined;
  const index = outline.nodes.findIndex(({ id }) => id === from);
  return endsOfSegment(outline, index)?.[1].id;
}

/** The name of the segment between two nodes, whichever way it runs. */
function segmentBetween(outline: Outline, a: string, b: string): string | undefined {
  return endOfSegment(outline, a) === b ? a : endOfSegment(outline, b) === a ? b : undefined;
}

/**
 * Puts an outline in the place of one with its id. What is said of its segments, and of those of outlines that went into it (`gone`), is said of the
 * same ones still: a segment is named by the node at which it begins, which is another one when a chain was turned round.
 */
export function putOutline(job: Draft<Job>, outline: Outline, gone: readonly string[] = []): void {
  const former = new Map(
    job.outlines
      .filter(({ id }) => id === outline.id || gone.includes(id))
      .map((other) => [other.id, other as Outline]),
  );
  for (const { on } of [...job.relations, ...job.dimensions, ...job.declined]) {
    for (const end of on) {
      const before = former.get(end.outline);
      if (!before) continue;
      const until = end.segment && endOfSegment(before, end.segment);
      if (end.segment && until) end.segment = segmentBetween(outline, end.segment, until) ?? end.segment;
      end.outline = outline.id;
    }
  }
  keepOpenings(job, [...former.values()], outline);
  replaceById(job.outlines, draft(outline));
}
