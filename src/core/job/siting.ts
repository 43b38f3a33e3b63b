import { Amount, z } from '../schema';
import { HOLD_KINDS } from '../outline';

/** Drawings set on other planes, as they are stored: docs/job-format.md, "On a site". */
const Id = z.string().min(1).max(64);
const Positive = Amount.positive();
const End = z.object({ outline: Id, node: Id.optional(), segment: Id.optional() }).readonly();
const MOST_HOLDS = 50;

const HoldSchema = z
  .object({
    id: Id,
    kind: z.enum(HOLD_KINDS),
    own: End,
    to: End,
    value: Amount,
    fromEnd: z.boolean().optional(),
    plusMinus: Positive.optional(),
  })
  .readonly();

export const SitingSchema = z
  .object({
    id: Id,
    plane: Id,
    of: Id,
    holds: z.array(HoldSchema).max(MOST_HOLDS).readonly(),
    put: z.object({ at: z.tuple([Amount, Amount]).readonly(), turn: Amount }).readonly(),
    overhang: Amount.nonnegative().optional(),
  })
  .readonly();

/** How far whatever is set on the plane has to keep from an edge that is drawn there. mm */
export const SetbackSchema = z
  .object({ id: Id, plane: Id, on: z.tuple([End]).readonly(), mm: Amount.nonnegative() })
  .readonly();
export type Setback = z.infer<typeof SetbackSchema>;
