import type { Vec } from '../geometry';
import type { Combining, CornerStyle, EndStyle } from '../planar';
import type { Place } from './place';

/** How a leaf turns: at which end of its opening it hangs (with two leaves, one hangs at each), to which side it opens, and how far it is drawn opened; ends and sides as seen along the wall's line. Radians. */
export interface Hanging {
  readonly at: 'start' | 'end';
  readonly to: 'left' | 'right';
  readonly open: number;
}

/** What stands in an opening: how wide each jamb of its frame is, how thick a leaf, and how many. A leaf that does not hang stays shut. mm */
export interface Fill {
  readonly kind: 'door' | 'window';
  readonly frame: number;
  readonly leaf: number;
  readonly leaves: 1 | 2;
  readonly hung?: Hanging | undefined;
}

/** A gap in a wall: so wide, and so far from a corner of its line, along the segment that leaves it (`on`) or arrives at it (`back`). `sill` and `head`: where it begins and ends above the floor; `read`: the outline, in another view, that it was read from. mm */
export interface Opening {
  readonly id: string;
  /** The node that it is counted from. */
  readonly corner: string;
  readonly way: 'on' | 'back';
  readonly distance: number;
  readonly width: number;
  readonly name?: string | undefined;
  readonly fill?: Fill | undefined;
  readonly sill?: number | undefined;
  readonly head?: number | undefined;
  readonly read?: string | undefined;
}

/** What is drawn of what stands in openings, apart from each other: frames and leaves as closed outlines; the ways of leaves and what is seen of sills as lines. */
export const FITTING_SETS = ['frames', 'leaves', 'swings'] as const;
export type FittingSet = (typeof FITTING_SETS)[number];

/** Which line a strip's width is laid along: seen along it. */
export type Justified = 'middle' | 'left' | 'right';

/**
 * How an outline is made from others (`of`, their ids). It follows them: nothing of it is stored but this. mm and radians. What is mirrored or stood elsewhere keeps
 * what it is made of; what is combined, completed or made a strip of usually stands in its sources' stead, which are then aids.
 */
export type Recipe =
  /** Grown by a distance where closed (shrunk below nothing), else the line beside, to its right (with `otherHand` to its left); `both`: to both sides. */
  | {
      readonly kind: 'offset';
      readonly of: readonly string[];
      readonly by: number;
      readonly both: boolean;
      readonly corners: CornerStyle;
      readonly otherHand?: boolean | undefined;
    }
  | {
      readonly kind: 'strip';
      readonly of: readonly string[];
      readonly width: number;
      readonly justified: Justified;
      readonly ends: EndStyle;
      readonly corners: CornerStyle;
      readonly openings?: readonly Opening[] | undefined;
    }
  /** What stands in the openings of a strip: one set of it. */
  | { readonly kind: 'fittings'; readonly of: readonly string[]; readonly set: FittingSet }
  | { readonly kind: 'combined'; readonly of: readonly string[]; readonly how: Combining }
  /** Mirrored about a guide; `joined`: halves whose ends lie on it and their mirror images as whole outlines. */
  | { readonly kind: 'mirrored'; readonly of: readonly string[]; readonly guide: string; readonly joined: boolean }
  /** Copies in rows: `count` along a step, as many rows of them as `rows` says along another. The first one is the source itself. */
  | {
      readonly kind: 'rows';
      readonly of: readonly string[];
      readonly step: Vec;
      readonly count: number;
      readonly rowStep: Vec;
      readonly rows: number;
    }
  /** Copies turned about a centre: `count` in all over `sweep`, a whole turn or a part of one. The first one is the source itself. */
  | {
      readonly kind: 'around';
      readonly of: readonly string[];
      readonly centre: Place;
      readonly count: number;
      readonly sweep: number;
    }
  /** A part stood elsewhere: its place `from` at `to`, turned, perhaps mirrored before that (left and right exchanged). */
  | {
      readonly kind: 'placed';
      readonly of: readonly string[];
      readonly from: Place;
      readonly to: Place;
      readonly turn: number;
      readonly mirrored: boolean;
    }
  /** What is drawn on another plane, as it is set on this one: see `Siting`. */
  | { readonly kind: 'sited'; readonly of: readonly string[]; readonly siting: string };

export type RecipeKind = Recipe['kind'];

export function placesOfRecipe(recipe: Recipe): readonly Place[] {
  if (recipe.kind === 'around') return [recipe.centre];
  return recipe.kind === 'placed' ? [recipe.from, recipe.to] : [];
}

export function mapRecipePlaces(recipe: Recipe, change: (place: Place) => Place): Recipe {
  if (recipe.kind === 'around') return { ...recipe, centre: change(recipe.centre) };
  return recipe.kind === 'placed' ? { ...recipe, from: change(recipe.from), to: change(recipe.to) } : recipe;
}
