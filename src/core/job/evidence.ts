import { Amount, z } from '../schema';

/** What is known about a view, as it is stored: docs/job-format.md, "Evidence". */
const Id = z.string().min(1).max(64);
const Vec = z.tuple([Amount, Amount]).readonly();
const Positive = Amount.positive();
/** Enough to know how steady a hand is; further ones would only make the job larger. */
export const MOST_POINTINGS = 50;

/** The picture's edge on which a pointed place lies: direction of its normal on the sheet (radians, clockwise), one sigma across it (px). */
export const PictureEdgeSchema = z.object({ normal: Amount, sigma: Positive }).readonly();
/** One pointing at a place. */
const Pointing = { at: Vec, sigma: Positive, edge: PictureEdgeSchema.optional() };
/** A place that was pointed at on the sheet, px; `sigma` of each coordinate, or along its edge. Pieces of evidence share places by their ids. `height` above the plane, mm.
 * `again` are further pointings at the same place. */
export const EvidencePoint = z
  .object({
    id: Id,
    ...Pointing,
    height: Amount.optional(),
    again: z.array(z.object(Pointing).readonly()).max(MOST_POINTINGS).readonly().optional(),
  })
  .readonly();

export const EVIDENCE_KINDS = [
  'length',
  'equal',
  'circle',
  'rectangle',
  'parallel',
  'square',
  'angle',
  'level',
  'straight',
  'known-point',
] as const;

/** A size as it was said: mm (degrees for an angle), and the words for showing it again. */
const Said = z.object({ value: Amount, written: z.string() }).readonly();
export const SAID_NAMES = ['length', 'diameter', 'width', 'height', 'angle', 'across', 'up'] as const;

/** Places of one line, side or curve at the most: what more of them tell is little, and what they cost grows with their square. */
const MOST_PLACES = 200;

export const EvidenceSchema = z
  .object({
    id: Id,
    kind: z.enum(EVIDENCE_KINDS),
    /** Ids of points: a group for each line or side in turn; one group for what lies on one curve. */
    groups: z.array(z.array(Id).max(MOST_PLACES).readonly()).max(MOST_PLACES).readonly(),
    said: z.partialRecord(z.enum(SAID_NAMES), Said).readonly(),
    /** Two sigma as typed, mm (degrees for angles); absent when nobody said it: docs/accuracy.md says what holds then. */
    plusMinus: Positive.optional(),
    guess: z.boolean(),
    /** `use` takes part in the fit, `check` is compared with it, `off` is neither. */
    role: z.enum(['use', 'check', 'off']),
    /** It lies on the face that is traced, at the height of that; without it on the plane of the fit. */
    onTraced: z.boolean().optional(),
    /** A known point that stays exactly where it was laid; the others are fitted about it. */
    held: z.boolean().optional(),
    /** What it is, for people: "bank card", "over the handles". */
    name: z.string().max(200).optional(),
  })
  .readonly();

export type EvidencePoint = z.infer<typeof EvidencePoint>;
export type Evidence = z.infer<typeof EvidenceSchema>;
export type EvidenceKind = Evidence['kind'];
export type SaidName = (typeof SAID_NAMES)[number];
export type EvidenceRole = Evidence['role'];
