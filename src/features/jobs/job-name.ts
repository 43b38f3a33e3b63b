import { firstFree } from '@/core/basics';

/** What cameras, scanners and browsers call files when nobody did: letters that say nothing, and numbers. */
const BY_NOBODY =
  /^(img|dsc[nf]?|pxl|mvi|vid|p|image|photo|picture|scan|scanned|screenshot|untitled|download|file|document)?[\s_\-.()]*[\d\s_\-.()t]*$/i;
const LONGEST = 80;

/** The name of a job that begins with a file: what the file is called or, where nobody called it anything, when it was taken. No two jobs have one. */
export function nameFor(file: Pick<File, 'name' | 'lastModified'>, taken: ReadonlySet<string>): string {
  const base = file.name
    .replace(/\.[a-z0-9]{1,5}$/i, '')
    .trim()
    .slice(0, LONGEST);
  const when = new Date(file.lastModified).toLocaleString(undefined, {
    day: 'numeric',
    month: 'short',
    hour: 'numeric',
    minute: '2-digit',
  });
  const name = BY_NOBODY.test(base) ? `Picture of ${when}` : base.replace(/[_\s]+/g, ' ');
  return firstFree(taken, (count) => (count === 1 ? name : `${name} ${count}`));
}
