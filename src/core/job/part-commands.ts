import { command, draft, replaceById, type Command } from './command';
import type { Part } from './part';

export const addPart = (part: Part) =>
  command('part-named', (job) => void job.parts.push(draft(part)), { name: part.name });
export const changePart = (part: Part): Command => ({
  ...command('part-changed', (job) => replaceById(job.parts, draft(part)), { name: part.name }),
  merge: `part/${part.id}`,
});
export const removePart = (id: string) =>
  command('part-removed', (job) => void (job.parts = job.parts.filter((part) => part.id !== id)));
