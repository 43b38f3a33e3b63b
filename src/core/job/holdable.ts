import { hangsTogether } from './read';
import { JobSchema, MOST, type Job } from './schema';

const PARTS = JobSchema.unwrap().shape;

/**
 * Whether a job, changed from one that can be stored, can still be read once it is stored: no text too long, no number out of bounds, nothing that something else needs gone. Only what changed is looked at, so that it costs
 * little beside the change.
 */
export function isHoldable(before: Job, after: Job): boolean {
  const changed = (Object.keys(after) as (keyof Job)[]).filter((key) => after[key] !== before[key]);
  return (
    changed.every(
      (key) => key in PARTS && isFew(key, after[key]) && PARTS[key].safeParse(newOf(before[key], after[key])).success,
    ) && hangsTogether(after)
  );
}

const isFew = (key: keyof Job, value: unknown) =>
  !(key in MOST) || !Array.isArray(value) || value.length <= MOST[key as keyof typeof MOST];

/** Of a list what is new in it, else all. */
function newOf(before: unknown, after: unknown): unknown {
  if (!Array.isArray(before) || !Array.isArray(after) || after.length === 0) return after;
  const known = new Set<unknown>(before);
  const some = after.filter((item) => !known.has(item));
  return some.length > 0 ? some : after.slice(0, 1);
}
