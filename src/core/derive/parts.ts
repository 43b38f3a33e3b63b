import type { Measured } from '../adjust';
import { findUnion, pieceBounds } from '../geometry';
import type { PartLine } from '../formats';
import type { Job, Part } from '../job';
import type { MadeOutline, Outline, Shape } from '../outline';
import { areaOf, measureShapes, type Figured } from './figures';

/** How often a thing stands in a drawing, as it was drawn and with left and right exchanged. */
export interface Count {
  readonly plain: number;
  readonly mirrored: number;
}

/** Copies that a recipe adds to each of its sources. What is made anew of them (offset, combined, joined) are no copies. */
function copiesBy({ recipe }: MadeOutline): Count {
  switch (recipe.kind) {
    case 'rows':
      return { plain: recipe.count * recipe.rows - 1, mirrored: 0 };
    case 'around':
      return { plain: recipe.count - 1, mirrored: 0 };
    case 'placed':
      return recipe.mirrored ? { plain: 0, mirrored: 1 } : { plain: 1, mirrored: 0 };
    case 'mirrored':
      return recipe.joined ? NONE : { plain: 0, mirrored: 1 };
    default:
      return NONE;
  }
}

const NONE: Count = { plain: 0, mirrored: 0 };
const sum = (a: Count, b: Count): Count => ({ plain: a.plain + b.plain, mirrored: a.mirrored + b.mirrored });
/** Copies of copies: mirrored twice is as it was. */
const times = (a: Count, b: Count): Count => ({
  plain: a.plain * b.plain + a.mirrored * b.mirrored,
  mirrored: a.plain * b.mirrored + a.mirrored * b.plain,
});

/** How often an outline stands in its drawing: by itself unless it is an aid, and as often as copies of it do. */
export function countOutline(id: string, outlines: readonly Outline[], seen: ReadonlySet<string> = new Set()): Count {
  const own = outlines.find((outline) => outline.id === id);
  if (!own || seen.has(id)) return NONE;
  const further = new Set([...seen, id]);
  const copies = outlines.filter(
    (outline): outline is MadeOutline => outline.shape === 'made' && outline.recipe.of.includes(id),
  );
  return copies.reduce((all, made) => sum(all, times(copiesBy(made), countOutline(made.id, outlines, further))), {
    plain: own.aid ? 0 : 1,
    mirrored: 0,
  });
}

/** How often a part can be counted: as often as that of its outlines that stands there least. */
export function countPart({ of }: Pick<Part, 'of'>, outlines: readonly Outline[]): Count {
  const counts = of.map((id) => countOutline(id, outlines));
  return {
    plain: Math.min(...counts.map(({ plain }) => plain)),
    mirrored: Math.min(...counts.map(({ mirrored }) => mirrored)),
  };
}

/** Overall size of a part as it was drawn, and the area of its largest closed outline less the others: mm and mm², one sigma each. */
export interface PartFigures {
  readonly width: Measured;
  readonly height: Measured;
  readonly area: Measured;
}

export function measurePart({ of }: Pick<Part, 'of'>, figured: Figured): PartFigures {
  const outlines = figured.job.outlines.filter(({ id }) => of.includes(id));
  const side = (axis: 0 | 1) =>
    measureShapes(
      outlines,
      figured,
      (shapes) => {
        const box = findUnion([...shapes.values()].flatMap(({ finished }) => finished.map(pieceBounds)));
        return box ? box.max[axis] - box.min[axis] : NaN;
      },
      { copies: 'outermost' },
    );
  return {
    width: side(0),
    height: side(1),
    area: measureShapes(outlines, figured, (shapes) => materialOf([...shapes.values()])),
  };
}

/** Holes lie in the largest outline. */
function materialOf(shapes: readonly Shape[]): number {
  const areas = shapes.filter(({ closed }) => closed).map(areaOf);
  return 2 * Math.max(0, ...areas) - areas.reduce((total, area) => total + area, 0);
}

/** A row of the list of parts, for people and files. */
export interface PartRow extends PartFigures {
  readonly part: Part;
  readonly count: Count;
}

/** A row as it stands in a table: sizes in mm, plus-minus as two sigma. */
export function lineOfPart({ part, count, width, height, area }: PartRow): PartLine {
  return {
    name: part.name,
    count: count.plain + count.mirrored,
    mirrored: count.mirrored,
    material: part.material ?? '',
    thickness: part.thickness,
    width: width.value,
    widthPlusMinus: 2 * width.sigma,
    height: height.value,
    heightPlusMinus: 2 * height.sigma,
    area: area.value,
  };
}

/** All parts of a job, in the order in which they were named; those of views without scale are left out. */
export function listParts(job: Job, derived: Figured['derived']): readonly PartRow[] {
  return job.parts.flatMap((part): PartRow[] =>
    derived.planes.get(part.plane)?.placing.scaled
      ? [{ part, count: countPart(part, job.outlines), ...measurePart(part, { job, derived }) }]
      : [],
  );
}
