import { FARTHEST_ON_MAP } from '../basics';
import { Amount, z } from '../schema';

const Id = z.string().min(1).max(64);
const Positive = Amount.positive();

export const REFERENCE_FORMATS = ['dxf', 'svg', 'geojson'] as const;

/** The plane that surveys, plans and pictures of one site share. */
export const SITE = 'site';

/** Existing geometry to fit against and snap to. Its file is kept beside the job like a picture; it is drawn in quiet ink and never leaves in a file. */
export const ReferenceSchema = z
  .object({
    id: Id,
    name: z.string().max(200),
    /** SHA-256 of its file. */
    file: z.string().regex(/^[0-9a-f]{64}$/),
    bytes: Amount.int().nonnegative(),
    format: z.enum(REFERENCE_FORMATS),
    /** Millimetres in a unit of the file; absent: as the file says. */
    unitMm: Positive.optional(),
    /** The plane it lies on: the site's, or that of a sheet it came with. References and views of one plane share its zero. */
    plane: Id,
    shown: z.boolean(),
    /** Layers of it that are not shown. */
    hiddenLayers: z.array(z.string()).readonly(),
  })
  .readonly();

/** Where the plane of the site has its zero: so many mm are taken off what files say, so that figures stay short; and the place on earth about which degrees are laid flat. */
const OnMap = z.number().min(-FARTHEST_ON_MAP).max(FARTHEST_ON_MAP);
export const SiteSchema = z
  .object({ zero: z.tuple([OnMap, OnMap]).readonly(), about: z.tuple([Amount, Amount]).readonly().optional() })
  .readonly();

export type Reference = z.infer<typeof ReferenceSchema>;
export type Site = z.infer<typeof SiteSchema>;
export type ReferenceFormat = Reference['format'];
