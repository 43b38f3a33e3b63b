import { Amount, z } from '../schema';
import type { PointedPlace } from '../outline';
import { THINGS_BY_EYE } from '../shelf';

/** Things of known size that are stood in a drawing to judge it by eye, as they are stored: docs/job-format.md, "To judge by eye". */
const Id = z.string().min(1).max(64);

/** `at`: its foot, or its middle as it is seen from above; `turn`: radians, counter-clockwise. */
export const byEyeSchema = (PointedSchema: z.ZodType<PointedPlace>) =>
  z
    .object({
      id: Id,
      plane: Id,
      thing: z.enum(THINGS_BY_EYE),
      from: z.enum(['standing', 'above']),
      at: PointedSchema,
      turn: Amount,
    })
    .readonly();
export type StoodByEye = z.infer<ReturnType<typeof byEyeSchema>>;
