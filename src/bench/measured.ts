import { measureDimension, type Derived } from '@/core/derive';
import type { Dimension, Job } from '@/core/job';

type Measured = ReturnType<typeof measureDimension>;
const known = new WeakMap<Derived, WeakMap<Dimension, { readonly value: Measured }>>();

/** A dimension's figure, worked out once for as long as nothing that it may stand on changes. */
export function measuredIn(job: Job, derived: Derived, dimension: Dimension): Measured {
  const figures = known.get(derived) ?? new WeakMap<Dimension, { readonly value: Measured }>();
  known.set(derived, figures);
  const before = figures.get(dimension);
  if (before) return before.value;
  const value = measureDimension(dimension, { job, derived }, derived.shapes);
  figures.set(dimension, { value });
  return value;
}
