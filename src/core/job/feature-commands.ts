import type { ProjectionMethod } from '../arrange';
import type { Side } from '../space';
import { changeView, command, draft, placing, replaceById, type Command } from './command';
import type { DrawnSpaceCurve, Feature, NamedLook, Seen, Span } from './feature';
import { takeOut } from './kinds';
import { shareShown, sharing, type LineShown } from './sharing';

export const addFeature = (feature: Feature) =>
  sharing('feature-added', (job) => void job.features.push(draft(feature)), { name: feature.name });

export const changeFeature = (feature: Feature): Command => ({
  ...sharing('feature-changed', (job) => replaceById(job.features, draft(feature)), { name: feature.name }),
  merge: `feature/${feature.id}`,
});

/** Takes a shared line or place out, and the sizes that are said of it. */
export const removeFeature = (id: string) =>
  sharing('feature-removed', (job) => takeOut(job, [{ list: 'features', id }]));

/** A view shows a feature at a further place. */
export const seeFeature = (id: string, seen: Seen) =>
  sharing('feature-seen', (job) => void job.features.find((feature) => feature.id === id)?.seen.push(draft(seen)), {});

/** Several lines are shared, or seen in further views, at once. */
export const shareLines = (lines: readonly LineShown[]) =>
  sharing('lines-shared', (job) => lines.forEach((line) => shareShown(job, line)), {
    count: lines.length,
    name: lines[0]?.name ?? '',
  });

/** Moves a place at which a feature is seen; in a row it is one step. */
export const moveSeen = (id: string, seen: Seen): Command => ({
  ...sharing('feature-moved', (job) => {
    const feature = job.features.find((other) => other.id === id);
    if (feature) replaceById(feature.seen, draft(seen));
  }),
  merge: `seen/${seen.id}`,
});

/** A view shows it there no more; what nobody sees and nobody said is gone. */
export const unseeFeature = (id: string, seen: string) =>
  sharing('feature-unseen', (job) => {
    const feature = job.features.find((other) => other.id === id);
    if (!feature) return;
    feature.seen = feature.seen.filter((other) => other.id !== seen);
    if (feature.seen.length === 0 && Object.keys(feature.said).length === 0) takeOut(job, [{ list: 'features', id }]);
  });

export const addSpan = (span: Span) =>
  sharing(span.role === 'check' ? 'check-added' : 'span-added', (job) => void job.spans.push(draft(span)), {
    mm: span.said.value,
  });
export const changeSpan = (span: Span) =>
  sharing('span-changed', (job) => replaceById(job.spans, draft(span)), { mm: span.said.value });
export const removeSpan = (id: string) => sharing('span-removed', (job) => takeOut(job, [{ list: 'spans', id }]));

/** Two outlines of neighbouring views are said to show one curve in space. */
export const addSpaceCurve = (curve: DrawnSpaceCurve) =>
  command('space-curve-added', (job) => void job.spaceCurves.push(draft(curve)), { name: curve.name });
export const changeSpaceCurve = (curve: DrawnSpaceCurve): Command => ({
  ...command('space-curve-changed', (job) => replaceById(job.spaceCurves, draft(curve)), { name: curve.name }),
  merge: `space-curve/${curve.id}`,
});
export const removeSpaceCurve = (id: string) =>
  command('space-curve-removed', (job) => takeOut(job, [{ list: 'spaceCurves', id }]));

export const addLook = (look: NamedLook) =>
  command('look-kept', (job) => void job.looks.push(draft(look)), { name: look.name });
export const changeLook = (look: NamedLook): Command => ({
  ...command('look-changed', (job) => replaceById(job.looks, draft(look)), { name: look.name }),
  merge: `look/${look.id}`,
});
export const removeLook = (id: string) => command('look-removed', (job) => takeOut(job, [{ list: 'looks', id }]));

/** Views of a sheet are said to show these sides, one step of the history. */
export const setSides = (sides: ReadonlyMap<string, Side>) =>
  sharing(
    'sides-set',
    (job) =>
      job.views.forEach((view) => {
        const side = sides.get(view.id);
        if (side) view.side = side;
      }),
    { count: sides.size },
  );

/** How views are laid out on the sheets of the job. */
export const setProjection = (projection: ProjectionMethod) =>
  command('projection-set', (job) => void (job.projection = projection), { projection });

/** What is drawn in a view lies at a shared line or place, along what the view does not show; at zero without one. */
export const setLiesAt = (id: string, feature: string | undefined) =>
  changeView(feature === undefined ? 'view-lies-at-zero' : 'view-lies-at', id, (view) => {
    if (feature === undefined) delete view.liesAt;
    else view.liesAt = feature;
  });

/** Lets a view take part in the one fit of all, or stand by its own. */
export const setJoins = (id: string, joins: boolean) =>
  placing(
    changeView(joins ? 'view-joined' : 'view-left', id, (view) => {
      if (joins) view.joins = true;
      else delete view.joins;
    }),
    id,
  );
