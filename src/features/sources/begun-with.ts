/** Files that jobs were begun with on the first screen, until the desk of each takes them in. */
const begun = new Map<string, readonly File[]>();

export const beginWith = (job: string, files: readonly File[]): void => void begun.set(job, files);

/** The files that a job was begun with; handed out once. */
export function takeBegunWith(job: string): readonly File[] {
  const files = begun.get(job) ?? [];
  begun.delete(job);
  return files;
}
