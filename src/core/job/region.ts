import { Amount, z } from '../schema';

const Id = z.string().min(1).max(64);

export const REGION_KINDS = ['material', 'opening', 'room', 'zone'] as const;

/** In which ink it is tinted, where not by its kind. */
const REGION_COLORS = ['hedge', 'berry', 'tide', 'plum', 'straw', 'ink'] as const;

const Vec = z.tuple([Amount, Amount]).readonly();

/** A region that was named: whichever the outlines shut in around its place: where that was `seen` on the sheet, else `at`, mm on the view plane. `height` makes a volume of its area. */
export const RegionSchema = z
  .object({
    id: Id,
    plane: Id,
    name: z.string().min(1).max(200),
    at: Vec,
    seen: Vec.optional(),
    /** The view in which it was seen, where several show the plane. */
    view: Id.optional(),
    kind: z.enum(REGION_KINDS),
    color: z.enum(REGION_COLORS).optional(),
    height: Amount.positive().optional(),
  })
  .readonly();

export type NamedRegion = z.infer<typeof RegionSchema>;
export type RegionKind = NamedRegion['kind'];
