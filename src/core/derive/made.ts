import { isSameList } from '../basics';
import type { Line, Vec } from '../geometry';
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
} from '../outline';
import type { FittedView } from './fits';
import type { SeenPlane } from './planes';

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
    const [open, lines] = [new Set<string>(), new Map<Guide, Line | undefined>()];
    const find = (id: string): Shape | undefined => {
      const outline = made.get(id);
      if (!outline || shapes.has(id) || open.has(id)) return shapes.get(id);
      const plane = planes.get(outline.plane);
      if (!plane) return undefined;
      open.add(id);
      const sources = outline.recipe.of.map(find);
      const guide =
        outline.recipe.kind === 'mirrored'
          ? job.guides.find((other) => other.id === (outline.recipe as { guide: string }).guide)
          : undefined;
      const of = [...plane.fits, guide, ...sources];
      const before = known.get(outline);
      const shape =
        before && isSameList(before.of, of)
          ? before.shape
          : makeShape(outline, makingIn(job, plane, find, guide, lines));
      known.set(outline, { of, shape });
      shapes.set(id, shape);
      open.delete(id);
      return shape;
    };
    for (const id of made.keys()) find(id);
    return shapes;
  };
}

function makingIn(
  job: Pick<Job, 'outlines'>,
  plane: SeenPlane,
  findShape: Making['findShape'],
  guide: Guide | undefined,
  lines: Map<Guide, Line | undefined>,
): Making {
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

/** Everything that an outline is made of, through and through, that stands on places of its own; an outline that does is all of it. Those that were `seen` are passed over. */
export function drawnSourcesOf(
  outline: Outline,
  outlines: readonly Outline[],
  seen: Set<string> = new Set(),
): readonly DrawnOutline[] {
  if (seen.has(outline.id)) return [];
  seen.add(outline.id);
  if (outline.shape !== 'made') return [outline];
  return outline.recipe.of
    .flatMap((id) => outlines.filter((other) => other.id === id))
    .flatMap((source) => drawnSourcesOf(source, outlines, seen));
}

/** The made outlines among some, and those that they are made of, through and through. */
export function madeSourcesOf(outlines: readonly Outline[], all: readonly Outline[]): readonly MadeOutline[] {
  const found = new Set<MadeOutline>();
  const open = [...outlines];
  for (let outline = open.pop(); outline; outline = open.pop()) {
    if (outline.shape !== 'made' || found.has(outline)) continue;
    found.add(outline);
    const { of } = outline.recipe;
    open.push(...all.filter(({ id }) => of.includes(id)));
  }
  return [...found];
}

/** The shape of a made outline where drawn ones have the shapes that are given; `outlines` are the made ones and those that openings are laid out along. */
export function reshaped(
  id: string,
  outlines: readonly Outline[],
  guides: readonly Guide[],
  placing: Omit<Placing, 'nodeAt'>,
  drawn: ReadonlyMap<string, Shape>,
  reach: number,
  copies?: Copies,
): Shape | undefined {
  const shapes = new Map<string, Shape | undefined>(drawn);
  const find = (wanted: string): Shape | undefined => {
    const made = shapes.has(wanted) ? undefined : outlines.find((other) => other.id === wanted);
    if (made?.shape !== 'made') return shapes.get(wanted);
    shapes.set(wanted, undefined);
    const findGuide = (guide: string) => {
      const found = guides.find((other) => other.id === guide);
      return found && findGuideLine(found, placing, reach);
    };
    shapes.set(
      wanted,
      makeShape(made, {
        placing,
        copies,
        findShape: find,
        findOutline: (source) => outlines.find((other) => other.id === source),
        findGuide,
      }),
    );
    return shapes.get(wanted);
  };
  return find(id);
}
