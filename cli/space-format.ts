import { Amount, z } from '../src/core/schema';
import type { SceneFeature, Scene, SceneEvidence, SceneView } from '../src/core/arrange';
import { sigmaOfReading } from '../src/core/calibrate';
import { DIRECTIONS, SIDES } from '../src/core/space';
import {
  ClickSigma,
  EvidenceSchema,
  evidenceIn,
  ImageSchema,
  LensSchema,
  PointSchema,
  pointsIn,
  SheetSchema,
} from './solve-format';

/** A problem in space as `bryony solve` takes it; docs/solve-format.md explains it field by field. */
/** So many views, and features and what is said of them, are fitted together at the most. */
const MOST_VIEWS = 40;
const MOST = 1000;
const DirectionSchema = z.enum(DIRECTIONS);
const OneOrMore = z.union([DirectionSchema, z.array(DirectionSchema).min(1)]);

const ViewSchema = z.object({
  id: z.string().min(1),
  image: ImageSchema,
  clickSigmaPx: ClickSigma,
  sheet: SheetSchema,
  focal35mm: Amount.optional(),
  model: z.enum(['auto', 'similarity', 'two-scale', 'affine', 'projective']).default('auto'),
  lens: LensSchema,
  side: z.union([z.enum(SIDES), z.strictObject({ from: z.string(), to: z.string() })]),
  points: z.record(z.string(), PointSchema),
  evidence: z.array(EvidenceSchema).default([]),
});

const FeatureSchema = z.object({
  only: DirectionSchema.optional(),
  seen: z.record(z.string(), z.array(z.string())).default({}),
  mm: z.tuple([Amount.nullable(), Amount.nullable(), Amount.nullable()]).optional(),
  sigma: Amount.optional(),
});

const Common = { id: z.string().min(1), check: z.boolean().optional(), guess: z.boolean().optional() };
const SaidSchema = z.discriminatedUnion('kind', [
  z.object({
    ...Common,
    kind: z.literal('distance'),
    from: z.string(),
    to: z.string(),
    along: DirectionSchema.optional(),
    mm: Amount,
    sigma: Amount.optional(),
  }),
  z.object({ ...Common, kind: z.literal('same'), along: OneOrMore, of: z.array(z.string()) }),
]);

/** Kinds of evidence by where they can stand: of features, or in a view. */
export const SAID_KINDS: ReadonlySet<unknown> = new Set(SaidSchema.options.map((option) => option.shape.kind.value));

export const SpaceSchema = z.object({
  name: z.string().optional(),
  kind: z.literal('space'),
  views: z.array(ViewSchema).min(1).max(MOST_VIEWS),
  features: z
    .record(z.string(), FeatureSchema)
    .refine((features) => Object.keys(features).length <= MOST, `at most ${MOST}`),
  evidence: z.array(SaidSchema).max(MOST).default([]),
  ask: z
    .object({
      distances: z.array(z.tuple([z.string(), z.string()])).default([]),
      features: z.array(z.string()).default([]),
      cameras: z.array(z.string()).default([]),
    })
    .default({ distances: [], features: [], cameras: [] }),
});
export type SpaceProblem = z.infer<typeof SpaceSchema>;

export const sceneIn = ({ views, features, evidence }: SpaceProblem): Scene => ({
  views: views.map(viewIn),
  features: Object.entries(features).map(([id, { only, seen, mm, sigma }]): SceneFeature => ({
    id,
    only,
    seen: Object.entries(seen).map(([view, points]) => ({ view, points })),
    mm,
    sigma,
  })),
  evidence: evidence.map(saidIn),
});

/** What a view shows lies on its plane: no height of what is traced stands between. */
const viewIn = (view: SpaceProblem['views'][number]): SceneView => ({
  id: view.id,
  picture: { ...view.image, kind: view.sheet, focal35mm: view.focal35mm },
  side: view.side,
  points: pointsIn(view),
  evidence: evidenceIn(view),
  lift: { mm: 0, sigma: 1e-9 },
  model: view.model,
  lens: view.lens,
});

function saidIn(piece: SpaceProblem['evidence'][number]): SceneEvidence {
  if (piece.kind === 'same') return { ...piece, along: typeof piece.along === 'string' ? [piece.along] : piece.along };
  return { ...piece, sigma: piece.sigma ?? sigmaOfReading(piece.mm, piece.guess ?? false) };
}
