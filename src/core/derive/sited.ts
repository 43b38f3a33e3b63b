import type { Job } from '../job';
import {
  findThing,
  siteBy,
  type MadeOutline,
  type Outline,
  type OutlineEnd,
  type Recipe,
  type Shape,
  type Sited,
  type Siting,
} from '../outline';

/** How a drawing stands on another plane where outlines have these shapes. */
export const sitedAmong = (
  siting: Siting,
  findOutline: (id: string) => Outline | undefined,
  findShape: (id: string) => Shape | undefined,
): Sited => siteBy(siting, (end: OutlineEnd) => findThing(end, findOutline(end.outline), findShape(end.outline)));

/** The siting by which an outline is made, where it is made so. */
export const sitingOf = (recipe: Recipe, sitings: readonly Siting[]): Siting | undefined =>
  recipe.kind === 'sited' ? sitings.find(({ id }) => id === recipe.siting) : undefined;

/** Outlines that a siting holds on to, each once. */
export const heldBy = ({ holds }: Siting): readonly string[] => [
  ...new Set(holds.flatMap(({ own, to }) => [own.outline, to.outline])),
];

/** How a drawing of a job stands on another plane. */
export const sitedIn = (
  siting: Siting,
  { outlines }: Pick<Job, 'outlines'>,
  { shapes }: { readonly shapes: ReadonlyMap<string, Shape> },
): Sited =>
  sitedAmong(
    siting,
    (id) => outlines.find((outline) => outline.id === id),
    (id) => shapes.get(id),
  );

/** Outlines of a plane that are not set on another one yet by a siting; what is set on it itself stays there. */
export const outlinesToSite = ({ outlines }: Pick<Job, 'outlines'>, of: string, siting?: Siting): readonly Outline[] =>
  outlines.filter(
    ({ id, plane, ...outline }) =>
      plane === of &&
      !(outline.shape === 'made' && outline.recipe.kind === 'sited') &&
      !outlines.some(
        (other) =>
          siting &&
          other.shape === 'made' &&
          other.recipe.kind === 'sited' &&
          other.recipe.siting === siting.id &&
          other.recipe.of.includes(id),
      ),
  );

/** What shows outlines where a siting has them. */
export const sitedOutlines = (
  outlines: readonly Outline[],
  { id, plane }: Siting,
  newId: () => string,
): readonly MadeOutline[] =>
  outlines.map(({ id: source, layer, aid }) => ({
    shape: 'made',
    id: newId(),
    layer,
    plane,
    ...(aid ? { aid } : {}),
    recipe: { kind: 'sited', of: [source], siting: id },
  }));
