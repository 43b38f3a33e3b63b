import { distance } from '../geometry';
import type { Feature, Job, Seen, View } from '../job';
import { endsOfSegment, type Place } from '../outline';

/** One end of an edge that a view stands on, as a place that views share. */
export interface EdgeEnd {
  /** The shared place that it is already. */
  readonly feature: Feature | undefined;
  /** Where the view in which the edge is drawn shows it, for one that is shared first; or where it does not show that yet. */
  readonly seen: Omit<Seen, 'id'> | undefined;
}

/** So many sigmas from each other two places may be one. */
const SAME = 3;

type Edge = NonNullable<View['standsOn']>;
type Shown = Pick<Job, 'features' | 'outlines' | 'views'>;

/** Where an edge begins and ends as its outline runs. Undefined where it is gone, or an end of it was not pointed at but follows from other things. */
export function endsOfEdge(edge: Edge, job: Shown): readonly [EdgeEnd, EdgeEnd] | undefined {
  const outline = job.outlines.find(({ id }) => id === edge.outline);
  if (outline?.shape !== 'chain') return undefined;
  const nodes = endsOfSegment(
    outline,
    outline.nodes.findIndex(({ id }) => id === edge.from),
  );
  const [from, to] = nodes?.map((node) => endAt(node, outline, job)) ?? [];
  return from && to ? [from, to] : undefined;
}

type Node = { readonly id: string; readonly place: Place };

function endAt(
  { id, place }: Node,
  outline: { readonly id: string; readonly plane: string },
  job: Shown,
): EdgeEnd | undefined {
  if (place.kind !== 'pointed') return undefined;
  const view = place.view ?? job.views.find(({ plane }) => plane === outline.plane)?.id;
  if (view === undefined) return undefined;
  const feature = sharedAs(id, outline.id, job) ?? sharedNear(place, view, job);
  const isSeen = feature?.seen.some((seen) => seen.view === view) ?? false;
  const { at, sigma, edge } = place;
  return { feature, seen: isSeen ? undefined : { view, at, sigma, ...(edge ? { edge } : {}) } };
}

/** The end of another edge of the same outline, on which another view stands. */
function sharedAs(node: string, outline: string, { features, outlines, views }: Shown): Feature | undefined {
  const chain = outlines.find(({ id }) => id === outline);
  if (chain?.shape !== 'chain') return undefined;
  const named = views.flatMap(({ standsOn }) => {
    if (standsOn?.outline !== outline || !standsOn.ends) return [];
    const { from, to } = standsOn.ends;
    const at = chain.nodes.findIndex(({ id }) => id === standsOn.from);
    const ends = endsOfSegment(chain, at)?.map(({ id }) => id) ?? [];
    return [...(ends[0] === node ? [from] : []), ...(ends[1] === node ? [to] : [])];
  });
  return features.find(({ id }) => named.includes(id));
}

function sharedNear({ at, sigma }: Pick<Seen, 'at' | 'sigma'>, view: string, { features }: Shown): Feature | undefined {
  const isHere = (seen: Seen) => seen.view === view && distance(seen.at, at) <= SAME * Math.hypot(seen.sigma, sigma);
  return features.find(({ along, seen }) => along === undefined && seen.some(isHere));
}
