import type { Job } from '../job';
import {
  findThing,
  siteBy,
  type MadeOutline,
  type Outline,
  type Recipe,
  type Shape,
  type Sited,
  type Siting,
} from '../outline';

/** The siting by which an outline is made, where it is made so. */
export const sitingOf = (recipe: Recipe, sitings: readonly Siting[]): Siting | undefined =>
  recipe.kind === 'sited' ? sitings.find(({ id }) => id === recipe.siting) : undefined;

/** Outlines that a siting holds on to, each once. */
export const heldBy = ({ holds }: Siting): readonly string[] => [
  ...new Set(holds.flatMap(({ own, to }) => [own.outline, to.outline])),
];

/** How a drawing stands on another plane, where outlines have these shapes. */
export const sitedIn = (
  siting: Siting,
  { outlines }: { readonly outlines: readonly Outline[] },
  { shapes }: { readonly shapes: { get(outline: string): Shape | undefined } },
): Sited => siteBy(siting, (end) => findThing(end, outlines, shapes));

/** Whether an outline shows by this siting what is drawn on another plane. */
export const isSitedBy = ({ id }: Siting, outline: Outline): boolean =>
  outline.shape === 'made' && outline.recipe.kind === 'sited' && outline.recipe.siting === id;

/** Outlines of a plane that are not set on another one yet by a siting; what is set on it itself stays there. */
export function outlinesToSite({ outlines }: Pick<Job, 'outlines'>, of: string, siting?: Siting): readonly Outline[] {
  const known = outlines.flatMap((outline) =>
    siting && outline.shape === 'made' && isSitedBy(siting, outline) ? outline.recipe.of : [],
  );
  return outlines.filter(
    (outline) =>
      outline.plane === of &&
      !(outline.shape === 'made' && outline.recipe.kind === 'sited') &&
      !known.includes(outline.id),
  );
}

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
