import { Amount, z } from '../schema';
import { FITTING_SETS, type Place, type Recipe } from '../outline';

const Id = z.string().min(1).max(64);
const Vec = z.tuple([Amount, Amount]).readonly();
const Of = z.array(Id).min(1).max(2000).readonly();
const Corners = z.enum(['round', 'mitre', 'square']);
const End = z.enum(['start', 'end']);
const Hanging = z.object({ at: End, to: z.enum(['left', 'right']), open: Amount.min(0).max(Math.PI) }).readonly();
const Fill = z
  .object({
    kind: z.enum(['door', 'window']),
    frame: Amount.nonnegative(),
    leaf: Amount.positive(),
    leaves: z.union([z.literal(1), z.literal(2)]),
    hung: Hanging.optional(),
  })
  .readonly();
const Opening = z
  .object({
    id: Id,
    corner: Id,
    way: z.enum(['on', 'back']),
    distance: Amount.nonnegative(),
    width: Amount.positive(),
    name: z.string().min(1).max(200).optional(),
    fill: Fill.optional(),
    sill: Amount.nonnegative().optional(),
    head: Amount.positive().optional(),
    read: z.string().min(1).max(64).optional(),
  })
  .readonly();
const MOST_COPIES = 500;
const Count = Amount.int().min(1).max(MOST_COPIES);

/** How an outline is made from others: see core/outline. */
export function recipeSchema(place: z.ZodType<Place>): z.ZodType<Recipe> {
  return z.discriminatedUnion('kind', [
    z
      .object({
        kind: z.literal('offset'),
        of: Of,
        by: Amount,
        both: z.boolean(),
        corners: Corners,
        otherHand: z.boolean().optional(),
      })
      .readonly(),
    z
      .object({
        kind: z.literal('strip'),
        of: Of,
        width: Amount.positive(),
        justified: z.enum(['middle', 'left', 'right']),
        ends: z.enum(['round', 'flat', 'square']),
        corners: Corners,
        openings: z.array(Opening).max(500).readonly().optional(),
      })
      .readonly(),
    z.object({ kind: z.literal('fittings'), of: Of, set: z.enum(FITTING_SETS) }).readonly(),
    z.object({ kind: z.literal('combined'), of: Of, how: z.enum(['united', 'subtracted', 'intersected']) }).readonly(),
    z.object({ kind: z.literal('mirrored'), of: Of, guide: Id, joined: z.boolean() }).readonly(),
    z.object({ kind: z.literal('rows'), of: Of, step: Vec, count: Count, rowStep: Vec, rows: Count }).readonly(),
    z.object({ kind: z.literal('around'), of: Of, centre: place, count: Count, sweep: Amount }).readonly(),
    z
      .object({ kind: z.literal('placed'), of: Of, from: place, to: place, turn: Amount, mirrored: z.boolean() })
      .readonly(),
    z.object({ kind: z.literal('sited'), of: Of, siting: Id }).readonly(),
  ]);
}
