import { z } from 'zod';
import type { Place, Recipe } from '../outline';

const Id = z.string().min(1).max(64);
const Vec = z.tuple([z.number(), z.number()]).readonly();
const Of = z.array(Id).min(1).max(2000).readonly();
const Corners = z.enum(['round', 'mitre', 'square']);
const Opening = z.object({ id: Id, outline: Id, segment: Id, from: z.enum(['start', 'end']), distance: z.number().nonnegative(), width: z.number().positive() }).readonly();
const MOST_COPIES = 500;
const Count = z.number().int().min(1).max(MOST_COPIES);

/** How an outline is made from others: see core/outline. */
export function recipeSchema(place: z.ZodType<Place>): z.ZodType<Recipe> {
  return z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('offset'), of: Of, by: z.number(), both: z.boolean(), corners: Corners }).readonly(),
    z.object({ kind: z.literal('strip'), of: Of, width: z.number().positive(), justified: z.enum(['middle', 'left', 'right']), ends: z.enum(['round', 'flat', 'square']), corners: Corners, openings: z.array(Opening).max(500).readonly().optional() }).readonly(),
    z.object({ kind: z.literal('combined'), of: Of, how: z.enum(['united', 'subtracted', 'intersected']) }).readonly(),
    z.object({ kind: z.literal('mirrored'), of: Of, guide: Id, joined: z.boolean() }).readonly(),
    z.object({ kind: z.literal('rows'), of: Of, step: Vec, count: Count, rowStep: Vec, rows: Count }).readonly(),
    z.object({ kind: z.literal('around'), of: Of, centre: place, count: Count, sweep: z.number() }).readonly(),
    z.object({ kind: z.literal('placed'), of: Of, from: place, to: place, turn: z.number(), mirrored: z.boolean() }).readonly(),
  ]);
}
