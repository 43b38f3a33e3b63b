import type { Draft } from 'immer';
import { command, draft, placingTogether, type Command } from './command';
import type { Feature } from './feature';
import type { Job } from './schema';

/** What is said of shared lines and places moves all views that are fitted together. */
export const sharing = (...of: Parameters<typeof command>): Command => placingTogether(command(...of));

/** A line or place that several views show at these places: one that is shared already, by its id, or a new one under that id. */
export type LineShown = Pick<Feature, 'id' | 'name' | 'along' | 'seen'>;

/** Shares a line or place, or sees it in further views. */
export function shareShown(job: Draft<Job>, { seen, ...line }: LineShown): void {
  const there = job.features.find(({ id }) => id === line.id);
  if (there) there.seen.push(...draft(seen));
  else job.features.push(draft({ ...line, said: {}, seen }));
}
