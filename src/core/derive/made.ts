import { isSameList } from '../basics';
import type { Affine, Line, Vec } from '../geometry';
import type { Job } from '../job';
import {
  findGuideLine,
  makeShape,
  type Copies,
  type DrawnOutline,
  type Guide,
  type MadeOutline,
  type Making,
  type Outline,
  type Placing,
  type Shape,
  type Siting,
} from '../outline';
import type { FittedView } from './fits';
import type { SeenPlane } from './derived';
import { heldBy, sitedIn, sitingOf } from './sited';

/** How far guides on a plane reach to each side of their places: past all pictures of it. Plane unit. */
export const guideReachOn = ({ views }: Pick<SeenPlane, 'views'>): number => Math.max(...views.map(guideReach));

/** How far a guide reaches to each side of its place: past the whole picture. Plane unit. */
export function guideReach({ sheet, placing }: Pick<FittedView, 'sheet' | 'placing'>): number {
  const corners: readonly Vec[] = [
    [0, 0],
    [sheet.width, 0],
    [0, sheet.height],
    [sheet.width, sheet.height],
  ];
  return 2 * Math.max(...corners.map((corner) => Math.hypot(...placing.toPlane(corner))));
}

type GuideLines = ReadonlyMap<Guide, Line | undefined>;

/**
 * Shapes of outlines that are made from others, each after those that it is made of. What is made of itself by way of others has no shape. Remembered for as long as
 * the outline, its sources' shapes and its guide stay the same.
 */
export function createMaking(): (
  job: Job,
  planes: ReadonlyMap<string, SeenPlane>,
  drawn: ReadonlyMap<string, Shape>,
) => ReadonlyMap<string, Shape> {
  const known = new WeakMap<MadeOutline, { readonly of: readonly unknown[]; readonly shape: Shape }>();
  return (job, planes, drawn) => {
    const made = new Map(
      job.outlines.flatMap((outline) => (outline.shape === 'made' ? [[outline.id, outline] as const] : [])),
    );
    if (made.size === 0) return drawn;
    const shapes = new Map(drawn);
    const [open, lines, sited] = [
      new Set<string>(),
      new Map<Guide, Line | undefined>(),
      new Map<string, Affine | undefined>(),
    ];
    const findSited: Making['findSited'] = (id) => findMapOf(id, job, planes, find, sited);
    const find = (id: string): Shape | undefined => {
      const outline = made.get(id);
      if (!outline || shapes.has(id) || open.has(id)) return shapes.get(id);
      const plane = planes.get(outline.plane);
      if (!plane) return undefined;
      open.add(id);
      const guide = guideOf(outline, job);
      const of = [...plane.fits, guide, ...listMadeOf(outline, job, planes, find)];
      const before = known.get(outline);
      const shape =
        before && isSameList(before.of, of)
          ? before.shape
          : makeShape(outline, { ...makingIn(job, plane, find, guide, lines), findSited });
      known.set(outline, { of, shape });
      shapes.set(id, shape);
      open.delete(id);
      return shape;
    };
    for (const id of made.keys()) find(id);
    return shapes;
  };
}

/** The guide that an outline is mirrored about. */
const guideOf = ({ recipe }: MadeOutline, { guides }: Pick<Job, 'guides'>): Guide | undefined =>
  recipe.kind === 'mirrored' ? guides.find(({ id }) => id === recipe.guide) : undefined;

/** All that an outline is made of besides its plane and its guide. */
function listMadeOf(
  { recipe }: MadeOutline,
  { sitings }: Pick<Job, 'sitings'>,
  planes: ReadonlyMap<string, SeenPlane>,
  find: (id: string) => Shape | undefined,
): readonly unknown[] {
  const siting = sitingOf(recipe, sitings);
  const held = siting ? [siting, planes.get(siting.of)?.placing.scaled, ...heldBy(siting).map(find)] : [];
  return [...recipe.of.map(find), ...held];
}

/** Where what is set on another plane comes to: worked out once for all of a drawing. */
function findMapOf(
  id: string,
  { sitings, outlines }: Pick<Job, 'sitings' | 'outlines'>,
  planes: ReadonlyMap<string, SeenPlane>,
  findShape: Making['findShape'],
  known: Map<string, Affine | undefined>,
): ReturnType<Making['findSited']> {
  const siting = sitings.find((other) => other.id === id);
  if (!siting) return undefined;
  if (!planes.get(siting.of)?.placing.scaled) return 'made-without-scale';
  if (!known.has(id)) known.set(id, sitedIn(siting, { outlines }, { shapes: { get: findShape } }).map);
  return known.get(id);
}

function makingIn(
  job: Pick<Job, 'outlines'>,
  plane: SeenPlane,
  findShape: Making['findShape'],
  guide: Guide | undefined,
  lines: Map<Guide, Line | undefined>,
): Omit<Making, 'findSited'> {
  const line = () => {
    if (guide && !lines.has(guide)) lines.set(guide, findGuideLine(guide, plane.placing, guideReachOn(plane)));
    return guide && (lines as GuideLines).get(guide);
  };
  return {
    placing: plane.placing,
    findShape,
    findOutline: (id) => job.outlines.find((outline) => outline.id === id),
    findGuide: line,
  };
}

/** What a made outline follows: what it is made of, and what holds it where it is set. */
export function followedBy({ recipe }: MadeOutline, { sitings }: Pick<Job, 'sitings'>): readonly string[] {
  const siting = sitingOf(recipe, sitings);
  return siting ? [...recipe.of, ...heldBy(siting)] : recipe.of;
}

/** Everything that an outline follows, through and through, that stands on places of its own; an outline that does is all of it. Those that were `seen` are passed over. */
export function drawnSourcesOf(
  outline: Outline,
  job: Pick<Job, 'outlines' | 'sitings'>,
  seen: Set<string> = new Set(),
): readonly DrawnOutline[] {
  if (seen.has(outline.id)) return [];
  seen.add(outline.id);
  if (outline.shape !== 'made') return [outline];
  return followedBy(outline, job)
    .flatMap((id) => job.outlines.filter((other) => other.id === id))
    .flatMap((source) => drawnSourcesOf(source as Outline, job, seen));
}

/** The made outlines among some, and those that they follow, through and through. */
export function madeSourcesOf(
  outlines: readonly Outline[],
  job: Pick<Job, 'outlines' | 'sitings'>,
): readonly MadeOutline[] {
  const found = new Set<MadeOutline>();
  const open = [...outlines];
  for (let outline = open.pop(); outline; outline = open.pop()) {
    if (outline.shape !== 'made' || found.has(outline)) continue;
    found.add(outline);
    const followed = followedBy(outline, job);
    open.push(...(job.outlines as readonly Outline[]).filter(({ id }) => followed.includes(id)));
  }
  return [...found];
}

/** What made outlines are made anew among: themselves and what openings are laid out along and drawings held by, guides, and sitings. */
interface Among {
  readonly outlines: readonly Outline[];
  readonly guides: readonly Guide[];
  readonly sitings: readonly Siting[];
}

/** The shape of a made outline where drawn ones have the shapes that are given. */
export function reshaped(
  id: string,
  { outlines, guides, sitings }: Among,
  placing: Omit<Placing, 'nodeAt'>,
  drawn: ReadonlyMap<string, Shape>,
  reach: number,
  copies?: Copies,
): Shape | undefined {
  const shapes = new Map<string, Shape | undefined>(drawn);
  const findOutline = (wanted: string) => outlines.find((other) => other.id === wanted);
  const find = (wanted: string): Shape | undefined => {
    const made = shapes.has(wanted) ? undefined : findOutline(wanted);
    if (made?.shape !== 'made') return shapes.get(wanted);
    shapes.set(wanted, undefined);
    const findGuide = (guide: string) => {
      const found = guides.find((other) => other.id === guide);
      return found && findGuideLine(found, placing, reach);
    };
    const findSited = () => {
      const siting = sitingOf(made.recipe, sitings);
      return siting && sitedIn(siting, { outlines }, { shapes: { get: find } }).map;
    };
    shapes.set(wanted, makeShape(made, { placing, copies, findShape: find, findOutline, findGuide, findSited }));
    return shapes.get(wanted);
  };
  return find(id);
}
