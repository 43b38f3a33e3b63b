import { Amount, z } from '../schema';
import type { ShelfEntry } from './entry';

const Positive = Amount.positive();
const Shape = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('length'), mm: Positive }).readonly(),
  z.object({ kind: z.literal('circle'), diameter: Positive }).readonly(),
  z.object({ kind: z.literal('rectangle'), width: Positive, height: Positive }).readonly(),
]);

/** Somebody's own thing of known size, as a device keeps it. mm; `tolerance` is half the width between its limits. */
const OwnThing = z
  .object({ id: z.string().min(1).max(64), name: z.string().min(1).max(60), shape: Shape, tolerance: Positive })
  .readonly();
export type OwnThing = z.infer<typeof OwnThing>;

/** A kept thing as it stands on the shelf; undefined when what was kept cannot be read. */
export function readOwnThing(kept: unknown): ShelfEntry | undefined {
  const read = OwnThing.safeParse(kept);
  return read.success ? { ...read.data, family: 'own things', source: 'measured by you', standing: 'own' } : undefined;
}
