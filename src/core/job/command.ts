import type { Draft } from 'immer';
import type { Guide, Outline } from '../outline';
import { MOST_POINTINGS, type Evidence, type EvidencePoint } from './evidence';
import type { Job, Layer, Sheet, View } from './schema';

/** What a command is called, for people: a code that the interface words ("Set length to 412 mm"), and its figures. */
export interface CommandName {
  readonly code: string;
  readonly detail: Readonly<Record<string, string | number>>;
}

/** A change of the job with a name. `apply` changes a draft; the history turns that into a diff. */
export interface Command {
  readonly name: CommandName;
  /** Commands in a row with the same key are one step of the history (a slider on its way, a held nudge). */
  readonly merge?: string | undefined;
  apply(job: Draft<Job>): void;
}

type Named = { readonly id: string };

function command(code: string, apply: Command['apply'], detail: CommandName['detail'] = {}): Command {
  return { name: { code, detail }, apply };
}

function replaceById<T extends Named>(list: T[], item: T): void {
  const index = list.findIndex((other) => other.id === item.id);
  if (index >= 0) list[index] = item;
}

const draft = <T>(value: T) => value as Draft<T>;

export const renameJob = (name: string) => command('job-renamed', (job) => void (job.name = name), { name });
export const setUnits = (units: Job['units']) => command('units-set', (job) => void (job.units = { ...units }), { style: units.style });
export const setShortest = (mm: number) => command('shortest-set', (job) => void (job.shortest = mm), { mm });

export const addSheet = (sheet: Sheet, view: View) =>
  command('sheet-added', (job) => {
    job.sheets.push(draft(sheet));
    job.views.push(draft(view));
  }, { name: sheet.name });

/** Takes a picture out of the job with everything that stands on it. */
export const removeView = (id: string) =>
  command('view-removed', (job) => {
    const sheet = job.views.find((view) => view.id === id)?.sheet;
    job.views = job.views.filter((view) => view.id !== id);
    job.outlines = job.outlines.filter((outline) => outline.view !== id);
    job.guides = job.guides.filter((guide) => guide.view !== id);
    if (!job.views.some((view) => view.sheet === sheet)) job.sheets = job.sheets.filter((other) => other.id !== sheet);
  });

export const setSheetKind = (id: string, kind: Sheet['kind']) =>
  command('sheet-kind-set', (job) => {
    const sheet = job.sheets.find((other) => other.id === id);
    if (sheet) sheet.kind = kind;
  }, { kind });

function changeView(code: string, id: string, change: (view: Draft<View>) => void, detail: CommandName['detail'] = {}): Command {
  return command(code, (job) => {
    const view = job.views.find((other) => other.id === id);
    if (view) change(view);
  }, detail);
}

export const setLook = (id: string, look: View['look']): Command => ({ ...changeView('look-set', id, (view) => void (view.look = { ...look })), merge: `look/${id}` });
export const setHidden = (id: string, hidden: boolean) => changeView(hidden ? 'view-hidden' : 'view-shown', id, (view) => void (view.hidden = hidden));
export const setLocked = (id: string, locked: boolean) => changeView(locked ? 'view-locked' : 'view-unlocked', id, (view) => void (view.locked = locked));
export const setDatum = (id: string, datum: View['datum']) => changeView('datum-set', id, (view) => void (view.datum = draft(datum)));
export const renameView = (id: string, name: string) => changeView('view-renamed', id, (view) => void (view.name = name), { name });
export const setLift = (id: string, mm: number | undefined) =>
  changeView('lift-set', id, (view) => {
    if (mm === undefined) delete view.lift;
    else view.lift = mm;
  }, { mm: mm ?? 0 });

/** What stands first among the sizes of a piece, for the command's name. */
const sizeOf = ({ said }: Evidence) => said.length?.value ?? said.diameter?.value ?? said.width?.value ?? 0;
const detailOf = (evidence: Evidence) => ({ kind: evidence.kind, mm: sizeOf(evidence) });

/** Adds a piece with those of its points that the view does not have yet. The first one that is used locks the view. */
export const addEvidence = (id: string, evidence: Evidence, points: readonly EvidencePoint[] = []) =>
  changeView(evidence.role === 'check' ? 'check-added' : 'evidence-added', id, (view) => {
    view.points.push(...points.filter((point) => !view.points.some((known) => known.id === point.id)).map(draft));
    view.evidence.push(draft(evidence));
    if (evidence.role === 'use') view.locked = true;
  }, detailOf(evidence));

export const changeEvidence = (id: string, evidence: Evidence) =>
  changeView('evidence-set', id, (view) => replaceById(view.evidence, draft(evidence)), detailOf(evidence));

/** Takes a piece away, and the points that nothing stands on any more. */
export const removeEvidence = (id: string, evidence: string) =>
  changeView('evidence-removed', id, (view) => {
    view.evidence = view.evidence.filter((other) => other.id !== evidence);
    const used = new Set(view.evidence.flatMap(({ groups }) => groups.flat()));
    view.points = view.points.filter((point) => used.has(point.id));
  });

/** Adds further pointings at places that are known already. */
export const pointAgain = (id: string, pointings: readonly EvidencePoint[]) =>
  changeView('pointed-again', id, (view) => {
    for (const { id: known, ...pointing } of pointings) {
      const point = view.points.find((other) => other.id === known);
      if (point) point.again = [...(point.again ?? []), draft(pointing)].slice(-MOST_POINTINGS);
    }
  });

/** Moves a point of the evidence, which forgets how it was pointed at before; in a row (dragging, a held nudge) it is one step. */
export const movePoint = (id: string, point: EvidencePoint): Command => ({
  ...changeView('evidence-moved', id, (view) => replaceById(view.points, draft({ ...point, again: undefined }))), merge: `point/${point.id}`,
});

export const setModel = (id: string, model: View['model'], lens: View['lens']) =>
  changeView('model-set', id, (view) => {
    view.model = model;
    view.lens = lens;
  }, { model });

export const addOutline = (outline: Outline) => command('outline-added', (job) => void job.outlines.push(draft(outline)));
export const changeOutline = (outline: Outline, code = 'outline-changed') => command(code, (job) => replaceById(job.outlines, draft(outline)));
/** A small move that may be repeated: in a row they are one step. */
export const nudgeOutline = (outline: Outline, code: string): Command => ({ ...changeOutline(outline, code), merge: `nudge/${code}/${outline.id}` });
export const addOutlines = (outlines: readonly Outline[], code: string) => command(code, (job) => void job.outlines.push(...draft(outlines)), { count: outlines.length });
export const changeOutlines = (outlines: readonly Outline[], code: string) =>
  command(code, (job) => outlines.forEach((outline) => replaceById(job.outlines, draft(outline))), { count: outlines.length });
export const removeOutlines = (ids: readonly string[]) =>
  command('outlines-removed', (job) => void (job.outlines = job.outlines.filter((outline) => !ids.includes(outline.id))), { count: ids.length });
/** Two outlines become one: the joined one takes the first one's place, the other goes. */
export const joinOutlines = (joined: Outline, gone: string) =>
  command('outlines-joined', (job) => {
    replaceById(job.outlines, draft(joined));
    job.outlines = job.outlines.filter((outline) => outline.id !== gone);
  });
export const moveToLayer = (ids: readonly string[], layer: string) =>
  command('moved-to-layer', (job) => job.outlines.forEach((outline) => void (ids.includes(outline.id) && (outline.layer = layer))), { count: ids.length });

export const addLayer = (layer: Layer) => command('layer-added', (job) => void job.layers.push(draft(layer)), { name: layer.name });
export const changeLayer = (layer: Layer) => command('layer-changed', (job) => replaceById(job.layers, draft(layer)), { name: layer.name });
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
export const removeGuide = (id: string) => command('guide-removed', (job) => void (job.guides = job.guides.filter((guide) => guide.id !== id)));
