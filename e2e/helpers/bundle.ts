import { writeBundle } from '../../src/core/formats';
import type { Job } from '../../src/core/job';
import { sha256Hex } from '../../src/core/pictures';

/** A job with its pictures, as somebody hands it over. */
export const bundleOf = (job: Job, ...pictures: readonly Buffer[]): Buffer =>
  Buffer.from(writeBundle({ job, pictures: new Map(pictures.map((picture) => [sha256Hex(picture), picture])) }));
