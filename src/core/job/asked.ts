import { Amount, z } from '../schema';

/** What somebody near the thing was asked for, because no picture shows it; the answer comes back as evidence. */
export const AskedSchema = z
  .object({
    id: z.string().min(1).max(64),
    kind: z.enum(['length', 'diameter', 'thickness', 'depth']),
    /** What is to be measured, in words. */
    what: z.string().min(1).max(200),
    answer: z
      .object({ value: Amount, written: z.string().max(80) })
      .readonly()
      .optional(),
  })
  .readonly();

export type Asked = z.infer<typeof AskedSchema>;
