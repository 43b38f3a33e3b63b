import type { Draft } from 'immer';
import { command, draft, placingAmong, type Command } from './command';
import type { Job, View } from './schema';
import { shareShown, sharing, type LineShown } from './sharing';

/** A view stands on a straight edge that is drawn in another one; on none without it. Of the ends of one that it stood between before it shows nothing any more. */
export const setStandsOn = (id: string, edge: View['standsOn']): Command => ({
  ...placingAmong(
    command(edge ? 'view-stood' : 'view-taken-down', (job) => {
      const view = job.views.find((other) => other.id === id);
      if (!view) return;
      const { from, to } = view.standsOn?.ends ?? {};
      const left = [from, to].filter((end) => end !== edge?.ends?.from && end !== edge?.ends?.to);
      unsee(job, id, left);
      if (edge) view.standsOn = draft(edge);
      else delete view.standsOn;
    }),
    id,
  ),
  merge: `stands/${id}`,
});

/** What a view shows of these goes. */
function unsee(job: Draft<Job>, view: string, features: readonly (string | undefined)[]): void {
  for (const feature of job.features)
    if (features.includes(feature.id) && feature.seen.some((seen) => seen.view === view))
      feature.seen = feature.seen.filter((seen) => seen.view !== view);
}

/** A view stands between the ends of its edge, which are places that it shares with the view in which that is drawn; what it showed of them before goes. */
export const standBetween = (id: string, ends: readonly [LineShown, LineShown]): Command =>
  sharing('view-stood-between', (job) => {
    const view = job.views.find((other) => other.id === id);
    if (!view?.standsOn) return;
    const [from, to] = ends.map((end) => end.id) as [string, string];
    unsee(job, id, [from, to]);
    ends.forEach((end) => shareShown(job, end));
    const { along: _byEnds, ...edge } = view.standsOn;
    view.standsOn = { ...edge, ends: { from, to } };
  });

/** What a view shows as one end of its edge is the other one. */
export function exchangeEnds(job: Draft<Job>, id: string): void {
  const ends = job.views.find((view) => view.id === id)?.standsOn?.ends;
  const [from, to] = [ends?.from, ends?.to].map((end) => job.features.find((feature) => feature.id === end));
  if (!from || !to) return;
  const isHere = (seen: { readonly view: string }) => seen.view === id;
  const [here, there] = [from, to].map(({ seen }) => seen.filter(isHere)) as [typeof from.seen, typeof to.seen];
  from.seen = [...from.seen.filter((seen) => !isHere(seen)), ...there];
  to.seen = [...to.seen.filter((seen) => !isHere(seen)), ...here];
}

/** A view is seen from the other side of its edge: what was its left end is its right one. */
export const turnOnEdge = (id: string): Command =>
  sharing('view-turned-on-edge', (job) => {
    const edge = job.views.find((view) => view.id === id)?.standsOn;
    if (!edge) return;
    if (edge.turned) delete edge.turned;
    else edge.turned = true;
    exchangeEnds(job, id);
  });
