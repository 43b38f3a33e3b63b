import { Amount, z } from '../schema';
import { DIRECTIONS } from '../space';
import { PictureEdgeSchema } from './evidence';

/** What several views show of one thing, as it is stored: docs/job-format.md, "Shared lines and places". */
const Id = z.string().min(1).max(64);
const Positive = Amount.positive();
const Said = z.object({ value: Amount, written: z.string().max(80) }).readonly();
const MOST_SEEN = 200;

/** A place of a view that shows it, sheet px; `sigma` of each coordinate, or along its edge. */
const SeenSchema = z
  .object({
    id: Id,
    view: Id,
    at: z.tuple([Amount, Amount]).readonly(),
    sigma: Positive,
    edge: PictureEdgeSchema.optional(),
  })
  .readonly();

/** A shared line, of which only the coordinate `along` a direction is meant (a base line, a centre line, a level), or a shared place. */
export const FeatureSchema = z
  .object({
    id: Id,
    name: z.string().min(1).max(80),
    along: z.enum(DIRECTIONS).optional(),
    /** Coordinates in the object frame that somebody typed, mm. */
    said: z.partialRecord(z.enum(DIRECTIONS), Said).readonly(),
    /** Two sigma of what was typed, mm; exact without it. */
    plusMinus: Positive.optional(),
    seen: z.array(SeenSchema).max(MOST_SEEN).readonly(),
  })
  .readonly();

/** A size between two features: whole, or `along` one direction. */
export const SpanSchema = z
  .object({
    id: Id,
    from: Id,
    to: Id,
    along: z.enum(DIRECTIONS).optional(),
    said: Said,
    /** Two sigma as typed, mm; absent when nobody said it. */
    plusMinus: Positive.optional(),
    guess: z.boolean(),
    role: z.enum(['use', 'check', 'off']),
  })
  .readonly();

/** A curve in space that is seen as one outline in one view and as another in a neighbouring one; `mirrored` about the plane of a shared line too. */
export const SpaceCurveSchema = z
  .object({
    id: Id,
    name: z.string().min(1).max(80),
    of: z.tuple([Id, Id]).readonly(),
    mirrored: Id.optional(),
  })
  .readonly();

/** From where all views are looked at together, as somebody named it: how far their sheet is folded up, 0 to 1, and turned and tipped, radians. */
export const NamedLookSchema = z
  .object({
    id: Id,
    name: z.string().min(1).max(80),
    fold: Amount.min(0).max(1),
    turn: Amount,
    tip: Amount,
  })
  .readonly();

export type NamedLook = z.infer<typeof NamedLookSchema>;
export type DrawnSpaceCurve = z.infer<typeof SpaceCurveSchema>;
export type Feature = z.infer<typeof FeatureSchema>;
export type Seen = z.infer<typeof SeenSchema>;
export type Span = z.infer<typeof SpanSchema>;
