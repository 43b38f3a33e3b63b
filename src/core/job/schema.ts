import { PROJECTION_METHODS } from '../arrange';
import { Amount, z } from '../schema';
import type { Place } from '../outline';
import { RELATION_KINDS } from '../relate';
import { AskedSchema } from './asked';
import { DIMENSION_KINDS } from './dimension';
import { CleaningStep } from './cleaning';
import { PartSchema } from './part';
import { PlaneSchema } from './planes';
import { RegionSchema } from './region';
import { recipeSchema } from './recipe';
import { EvidencePoint, EvidenceSchema, PictureEdgeSchema } from './evidence';
import { FeatureSchema, NamedLookSchema, SpaceCurveSchema, SpanSchema } from './feature';
import { ReferenceSchema, SiteSchema } from './reference';
import { byEyeSchema } from './by-eye';
import { SetbackSchema, SitingSchema } from './siting';
import { StandOffSchema, VariantsSchema } from './variants';

/** The job document: everything that is stored, in one schema. docs/job-format.md explains it field by field. */
export const JOB_FORMAT = 'bryony-job';
export const JOB_VERSION = 17;

const Id = z.string().min(1).max(64);
const Vec = z.tuple([Amount, Amount]).readonly();
const Positive = Amount.positive();

const Pointed = z
  .object({
    kind: z.literal('pointed'),
    at: Vec,
    sigma: Positive,
    edge: PictureEdgeSchema.optional(),
    view: Id.optional(),
  })
  .readonly();
const PlaceSchema: z.ZodType<Place> = z.lazy(() =>
  z.discriminatedUnion('kind', [
    Pointed,
    z.object({ kind: z.literal('placed'), at: Vec, seen: Vec }).readonly(),
    z.object({ kind: z.literal('shifted'), from: PlaceSchema, by: Vec, seen: Vec }).readonly(),
    z.object({ kind: z.literal('aligned'), from: PlaceSchema, angle: Amount, to: Pointed }).readonly(),
    z.object({ kind: z.literal('reach'), from: PlaceSchema, length: Positive, towards: Pointed }).readonly(),
    z.object({ kind: z.literal('middle'), a: PlaceSchema, b: PlaceSchema }).readonly(),
    z.object({ kind: z.literal('node'), id: Id }).readonly(),
  ]),
);

const Taken = z
  .object({
    camera: z.string().optional(),
    focalMm: Positive.optional(),
    focal35mm: Positive.optional(),
    dpi: Positive.optional(),
    time: z.string().optional(),
    orientation: Amount.int().min(1).max(8).optional(),
    /** Of a still: when it was, seconds from the start of its film. */
    moment: Amount.nonnegative().optional(),
    /** As the shooting guide measured it: how the camera was tilted out of square-on, across and up the picture, degrees. */
    tilt: Vec.optional(),
  })
  .readonly();

const Sheet = z
  .object({
    id: Id,
    name: z.string(),
    /** SHA-256 of the picture file, which is kept beside the job and never changed. */
    picture: z.string().regex(/^[0-9a-f]{64}$/),
    mediaType: z.string(),
    /** Which page of the file; absent: the first, or the only one. */
    page: Amount.int().min(1).max(10_000).optional(),
    bytes: Amount.int().nonnegative(),
    width: Amount.int().positive(),
    height: Amount.int().positive(),
    kind: z.enum(['photo', 'scan', 'drawing']),
    taken: Taken,
    /** The tilt that was measured when it was taken is used: what it shows lies level. */
    trustTilt: z.boolean().optional(),
  })
  .readonly();

export const VIEW_SIDES = ['front', 'back', 'left', 'right', 'top', 'bottom', 'section', 'face'] as const;

export const LOOK_TINTS = ['ink', 'tide', 'hedge', 'plum'] as const;
export const LOOK_BACKINGS = ['bench', 'paper', 'dark'] as const;

const View = z
  .object({
    id: Id,
    sheet: Id,
    /** The plane that it shows. */
    plane: Id,
    name: z.string(),
    /** What is seen of the sheet: the corners of a polygon around it, sheet px; absent: all of it. */
    frame: z.array(Vec).min(3).max(200).readonly().optional(),
    /** Which side of the thing it shows. */
    side: z.enum(VIEW_SIDES).optional(),
    /** The shared line or place at which what is drawn in it lies, along what it does not show: how high a plan is, how deep a front. */
    liesAt: Id.optional(),
    /** The straight edge of an outline in another view that it stands on, by the node at which the edge begins: its zero lies `along` the edge from there, mm; `turned`: it is seen from the edge's other side, and its zero is at the edge's other end. `ends`: the shared places where the edge begins and ends, which say how large it is and where it stands along the edge. */
    standsOn: z
      .object({
        outline: Id,
        from: Id,
        along: Amount.optional(),
        turned: z.boolean().optional(),
        ends: z.object({ from: Id, to: Id }).readonly().optional(),
      })
      .readonly()
      .optional(),
    /** It takes part in the one fit of all; without it what it shows only tells where it stands. */
    joins: z.boolean().optional(),
    /** How far it is moved out of the way where all views are looked at together; its fit and what is drawn stay. */
    standOff: StandOffSchema.optional(),
    /** Seen from behind: left and right are exchanged. */
    mirrored: z.boolean().optional(),
    /** Origin and direction of x, sheet px; the view is shown with that direction level. */
    datum: z.object({ origin: Vec, direction: Amount }).readonly(),
    /** The view of the same sheet whose points, evidence, model, lens and lift hold for this one too. */
    shares: Id.optional(),
    /** The direction on its plane that is level to work along, where that is another than the plane's own: it lies so on the bench. Radians. */
    workAlong: Amount.optional(),
    points: z.array(EvidencePoint).readonly(),
    evidence: z.array(EvidenceSchema).readonly(),
    /** Which family of maps is fitted, and which lens; \`auto\` is what this kind of picture may suffer from. */
    model: z.enum(['auto', 'similarity', 'two-scale', 'affine', 'projective', 'camera']),
    lens: z.enum(['auto', 'none', 'k1', 'k1k2']),
    /** How far what is traced stands above what was measured; absent when nobody said it. mm. */
    lift: Amount.optional(),
    locked: z.boolean(),
    hidden: z.boolean(),
    /** Kept only to look at: what is known of it is left aside, and nothing is measured on it. */
    lookOnly: z.boolean().optional(),
    /** How its picture is cleaned, step by step. */
    cleaning: z.array(CleaningStep).max(200).readonly().optional(),
    /** How the picture is shown: its pixels stay as they are. `ink`: darkness against its surroundings from which a place is drawn, 0 to 1; the rest is left to the backing. */
    look: z
      .object({
        opacity: Amount.min(0).max(1),
        contrast: Amount.min(0).max(3),
        grey: z.boolean(),
        invert: z.boolean().optional(),
        ink: Amount.min(0).max(1).optional(),
        tint: z.enum(LOOK_TINTS).optional(),
        backing: z.enum(LOOK_BACKINGS).optional(),
      })
      .readonly(),
  })
  .readonly();

const Layer = z
  .object({
    id: Id,
    name: z.string(),
    color: z.enum(['berry', 'ink', 'tide', 'plum', 'straw', 'hedge']),
    show: z.boolean(),
    lock: z.boolean(),
    /** The shared line or place at which what is on it lies, along what a view does not show; absent: as the view says. A level, in plans. */
    liesAt: Id.optional(),
    /** The one up to which what is on it rises from there, as walls do; absent: it is flat. */
    risesTo: Id.optional(),
  })
  .readonly();

const Corner = z.object({ kind: z.enum(['fillet', 'chamfer']), size: Positive }).readonly();
const Node = z
  .object({
    id: Id,
    place: PlaceSchema,
    smooth: z.boolean(),
    corner: Corner.optional(),
    handleIn: Vec.optional(),
    handleOut: Vec.optional(),
    direction: Amount.optional(),
    tension: Amount.min(-2).max(1).optional(),
  })
  .readonly();

const Segment = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('line') }).readonly(),
  z.object({ kind: z.literal('arc'), through: PlaceSchema }).readonly(),
  z.object({ kind: z.literal('tangent') }).readonly(),
  z.object({ kind: z.literal('curve') }).readonly(),
  z.object({ kind: z.literal('ellipse'), apex: PlaceSchema, sweep: Amount.min(-Math.PI).max(Math.PI) }).readonly(),
]);

const CircleBy = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('rim'), centre: PlaceSchema, rim: PlaceSchema }).readonly(),
  z.object({ kind: z.literal('two'), a: PlaceSchema, b: PlaceSchema }).readonly(),
  z.object({ kind: z.literal('three'), a: PlaceSchema, b: PlaceSchema, c: PlaceSchema }).readonly(),
]);

const RecipeSchema = recipeSchema(PlaceSchema);
const Owned = { id: Id, layer: Id, plane: Id, aid: z.boolean().optional() };
const OutlineSchema = z.discriminatedUnion('shape', [
  z
    .object({
      ...Owned,
      shape: z.literal('chain'),
      closed: z.boolean(),
      even: z.boolean().optional(),
      nodes: z.array(Node).readonly(),
      segments: z.array(Segment).readonly(),
    })
    .readonly(),
  z.object({ ...Owned, shape: z.literal('circle'), by: CircleBy }).readonly(),
  z
    .object({ ...Owned, shape: z.literal('ellipse'), centre: PlaceSchema, end: PlaceSchema, side: PlaceSchema })
    .readonly(),
  z.object({ ...Owned, shape: z.literal('made'), recipe: RecipeSchema }).readonly(),
]);

const GuideSchema = z
  .object({
    id: Id,
    plane: Id,
    through: PlaceSchema,
    towards: PlaceSchema.optional(),
    angle: Amount,
    offset: Amount,
    square: z.boolean().optional(),
    mirrors: z.boolean().optional(),
  })
  .readonly();

/** What it is about: a whole circle, a node (or the `centre` of a circle), or the segment that begins at a node. */
const RelationEnd = z.object({ outline: Id, node: Id.optional(), segment: Id.optional() }).readonly();
const RelationSchema = z
  .object({
    id: Id,
    plane: Id,
    kind: z.enum(RELATION_KINDS),
    on: z.array(RelationEnd).min(1).max(200).readonly(),
    value: Amount.optional(),
  })
  .readonly();

/** `aside`: how far it stands from what it is read between, to the left; `line`: where it stands instead, up of what is read across, across of what is read up. mm. `least`: it should be no less. */
/** What such a size usually is, from the shelf: compared with, never used. mm. */
const UsualRange = z.object({ name: z.string().min(1).max(200), least: Positive, most: Positive }).readonly();
const DimensionSchema = z
  .object({
    id: Id,
    plane: Id,
    kind: z.enum(DIMENSION_KINDS),
    on: z.array(RelationEnd).min(1).max(2).readonly(),
    aside: Amount,
    line: Amount.optional(),
    should: Amount.optional(),
    least: z.boolean().optional(),
    usual: UsualRange.optional(),
  })
  .readonly();

/** How many of each a job holds at the most. */
export const MOST = {
  relations: 5000,
  regions: 2000,
  dimensions: 2000,
  parts: 2000,
  declined: 5000,
  asked: 200,
  features: 1000,
  spans: 2000,
  spaceCurves: 500,
  looks: 200,
  sitings: 200,
  setbacks: 1000,
  variants: 6,
  byEye: 500,
} as const;

export const JobSchema = z
  .object({
    format: z.literal(JOB_FORMAT),
    version: z.literal(JOB_VERSION),
    id: Id,
    name: z.string().min(1).max(200),
    created: z.string(),
    units: z
      .object({
        style: z.enum(['mm', 'cm', 'm', 'inch', 'inch-fraction', 'feet-inches']),
        denominator: z.union([z.literal(2), z.literal(4), z.literal(8), z.literal(16), z.literal(32), z.literal(64)]),
      })
      .readonly(),
    /** Pieces shorter than this are pointed out by the check. mm. */
    shortest: Positive,
    /** A guided path that is shown beside the job; only demo jobs have one. */
    tour: z.string().optional(),
    sheets: z.array(Sheet).readonly(),
    views: z.array(View).readonly(),
    planes: z.array(PlaneSchema).readonly(),
    layers: z.array(Layer).min(1).readonly(),
    outlines: z.array(OutlineSchema).readonly(),
    guides: z.array(GuideSchema).readonly(),
    /** What holds exactly between outlines; mm and radians. */
    relations: z.array(RelationSchema).max(MOST.relations).readonly(),
    /** Regions that somebody named, by a place in each. */
    regions: z.array(RegionSchema).max(MOST.regions).readonly(),
    /** Sizes that stay on the drawing. */
    dimensions: z.array(DimensionSchema).max(MOST.dimensions).readonly(),
    /** What is made, by name. */
    parts: z.array(PartSchema).max(MOST.parts).readonly(),
    /** What was proposed to be true, and is not. */
    declined: z
      .array(z.object({ kind: z.enum(RELATION_KINDS), on: z.array(RelationEnd).min(1).max(200).readonly() }).readonly())
      .max(MOST.declined)
      .readonly(),
    /** What several views show: shared lines and places. */
    features: z.array(FeatureSchema).max(MOST.features).readonly(),
    /** Sizes between them. */
    spans: z.array(SpanSchema).max(MOST.spans).readonly(),
    /** Curves in space, each of two outlines. */
    spaceCurves: z.array(SpaceCurveSchema).max(MOST.spaceCurves).readonly(),
    /** From where all views are looked at together. */
    looks: z.array(NamedLookSchema).max(MOST.looks).readonly(),
    /** Drawings that are set on other planes: a plan on its site. */
    sitings: z.array(SitingSchema).max(MOST.sitings).readonly(),
    /** How far what is set there has to keep from edges. */
    setbacks: z.array(SetbackSchema).max(MOST.setbacks).readonly(),
    /** Sides whose views lie side by side. */
    variants: z.array(VariantsSchema).max(MOST.variants).readonly(),
    /** Things stood in the drawing to judge its scale by eye. */
    byEye: z.array(byEyeSchema(Pointed)).max(MOST.byEye).readonly(),
    /** How views are laid out on a sheet, where somebody said so. */
    projection: z.enum(PROJECTION_METHODS).optional(),
    references: z.array(ReferenceSchema).readonly(),
    site: SiteSchema.optional(),
    /** Sizes that somebody was asked for. */
    asked: z.array(AskedSchema).max(MOST.asked).readonly().optional(),
  })
  .readonly();

export type Job = z.infer<typeof JobSchema>;
export type Sheet = z.infer<typeof Sheet>;

/** Every file that a job stands on, by its SHA-256, each once. */
export function listFiles({ sheets, references }: Pick<Job, 'sheets' | 'references'>): readonly string[] {
  return [...new Set([...sheets.map(({ picture }) => picture), ...references.map(({ file }) => file)])];
}

export type Taken = z.infer<typeof Taken>;
export type View = z.infer<typeof View>;
export type UsualRange = z.infer<typeof UsualRange>;
export type Dimension = z.infer<typeof DimensionSchema>;
export type ViewSide = (typeof VIEW_SIDES)[number];
export type Layer = z.infer<typeof Layer>;
export type LayerColor = Layer['color'];
