import { Amount, z } from '../schema';
import { SIDES } from '../space';

/** How views that show one side of a thing lie beside each other, as it is stored: docs/job-format.md, "Variants". */
const Id = z.string().min(1).max(64);

/** Views of that side lie side by side when all are looked at together, `gap` mm between their pictures. Without it they lie over each other. */
export const VariantsSchema = z.object({ id: Id, side: z.enum(SIDES), gap: Amount }).readonly();

/** How far a view is moved out of the way when all are looked at together: to its right, upwards, and towards whoever looks at it. mm */
export const StandOffSchema = z.object({ right: Amount, up: Amount, out: Amount }).readonly();

export type Variants = z.infer<typeof VariantsSchema>;
export type StandOff = z.infer<typeof StandOffSchema>;
