import type { Command } from './command';
import { createJob } from './create';
import { runCommand, startHistory } from './history';
import type { Job, Sheet } from './schema';

/** For tests only: a scan of so many pixels, whose picture nobody looks at. */
export const scanOf = (width: number, height: number): Sheet => ({
  id: 's',
  name: 's',
  picture: 'a'.repeat(64),
  mediaType: 'image/png',
  bytes: 1,
  width,
  height,
  kind: 'scan',
  taken: {},
});

/** For tests only: a job after commands. */
export const changed = (job: Job, ...commands: readonly Command[]): Job =>
  commands.reduce(runCommand, startHistory(job)).job;

/** For tests only: what commands make of an empty job. */
export const jobOf = (commands: readonly Command[]): Job => changed(createJob('j', 'Job', new Date(0)), ...commands);
