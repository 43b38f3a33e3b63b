import { command, draft, replaceById, type Command } from './command';
import type { Dimension } from './schema';

export const addDimension = (dimension: Dimension) =>
  command('dimension-added', (job) => void job.dimensions.push(draft(dimension)), { kind: dimension.kind });
export const changeDimension = (dimension: Dimension): Command => ({
  ...command('dimension-changed', (job) => replaceById(job.dimensions, draft(dimension))),
  merge: `dimension/${dimension.id}`,
});
export const removeDimension = (id: string) =>
  command(
    'dimension-removed',
    (job) => void (job.dimensions = job.dimensions.filter((dimension) => dimension.id !== id)),
  );
