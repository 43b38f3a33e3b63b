import { Amount, z } from '../src/core/schema';
import {
  averagedPoint,
  sigmaOfReading,
  steadinessOf,
  type Observation,
  type Points,
  type Pointing,
} from '../src/core/calibrate';

/** A problem as `bryony solve` takes it; docs/solve-format.md explains it field by field. */
const Pair = z.tuple([Amount, Amount]);
const Line = z.tuple([z.string(), z.string()]);
export const PointSchema = z.union([
  Pair,
  z.object({ at: Pair, again: z.array(Pair).optional(), sigma: Amount.optional(), height: Amount.optional() }),
]);

const Common = { id: z.string().min(1), check: z.boolean().optional(), guess: z.boolean().optional() };
const Sigma = { sigma: Amount.optional() };
const SigmaDegrees = { sigmaDegrees: Amount.optional() };
/** Places of one line or curve at the most. */
const MOST_PLACES = 200;
const Lines = z.array(Line);

export const EvidenceSchema = z.discriminatedUnion('kind', [
  z.object({ ...Common, ...Sigma, kind: z.literal('length'), from: z.string(), to: z.string(), mm: Amount }),
  z.object({ ...Common, ...Sigma, kind: z.literal('equal'), lines: Lines }),
  z.object({
    ...Common,
    ...Sigma,
    kind: z.literal('circle'),
    through: z.array(z.string()).max(MOST_PLACES),
    diameterMm: Amount.optional(),
  }),
  z.object({
    ...Common,
    ...Sigma,
    kind: z.literal('rectangle'),
    corners: z.array(z.string()).optional(),
    sides: z.array(z.array(z.string())).optional(),
    widthMm: Amount.optional(),
    heightMm: Amount.optional(),
    proportion: Amount.optional(),
  }),
  z.object({ ...Common, ...SigmaDegrees, kind: z.literal('parallel'), lines: Lines }),
  z.object({ ...Common, ...SigmaDegrees, kind: z.literal('square'), lines: Lines }),
  z.object({ ...Common, ...SigmaDegrees, kind: z.literal('angle'), lines: Lines, degrees: Amount }),
  z.object({ ...Common, ...SigmaDegrees, kind: z.literal('level'), line: Line, degrees: Amount.default(0) }),
  z.object({ ...Common, ...Sigma, kind: z.literal('straight'), through: z.array(z.string()).max(MOST_PLACES) }),
  z.object({ ...Common, ...Sigma, kind: z.literal('known-point'), point: z.string(), mm: Pair }),
]);

export const ImageSchema = z.object({ width: Amount.positive(), height: Amount.positive() });
export const ClickSigma = Amount.default(1);
export const SheetSchema = z.enum(['photo', 'scan', 'drawing']).default('photo');
export const LensSchema = z.enum(['auto', 'none', 'k1', 'k1k2']).optional();

export const ProblemSchema = z.object({
  name: z.string().optional(),
  image: ImageSchema,
  clickSigmaPx: ClickSigma,
  sheet: SheetSchema,
  focal35mm: Amount.optional(),
  model: z.enum(['auto', 'similarity', 'two-scale', 'affine', 'projective', 'camera']).default('auto'),
  lens: LensSchema,
  points: z.record(z.string(), PointSchema),
  evidence: z.array(EvidenceSchema),
  ask: z
    .object({
      lengths: z.array(Line).default([]),
      points: z.array(z.string()).default([]),
      adviseWithin: z.array(z.string()).optional(),
    })
    .default({ lengths: [], points: [] }),
});

export type SolveProblem = z.infer<typeof ProblemSchema>;
export const KINDS: ReadonlySet<unknown> = new Set(EvidenceSchema.options.map((option) => option.shape.kind.value));

/** The points for the core, each from all its pointings; how far those spread tells how steady the hand is. */
export function pointsIn({ points, clickSigmaPx }: Pick<SolveProblem, 'points' | 'clickSigmaPx'>): Points {
  const all = Object.entries(points).map(([name, point]) => {
    const { at, again = [], sigma = clickSigmaPx, height } = Array.isArray(point) ? { at: point } : point;
    return { name, height, readings: [at, ...again].map((place): Pointing => ({ at: place, sigma })) };
  });
  const steadiness = steadinessOf(all.map(({ readings }) => readings));
  // Without a prototype: a point that nobody gave is not there, whatever it is called.
  return Object.assign(
    Object.create(null) as Points,
    Object.fromEntries(
      all.map(({ name, height, readings }) => [name, { ...averagedPoint(readings, steadiness), height }]),
    ),
  );
}

/** The pieces for the core: what was said without a sigma gets that of a reading, or of a guess. */
export function evidenceIn({ evidence }: Pick<SolveProblem, 'evidence'>): Observation[] {
  return evidence.map((piece): Observation => {
    const guess = piece.guess ?? false;
    if (piece.kind === 'length') return { ...piece, sigma: piece.sigma ?? sigmaOfReading(piece.mm, guess) };
    if (piece.kind === 'circle')
      return { ...piece, sigma: piece.sigma ?? sigmaOfReading(piece.diameterMm ?? 1, guess) };
    if (piece.kind === 'rectangle')
      return {
        ...piece,
        sigma: piece.sigma ?? sigmaOfReading(Math.max(piece.widthMm ?? 1, piece.heightMm ?? 1), guess),
      };
    return piece;
  });
}
