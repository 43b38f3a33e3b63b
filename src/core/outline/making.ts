import type { Result } from '../basics';
import { enclosedArea, movedPath, placed, reversedPath, type Affine, type Line, type Path } from '../geometry';
import { combine, offsetClosed, offsetOpen, strip, type OffsetLimits, type StripWidth } from '../planar';
import { fittingsOf } from './fitting';
import { findWhole, reflection } from './mirror';
import { betweenOpenings, listSpans, type OpeningSpan } from './opening';
import type { MadeOutline, Outline } from './outline';
import { findPosition, type Placing } from './place';
import type { Recipe } from './recipe';
import { isSign, shapeOfPaths, type MakingFault, type Shape } from './shape';

/** Which of the copies are made: all; one, where the others are as large; or those that reach farthest, where the others lie between them. */
export type Copies = 'all' | 'first' | 'outermost';

/** What a recipe is carried out with: the shapes of what it is made of, and the lines of guides. */
export interface Making {
  readonly copies?: Copies | undefined;
  readonly placing: Omit<Placing, 'nodeAt'>;
  findShape(outline: string): Shape | undefined;
  /** An outline by its id: openings are laid out along the segments of what walls are made of. */
  findOutline(outline: string): Outline | undefined;
  findGuide(guide: string): Line | undefined;
  /** How what is drawn on another plane comes to this one. */
  findSited(siting: string): Affine | MakingFault | undefined;
}

/** How far an offset curve may lie from where it belongs, and what is one place. mm */
const PRECISION = 0.01;
const TOLERANCE = 1e-6;

/** Pieces that one outline is made of at the most: more take seconds to draw, and minutes to check. */
const MOST_MADE = 20_000;
/** Pieces of which offsets, strips and combinations are made at the most: each is weighed against its neighbours. */
const MOST_WORKED = 3000;

/** The shape of what is made of others; without paths and with a fault when it cannot be made. */
export function makeShape(outline: MadeOutline, making: Making): Shape {
  const paths = pathsMade(outline.recipe, making);
  const fault =
    typeof paths === 'string'
      ? paths
      : paths.length === 0 && outline.recipe.kind !== 'fittings'
        ? 'made-nothing'
        : undefined;
  if (fault) return { ...shapeOfPaths(outline.id, []), faults: [{ segment: 0, fault }] };
  const shape = shapeOfPaths(outline.id, paths as readonly Path[]);
  const shut = pathsShut(outline.recipe, making);
  return shut && typeof shut !== 'string' ? { ...shape, shut } : shape;
}

/** What would be made if all openings were shut; undefined where there are none. What stands in openings, and what is made of that alone, shuts nothing in. */
function pathsShut(recipe: Recipe, making: Making): readonly Path[] | MakingFault | undefined {
  if (recipe.kind === 'fittings' || recipe.of.every((id) => isSignById(id, making))) return [];
  const hasOpenings = recipe.kind === 'strip' && Boolean(recipe.openings?.length);
  if (!hasOpenings && !recipe.of.some((id) => making.findShape(id)?.shut)) return undefined;
  const findShape = (id: string) => {
    const shape = making.findShape(id);
    return shape?.shut ? shapeOfPaths(id, shape.shut) : shape;
  };
  return pathsMade(recipe.kind === 'strip' ? { ...recipe, openings: [] } : recipe, { ...making, findShape });
}

const isSignById = (id: string, { findShape }: Making): boolean => {
  const shape = findShape(id);
  return shape !== undefined && isSign(shape);
};

const NEEDS_SCALE: readonly Recipe['kind'][] = ['offset', 'strip', 'rows', 'sited'];

type StripRecipe = Extract<Recipe, { kind: 'strip' }>;

function pathsMade(recipe: Recipe, making: Making): readonly Path[] | MakingFault {
  const sources = recipe.of.flatMap((id) => making.findShape(id) ?? []);
  if (sources.length < recipe.of.length || sources.some(({ paths }) => paths.length === 0)) return 'source-lost';
  if (!making.placing.scaled && NEEDS_SCALE.includes(recipe.kind)) return 'made-without-scale';
  if (isTooMuch(recipe, sources)) return 'made-too-many';
  const paths = sources.flatMap((source) => source.paths);
  switch (recipe.kind) {
    case 'offset':
      return offsetOf(sources, recipe);
    case 'strip':
      return unlessRefused(
        strip(wallLines(sources, recipe, making), widthOf(recipe), recipe.ends, limitsOf(recipe)),
        'made-unclear',
      );
    case 'fittings':
      return recipe.of.flatMap((id) => listOpeningSpans(id, making)).flatMap((span) => fittingsOf(span, recipe.set));
    case 'combined':
      return combinedOf(sources, recipe.how);
    case 'mirrored':
      return mirroredOf(paths, making.findGuide(recipe.guide), recipe.joined);
    case 'sited': {
      const map = making.findSited(recipe.siting);
      if (!map || typeof map === 'string') return map ?? 'source-lost';
      return paths.map((path) => movedPath(path, map));
    }
    default: {
      const maps = findMaps(recipe, making);
      return maps ? maps.flatMap((map) => paths.map((path) => movedPath(path, map))) : 'source-lost';
    }
  }
}

const combinedOf = (sources: readonly Shape[], how: Extract<Recipe, { kind: 'combined' }>['how']) =>
  unlessRefused(
    combine(
      sources.map((source) => source.paths),
      how,
      TOLERANCE,
    ),
    sources.every(({ closed }) => closed) ? 'made-unclear' : 'combine-open',
  );

function mirroredOf(
  paths: readonly Path[],
  axis: ReturnType<Making['findGuide']>,
  joined: Extract<Recipe, { kind: 'mirrored' }>['joined'],
): readonly Path[] | MakingFault {
  if (!axis) return 'guide-lost';
  return joined
    ? paths.flatMap((path) => findWhole(path, axis))
    : paths.map((path) => movedPath(path, reflection(axis)));
}

/** Counted before anything is made. */
function isTooMuch(recipe: Recipe, sources: readonly Shape[]): boolean {
  const pieces = sources.reduce((sum, source) => sum + source.finished.length, 0);
  const isWorked = recipe.kind === 'offset' || recipe.kind === 'strip' || recipe.kind === 'combined';
  return isWorked ? pieces > MOST_WORKED : pieces * (isCopied(recipe) ? countCopies(recipe) : 2) > MOST_MADE;
}

type CopyRecipe = Extract<Recipe, { kind: 'rows' | 'around' | 'placed' }>;
const isCopied = (recipe: Recipe): recipe is CopyRecipe =>
  recipe.kind === 'rows' || recipe.kind === 'around' || recipe.kind === 'placed';

/** How many copies stand beside the source. */
function countCopies(recipe: CopyRecipe): number {
  return recipe.kind === 'rows' ? recipe.rows * recipe.count - 1 : recipe.kind === 'around' ? recipe.count - 1 : 1;
}

/**
 * How often an outline holds what it holds with its first copies alone; undefined where that differs from source to source, or where copies were made something else of.
 */
export function findTimes(
  outline: Outline,
  findOutline: (id: string) => Outline | undefined,
  known = new Map<string, number | undefined>(),
): number | undefined {
  if (outline.shape !== 'made') return 1;
  if (known.has(outline.id)) return known.get(outline.id);
  known.set(outline.id, undefined);
  const times = new Set(
    outline.recipe.of.map((id) => {
      const source = findOutline(id);
      return source && findTimes(source, findOutline, known);
    }),
  );
  const [each] = times;
  if (times.size === 1 && each !== undefined) known.set(outline.id, timesBy(outline.recipe, each));
  return known.get(outline.id);
}

function timesBy(recipe: Recipe, each: number): number | undefined {
  if (isCopied(recipe)) return each * countCopies(recipe);
  const isSame = (recipe.kind === 'mirrored' && !recipe.joined) || recipe.kind === 'sited';
  return each === 1 || isSame ? each : undefined;
}

const limitsOf = ({ corners }: Pick<Extract<Recipe, { kind: 'offset' }>, 'corners'>): OffsetLimits => ({
  corners,
  precision: PRECISION,
  tolerance: TOLERANCE,
});

/** The lines of a strip, without its openings. */
function wallLines(sources: readonly Shape[], { openings = [] }: StripRecipe, making: Making): readonly Path[] {
  return sources.flatMap((source) => {
    const chain = openings.length > 0 ? making.findOutline(source.id) : undefined;
    return chain?.shape === 'chain'
      ? source.paths.flatMap((path) => betweenOpenings(path, chain, openings))
      : source.paths;
  });
}

/** Where the openings of a strip are, line by line; none of anything else. */
export function listOpeningSpans(
  strip: string,
  making: Pick<Making, 'findShape' | 'findOutline'>,
): readonly OpeningSpan[] {
  const made = making.findOutline(strip);
  if (made?.shape !== 'made' || made.recipe.kind !== 'strip') return [];
  const { openings = [], of } = made.recipe;
  const sides = widthOf(made.recipe);
  return of.flatMap((id) => {
    const [chain, shape] = [making.findOutline(id), making.findShape(id)];
    return chain?.shape === 'chain' && shape
      ? shape.paths.flatMap((path) => listSpans(path, chain, openings, sides))
      : [];
  });
}

function widthOf({ width, justified }: StripRecipe): StripWidth {
  if (justified === 'middle') return { right: width / 2, left: width / 2 };
  return justified === 'right' ? { right: width, left: 0 } : { right: 0, left: width };
}

const unlessRefused = (result: Result<readonly Path[]>, fault: MakingFault): readonly Path[] | MakingFault =>
  result.ok ? result.value : fault;

/** Closed outlines grow; what has several loops keeps them as they run around its material. */
function offsetOf(
  sources: readonly Shape[],
  recipe: Extract<Recipe, { kind: 'offset' }>,
): readonly Path[] | MakingFault {
  const found: Path[] = [];
  for (const { closed, paths } of sources) {
    for (const by of recipe.both ? [recipe.by, -recipe.by] : [recipe.by]) {
      const results = closed
        ? [offsetClosed(alongOutward(paths), by, limitsOf(recipe))]
        : paths.map((path) => offsetOpen(path, recipe.otherHand ? -by : by, limitsOf(recipe)));
      for (const result of results) {
        if (!result.ok) return 'made-unclear';
        found.push(...result.value);
      }
    }
  }
  return found;
}

/** Loops so that together they hold what lies to their left: holes run the other way around already. */
function alongOutward(paths: readonly Path[]): readonly Path[] {
  const area = paths.reduce((sum, { pieces }) => sum + enclosedArea(pieces), 0);
  return area < 0 ? paths.map(reversedPath) : paths;
}

/** Where copies stand, as maps of the plane. */
function findMaps(recipe: CopyRecipe, { placing, copies = 'all' }: Making): readonly Affine[] | undefined {
  if (recipe.kind === 'rows') {
    return listSteps(recipe, copies).map(([i, j]) =>
      placed([i * recipe.step[0] + j * recipe.rowStep[0], i * recipe.step[1] + j * recipe.rowStep[1]]),
    );
  }
  const at = (place: Parameters<typeof findPosition>[0]) =>
    findPosition(place, { ...placing, nodeAt: () => undefined });
  if (recipe.kind === 'around') {
    const centre = at(recipe.centre);
    const isWhole = Math.abs(recipe.sweep) > 2 * Math.PI - 1e-9;
    const step = recipe.sweep / (isWhole ? recipe.count : Math.max(1, recipe.count - 1));
    return (
      centre &&
      Array.from({ length: copies === 'first' ? Math.min(1, recipe.count - 1) : recipe.count - 1 }, (_, i) =>
        turnedAbout(centre, (i + 1) * step),
      )
    );
  }
  const [from, to] = [at(recipe.from), at(recipe.to)];
  if (!from || !to) return undefined;
  const [a, b, c, d] = placed([0, 0], recipe.turn, recipe.mirrored ? -1 : 1, 1);
  return [[a, b, c, d, to[0] - a * from[0] - c * from[1], to[1] - b * from[0] - d * from[1]]];
}

/** Steps along and across to copies in rows, without the source itself. */
function listSteps(
  { count, rows }: Extract<Recipe, { kind: 'rows' }>,
  copies: Copies,
): readonly (readonly [number, number])[] {
  const all = Array.from(
    { length: copies === 'all' ? rows * count : 0 },
    (_, i) => [i % count, Math.floor(i / count)] as const,
  ).slice(1);
  if (copies === 'all') return all;
  const [last, lastRow] = [count - 1, rows - 1];
  const corners = [
    [Math.min(1, last), 0],
    [0, Math.min(1, lastRow)],
    [last, 0],
    [0, lastRow],
    [last, lastRow],
  ] as const;
  const apart = [...new Map(corners.map((step) => [step.join(), step])).values()].filter(([i, j]) => i + j > 0);
  return copies === 'first' ? apart.slice(0, 1) : apart;
}

function turnedAbout([x, y]: readonly [number, number], angle: number): Affine {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return [c, s, -s, c, x - c * x + s * y, y - s * x - c * y];
}
