import type { Draft } from 'immer';
import type { Job, View } from './schema';

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
  /** Views whose fit, axes or picture it changes: none of them may be locked. */
  places?(job: Pick<Job, 'views'>): readonly string[];
  apply(job: Draft<Job>): void;
}

export type Named = { readonly id: string };

export function command(code: string, apply: Command['apply'], detail: CommandName['detail'] = {}): Command {
  return { name: { code, detail }, apply };
}

/** Several commands as one step of the history, under the name of the last. */
export function together(commands: readonly [...Command[], Command]): Command {
  return {
    name: commands.at(-1)!.name,
    places: (job) => commands.flatMap((each) => each.places?.(job) ?? []),
    apply: (job) => commands.forEach((each) => each.apply(job)),
  };
}

/** The same command under another name. */
export const named = (of: Command, code: string, detail: CommandName['detail'] = {}): Command => ({
  ...of,
  name: { code, detail },
});

export function replaceById<T extends Named>(list: T[], item: T): void {
  const index = list.findIndex((other) => other.id === item.id);
  if (index >= 0) list[index] = item;
}

export const draft = <T>(value: T) => value as Draft<T>;

/** Changes one view. */
export function changeView(
  code: string,
  id: string,
  change: (view: Draft<View>) => void,
  detail: CommandName['detail'] = {},
): Command {
  return command(
    code,
    (job) => {
      const view = job.views.find((other) => other.id === id);
      if (view) change(view);
    },
    detail,
  );
}

/** A command that changes where what a view shows lies: not of a view that is locked. */
export const placing = (of: Command, ...ids: readonly string[]): Command => ({ ...of, places: () => ids });

/** The locked view that stands in the way of a command: one whose fit, axes or picture it would change. */
export function findLock(
  { views }: Pick<Job, 'views'>,
  { places }: Pick<Command, 'places'>,
): Pick<View, 'id' | 'name'> | undefined {
  const changed = places?.({ views }) ?? [];
  const lock = views.find(({ id, locked }) => locked && changed.includes(id));
  return lock && { id: lock.id, name: lock.name };
}

const joined = (views: Job['views']) => views.filter(({ joins }) => joins);

/** A command that changes what views are fitted together by: none of those may be locked. */
export const placingTogether = (of: Command): Command => ({
  ...of,
  places: ({ views }) => joined(views).map(({ id }) => id),
});

/** A command that changes what a view among those does. */
export const placingAmong = (of: Command, id: string): Command => ({
  ...of,
  places: ({ views }) => (views.find((view) => view.id === id)?.joins ? joined(views).map((view) => view.id) : []),
});

/** The view that holds the evidence of a view: its own, or the one whose fit it shares. */
export const fitOwner = (job: { readonly views: readonly Pick<View, 'id' | 'shares'>[] }, id: string) =>
  job.views.find((view) => view.id === id)?.shares ?? id;

/** Changes what is known about a view, where that is kept. */
export function changeFit(
  code: string,
  id: string,
  change: (view: Draft<View>) => void,
  detail: CommandName['detail'] = {},
): Command {
  return {
    ...command(
      code,
      (job) => {
        const owner = fitOwner(job, id);
        const view = job.views.find((other) => other.id === owner);
        if (view) change(view);
      },
      detail,
    ),
    // What is known holds for every view that shares it, and moves those that are fitted together with one of them.
    places: ({ views }) => {
      const sharing = views.filter((view) => fitOwner({ views }, view.id) === fitOwner({ views }, id));
      const all = sharing.some(({ joins }) => joins) ? [...sharing, ...joined(views)] : sharing;
      return [...new Set(all.map((view) => view.id))];
    },
  };
}

/** The lock on a view's fit: its own, or that of one that shares it. */
export const findLockOn = (job: Pick<Job, 'views'>, id: string | undefined) =>
  id === undefined
    ? undefined
    : findLock(
        job,
        changeFit('', id, () => undefined),
      );
