import { changeView, command, draft, fitOwner, placing } from './command';
import type { CleaningStep } from './cleaning';
import type { Asked } from './asked';
import type { Evidence, EvidencePoint } from './evidence';
import { putPlane } from './planes';
import { SITE, type Reference, type Site } from './reference';
import type { Sheet, View } from './schema';
import { pushView } from './view-commands';

/** Adds reference geometry; the first of a site brings the site's zero. */
export const addReference = (reference: Reference, site?: Site) =>
  command(
    'reference-added',
    (job) => {
      job.references.push(draft(reference));
      putPlane(job, reference.plane);
      if (reference.plane === SITE && site) job.site ??= draft(site);
    },
    { name: reference.name },
  );

export const changeReference = (
  id: string,
  code: 'reference-shown' | 'reference-hidden' | 'reference-unit-set' | 'reference-layers-set',
  change: Partial<Pick<Reference, 'shown' | 'unitMm' | 'hiddenLayers'>>,
) =>
  command(code, (job) => {
    const reference = job.references.find((other) => other.id === id);
    if (reference) Object.assign(reference, draft(change));
  });

/** Takes reference geometry out; views that lay on it keep their fit. */
export const removeReference = (id: string) =>
  command('reference-removed', (job) => void (job.references = job.references.filter((other) => other.id !== id)));

/** Places of a view laid onto places of a plane: the pieces are known points, and the view stands on that plane from now on. */
export const layOnPlane = (id: string, plane: string, pieces: readonly Evidence[], points: readonly EvidencePoint[]) =>
  placing(
    command(
      'view-matched',
      (job) => {
        const owner = fitOwner(job, id);
        for (const view of job.views) if (view.id === id || view.id === owner) putPlane(job, view.plane, plane);
        const view = job.views.find((other) => other.id === owner);
        view?.points.push(...points.map(draft));
        view?.evidence.push(...pieces.map(draft));
      },
      { count: pieces.length },
    ),
    id,
  );

/** A picture whose place on a site is known comes in together with what says so. */
export const addPlacedSheet = (sheet: Sheet, view: View, site: Site | undefined) =>
  command(
    'sheet-added',
    (job) => {
      job.sheets.push(draft(sheet));
      pushView(job, view, SITE);
      if (site) job.site ??= draft(site);
    },
    { name: sheet.name },
  );

export const setCleaning = (id: string, cleaning: readonly CleaningStep[], code: string) =>
  placing(
    changeView(code, id, (view) => void (view.cleaning = draft([...cleaning])), { count: cleaning.length }),
    id,
  );

export const setAsked = (asked: readonly Asked[], code: string) =>
  command(code, (job) => void (job.asked = draft([...asked])), { count: asked.length });
