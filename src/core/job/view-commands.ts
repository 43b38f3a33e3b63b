import type { Draft } from 'immer';
import { add, subtract, type Vec } from '../geometry';
import type { Turn } from '../outline';
import { isLevelTold, knownPlaces } from './axes';
import { exchangeEnds } from './edge-commands';
import { takeOut, turnPlane } from './kinds';
import { putPlane } from './planes';
import { changeView, command, draft, fitOwner, placing, placingAmong, type Command } from './command';
import type { Job, Sheet, View, ViewSide } from './schema';

/** A view with the plane that it shows. */
export function pushView(job: Draft<Job>, view: View, liesOn?: string): void {
  job.views.push(draft(view));
  putPlane(job, view.plane, liesOn);
}

/** `liesOn`: the plane whose zero and axes are its view's. */
export const addSheet = (sheet: Sheet, view: View, liesOn?: string) =>
  command(
    'sheet-added',
    (job) => {
      job.sheets.push(draft(sheet));
      pushView(job, view, liesOn);
    },
    { name: sheet.name },
  );

export const setSheetKind = (id: string, kind: Sheet['kind']) =>
  onSheet(
    id,
    command(
      'sheet-kind-set',
      (job) => {
        const sheet = job.sheets.find((other) => other.id === id);
        if (sheet) sheet.kind = kind;
      },
      { kind },
    ),
  );

export const setTrustTilt = (id: string, trust: boolean) =>
  onSheet(
    id,
    command(trust ? 'tilt-trusted' : 'tilt-not-trusted', (job) => {
      const sheet = job.sheets.find((other) => other.id === id);
      if (sheet) sheet.trustTilt = trust;
    }),
  );

/** What is said of a sheet holds for all of its views. */
const onSheet = (sheet: string, of: Command): Command => ({
  ...of,
  places: ({ views }) => views.filter((view) => view.sheet === sheet).map(({ id }) => id),
});

export const setLook = (id: string, look: View['look']): Command => ({
  ...changeView('look-set', id, (view) => void (view.look = { ...look })),
  merge: `look/${id}`,
});
export const setHidden = (id: string, hidden: boolean) =>
  changeView(hidden ? 'view-hidden' : 'view-shown', id, (view) => void (view.hidden = hidden));
export const setLocked = (id: string, locked: boolean) =>
  changeView(locked ? 'view-locked' : 'view-unlocked', id, (view) => void (view.locked = locked));
/** Kept only to look at, or measured with as well. */
export const setLookOnly = (id: string, lookOnly: boolean) =>
  placing(
    changeView(lookOnly ? 'view-only-looked-at' : 'view-measured-with', id, (view) => {
      if (lookOnly) view.lookOnly = true;
      else delete view.lookOnly;
    }),
    id,
  );
export const renameView = (id: string, name: string) =>
  changeView('view-renamed', id, (view) => void (view.name = name), { name });
export const setSide = (id: string, side: ViewSide | undefined) =>
  placingAmong(
    changeView('side-set', id, (view) => void (view.side = side), { side: side ?? '' }),
    id,
  );
/** What is seen of the sheet: a polygon, or all of it. The pixels, the evidence and what is traced stay where they are. */
export const setFrame = (id: string, frame: View['frame']) =>
  placing(
    changeView(frame ? 'view-cropped' : 'crop-removed', id, (view) => void (view.frame = draft(frame))),
    id,
  );
/** A further view of a sheet that is there. */
export const cutView = (view: View) => command('view-cut', (job) => pushView(job, view), { name: view.name });

/** Several views at once, one step of the history. */
export const cutViews = (views: readonly View[]) =>
  command('views-cut', (job) => views.forEach((view) => pushView(job, view)), { count: views.length });

/** Puts a view elsewhere in the strip. */
export const orderView = (id: string, to: number) =>
  command('view-ordered', (job) => {
    const from = job.views.findIndex((view) => view.id === id);
    if (from >= 0) job.views.splice(Math.max(0, Math.min(job.views.length - 1, to)), 0, ...job.views.splice(from, 1));
  });

/**
 * Sets the zero of a view and what is level. What was traced and typed, named and said stays where it is on the thing: it is said anew from the axes that are.
 * `zero`: where the new zero lies in the axes as they were, mm (px without scale); without it where it was.
 */
export const setDatum = (id: string, datum: View['datum'], zero: Vec = [0, 0]) =>
  changeAxes('datum-set', id, (view) => ({ ...view, datum }), {}, zero);
/** Turns a view by an angle, radians, clockwise as it is seen. */
export const turnView = (id: string, by: number) =>
  changeAxes(
    'view-turned',
    id,
    (view) => ({ ...view, datum: { ...view.datum, direction: view.datum.direction + (view.mirrored ? by : -by) } }),
    { degrees: Math.round((by * 180000) / Math.PI) / 1000 },
  );
/** Lays a view so that one works along a direction: `level` on its sheet, `along` on its plane, whose own axes stay where its evidence tells them; without one it lies as its plane does. Radians. */
export const setWorkAlong = (id: string, level: number, along: number | undefined) =>
  changeAxes(along === undefined ? 'frame-back' : 'frame-turned', id, ({ workAlong: _before, ...view }) => ({
    ...view,
    datum: { ...view.datum, direction: level },
    ...(along === undefined ? {} : { workAlong: along }),
  }));
/** Shows a view from behind, left and right exchanged. */
export function mirrorView(id: string): Command {
  const mirrored = changeAxes('view-mirrored', id, ({ workAlong: _before, ...view }) => ({
    ...view,
    mirrored: !view.mirrored,
    datum: { ...view.datum, direction: view.datum.direction + Math.PI },
  }));
  return {
    ...mirrored,
    apply(job) {
      mirrored.apply(job);
      exchangeEnds(job, id);
    },
  };
}

function changeAxes(code: string, id: string, change: (view: View) => View, detail = {}, zero: Vec = [0, 0]): Command {
  return placing(
    command(
      code,
      (job) => {
        const index = job.views.findIndex((view) => view.id === id);
        const before = job.views[index] as View | undefined;
        if (!before) return;
        const after = change(before);
        const turn = turnBetween(before, after, zero);
        job.views[index] = draft(after);
        turnPlane(job, after.plane, turn);
      },
      detail,
    ),
    id,
  );
}

/** How what lies on the plane is said anew when the axes change. Evidence that tells what is level, or where zero is, is stronger than the datum. */
function turnBetween(before: View, after: View, zero: Vec): Turn {
  const known = knownPlaces(before);
  const flips = Boolean(before.mirrored) !== Boolean(after.mirrored);
  const change = flips ? 0 : (after.mirrored ? -1 : 1) * (after.datum.direction - before.datum.direction);
  const by = isLevelTold(before) ? 0 : change;
  const [c, s] = [Math.cos(by), Math.sin(by)];
  const displacement = ([x, y]: Vec): Vec => (flips ? [-x, y] : [c * x - s * y, s * x + c * y]);
  // A place that is known stays where it is said to be: everything is mirrored about it.
  const about: Vec | undefined = known[0] && [known[0].said.across?.value ?? 0, known[0].said.up?.value ?? 0];
  return {
    displacement,
    hand: flips ? -1 : 1,
    angle: (angle) => (flips ? Math.PI - angle : angle + by),
    place: (at) => (about ? add(about, displacement(subtract(at, about))) : displacement(subtract(at, zero))),
  };
}

/** Takes a view out, its plane with the last view that shows it and everything that is drawn there, and its sheet with its last view. Views that share its fit keep a copy of what is known. */
export const removeView = (id: string) =>
  placing(
    command('view-removed', (job) => {
      const gone = job.views.find((view) => view.id === id);
      if (gone) passOn(job, gone);
      takeOut(job, [{ list: 'views', id }]);
      if (gone && !job.views.some(({ plane }) => plane === gone.plane))
        takeOut(job, [{ list: 'planes', id: gone.plane }]);
      if (!job.views.some((view) => view.sheet === gone?.sheet))
        takeOut(
          job,
          job.sheets.filter((other) => other.id === gone?.sheet).map((sheet) => ({ list: 'sheets', id: sheet.id })),
        );
    }),
    id,
  );

function passOn(job: Draft<Job>, gone: Draft<View>): void {
  const [heir, ...others] = job.views.filter((view) => view.shares === gone.id);
  if (!heir) return;
  takeKnowledge(heir, gone);
  others.forEach((view) => void (view.shares = heir.id));
}

function takeKnowledge(to: Draft<View>, from: Draft<View>): void {
  delete to.shares;
  const copy = JSON.parse(JSON.stringify({ points: from.points, evidence: from.evidence })) as Pick<
    Draft<View>,
    'points' | 'evidence'
  >;
  Object.assign(to, copy, { model: from.model, lens: from.lens });
  if (from.lift === undefined) delete to.lift;
  else to.lift = from.lift;
}

/** Lets a view share what is known about another one of its sheet, or gives it a copy of its own. Its own evidence goes when it shares. */
export const shareFit = (id: string, other: string | undefined) =>
  placing(
    command(other === undefined ? 'fit-unshared' : 'fit-shared', (job) => {
      const view = job.views.find((one) => one.id === id);
      const owner = job.views.find((one) => one.id === (other === undefined ? view?.shares : fitOwner(job, other)));
      if (!view || !owner || owner.id === id || owner.sheet !== view.sheet) return;
      if (other === undefined) return takeKnowledge(view, owner);
      job.views.forEach((one) => void (one.shares === id && (one.shares = owner.id)));
      Object.assign(view, { shares: owner.id, points: [], evidence: [] });
    }),
    id,
  );
