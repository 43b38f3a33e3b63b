/** What was said of a job that nothing came into: its pictures were refused, and it is gone. */
let said: string | undefined;

export const sayOfBegun = (words: string): void => void (said = words);

/** The same, for the first screen; handed out once. */
export function takeSaidOfBegun(): string | undefined {
  const words = said;
  said = undefined;
  return words;
}

/** Files that jobs were begun with on the first screen, until the desk of each takes them in. */
const begun = new Map<string, readonly File[]>();

export const beginWith = (job: string, files: readonly File[]): void => void begun.set(job, files);

/** The files that a job was begun with; handed out once. */
export function takeBegunWith(job: string): readonly File[] {
  const files = begun.get(job) ?? [];
  begun.delete(job);
  return files;
}
