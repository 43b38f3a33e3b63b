import { Amount, z } from '../schema';

const Id = z.string().min(1).max(64);

/** Outlines that are one thing to be made, wherever it stands: copies of them count. `thickness` in mm. */
export const PartSchema = z
  .object({
    id: Id,
    plane: Id,
    name: z.string().min(1).max(200),
    of: z.array(Id).min(1).max(2000).readonly(),
    material: z.string().max(200).optional(),
    thickness: Amount.positive().optional(),
  })
  .readonly();

export type Part = z.infer<typeof PartSchema>;
