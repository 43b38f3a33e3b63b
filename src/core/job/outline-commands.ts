import type { Guide, Outline } from '../outline';
import { command, draft, replaceById, type Command } from './command';
import { takeOut } from './kinds';
import { goOnWith } from './made-commands';
import { putOutline } from './relation-ends';
import type { Job, Layer } from './schema';

export const renameJob = (name: string) => command('job-renamed', (job) => void (job.name = name), { name });
export const setUnits = (units: Job['units']) =>
  command('units-set', (job) => void (job.units = { ...units }), { style: units.style });
export const setShortest = (mm: number) => command('shortest-set', (job) => void (job.shortest = mm), { mm });

export const addOutline = (outline: Outline) =>
  command('outline-added', (job) => void job.outlines.push(draft(outline)));
export const changeOutline = (outline: Outline, code = 'outline-changed') =>
  command(code, (job) => putOutline(job, outline));
/** A small move that may be repeated: in a row they are one step. */
export const nudgeOutline = (outline: Outline, code: string): Command => ({
  ...changeOutline(outline, code),
  merge: `nudge/${code}/${outline.id}`,
});
export const addOutlines = (outlines: readonly Outline[], code: string) =>
  command(code, (job) => void job.outlines.push(...draft(outlines)), { count: outlines.length });
export const changeOutlines = (outlines: readonly Outline[], code: string) =>
  command(code, (job) => outlines.forEach((outline) => putOutline(job, outline)), { count: outlines.length });
export const removeOutlines = (ids: readonly string[]) =>
  command(
    'outlines-removed',
    (job) =>
      takeOut(
        job,
        ids.map((id) => ({ list: 'outlines', id })),
      ),
    { count: ids.length },
  );
/** Two outlines become one: the joined one takes the first one's place, the other goes. */
export const joinOutlines = (joined: Outline, gone: string) =>
  command('outlines-joined', (job) => {
    putOutline(job, joined, [gone]);
    job.outlines = job.outlines.filter((outline) => outline.id !== gone);
    goOnWith(job, gone, [joined.id]);
  });
export const moveToLayer = (ids: readonly string[], layer: string) =>
  command(
    'moved-to-layer',
    (job) => job.outlines.forEach((outline) => void (ids.includes(outline.id) && (outline.layer = layer))),
    { count: ids.length },
  );

export const addLayer = (layer: Layer) =>
  command('layer-added', (job) => void job.layers.push(draft(layer)), { name: layer.name });
export const changeLayer = (layer: Layer) =>
  command('layer-changed', (job) => replaceById(job.layers, draft(layer)), { name: layer.name });
/** Takes a layer away; what is on it moves to the first other layer. The last layer stays. */
export const removeLayer = (id: string) =>
  command('layer-removed', (job) => {
    const other = job.layers.find((layer) => layer.id !== id);
    if (!other) return;
    job.outlines.forEach((outline) => void (outline.layer === id && (outline.layer = other.id)));
    job.layers = job.layers.filter((layer) => layer.id !== id);
  });

export const addGuide = (guide: Guide) => command('guide-added', (job) => void job.guides.push(draft(guide)));
export const changeGuide = (guide: Guide) => command('guide-changed', (job) => replaceById(job.guides, draft(guide)));
export const removeGuide = (id: string) => command('guide-removed', (job) => takeOut(job, [{ list: 'guides', id }]));
