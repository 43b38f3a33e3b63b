import { determinant, Matrix } from 'ml-matrix';
import { adjustEveryWay, adjustView, type AdjustedView, type Patience } from './adjust-view';
import type { Pointed } from './view-problem';
import type { Observation } from './evidence';
import { assumedSigma, firstNumberOf, heldAs, type Holding, type MapModel, type MapPart } from './models';

/** One explanation of all that is known: these pieces are wrong, these assumptions do not hold. */
export interface Story {
  readonly adjusted: AdjustedView;
  readonly freed: ReadonlySet<MapPart>;
  readonly aside: ReadonlySet<string>;
  /** Chi-square that is left, and what was given up for it: lower is the better story. */
  readonly cost: number;
}

/** `from` is where the adjustment starts, without it from every slant. Undefined when the story cannot be told: undetermined, or not to be believed. */
export type Tell = (freed: ReadonlySet<MapPart>, aside: ReadonlySet<string>, from?: AdjustedView) => Story | undefined;

export interface Teller {
  readonly tell: Tell;
  /** Every way in which a camera that may have been held anyhow can have stood, begun also `from` numbers that are near; what leaves more than `room` (chi-square) to explain is not waited for. */
  tellEveryWay(
    freed: ReadonlySet<MapPart>,
    aside: ReadonlySet<string>,
    beginning: { readonly from?: readonly number[] | undefined; readonly room?: number },
  ): readonly Story[];
  /** All pieces, the camera held so, from given numbers on. It is followed to its end: between two ways in which it can lean it goes slowly. */
  tellHeld(holding: Holding, from: readonly number[]): Story | undefined;
}

/** A group is looked at when its test is as unlikely as 1 in 1000 (Baarda 1968); giving up one freedom has to bring as much. */
export const CRITICAL = 3.29;

/** How far a part may be off before a misread size is the likelier story; and freedoms that must be left to prove it. */
const PLAUSIBLE: Partial<Record<MapPart, { readonly limit: number; readonly left: number }>> = {
  stretch: { limit: 0.06, left: 0 },
  skew: { limit: 0.04, left: 0 },
  tilt: { limit: 1.15, left: 0 },
  lens: { limit: 0.6, left: 0 },
  'lens-centre': { limit: 0.25, left: 0 },
  focal: { limit: Infinity, left: 1 },
};

/** So many pieces are adjusted for one judgement at the most, story by story: where dozens contradict each other, no number of stories ends it. What is not told by then is left untold. About ten seconds. */
const MOST_ADJUSTED = 20_000;
/** What may be spent on judging in all, in pieces adjusted; `isSpent` once something was left untold for it. */
export interface Allowance {
  left: number;
  isSpent: boolean;
}

export const allowanceOf = (pieces: number): Allowance => ({ left: pieces, isSpent: false });

/** Whether there was enough. */
export function spend(allowance: Allowance, pieces: number): boolean {
  allowance.left -= pieces;
  if (allowance.left < 0) allowance.isSpent = true;
  return !allowance.isSpent;
}

/** A camera that may have been held anyhow is begun from about so many sides. */
const WAYS = 8;

const NOTHING: ReadonlySet<never> = new Set();

const keyOf = (freed: ReadonlySet<MapPart>, aside: ReadonlySet<string>, from: AdjustedView | undefined) =>
  [from ? ['near'] : ['far'], [...freed].sort(), [...aside].sort()].map((some) => some.join('\n')).join('\n\n');

/** Tells stories about one set of evidence, each once. `counts` says whether an adjustment has come far enough, `patience` how long it is followed. */
export function createTeller(
  model: MapModel,
  evidence: readonly Observation[],
  pointed: Pointed,
  counts: (adjusted: AdjustedView) => boolean,
  patience: Patience = {},
  allowance: Allowance = allowanceOf(Infinity),
): Teller {
  const told = new Map<string, Story | undefined>();
  const own = allowanceOf(MOST_ADJUSTED);
  const isTooMuch = (stories: number) =>
    !spend(own, stories * evidence.length) || !spend(allowance, stories * evidence.length);
  const without = (aside: ReadonlySet<string>) => evidence.filter(({ id }) => !aside.has(id));
  const storyOf = (view: AdjustedView, freed: ReadonlySet<MapPart>, aside: ReadonlySet<string>): Story | undefined =>
    isPlausible(freed, view) ? { adjusted: view, freed, aside, cost: costOf(view, freed) } : undefined;
  const tellAnew: Tell = (freed, aside, from) => {
    const view = adjustView(model, without(aside), pointed, freed, from?.values, patience);
    return view.ok && counts(view.value) ? storyOf(view.value, freed, aside) : undefined;
  };
  return {
    tell(freed, aside, from) {
      const key = keyOf(freed, aside, from);
      if (!told.has(key)) told.set(key, isTooMuch(1) ? undefined : tellAnew(freed, aside, from));
      return told.get(key);
    },
    tellEveryWay(freed, aside, beginning) {
      if (isTooMuch(WAYS)) return [];
      return adjustEveryWay(model, without(aside), pointed, freed, patience, beginning)
        .map((view) => storyOf(view, freed, aside))
        .filter((story) => story !== undefined);
    },
    tellHeld(holding, from) {
      if (isTooMuch(1)) return undefined;
      const view = adjustView(heldAs(model, holding), evidence, pointed, NOTHING, from);
      return view.ok && counts(view.value) ? storyOf(view.value, NOTHING, NOTHING) : undefined;
    },
  };
}

/**
 * What a story leaves unexplained, with 10.8 (1 in 1000) for each freedom that was given up by leaving a piece out. Where all assumptions are weighed (auto) it is −2 times
 * the logarithm of the evidence for the story, by Laplace's approximation (MacKay, Information Theory, Inference, and Learning Algorithms, 2003,
 * section 28.1): an assumption that is given up costs how rare that is, and the share of what it then allows that is left.
 */
export function costOf({ solution, diagnosis, model, covariance }: AdjustedView, freed: ReadonlySet<MapPart>): number {
  return (
    solution.chiSquare -
    CRITICAL ** 2 * diagnosis.redundancy +
    (weighsAssumptions(model) ? narrowing(model, covariance.matrix, freed) : 0)
  );
}

export const weighsAssumptions = (model: MapModel) => model.parts.some(({ unusual }) => unusual);

/** How much narrower what is assumed has become than it was, in the same terms, and what was rare about it. */
function narrowing(model: MapModel, covariance: Matrix, freed: ReadonlySet<MapPart>): number {
  const assumed = model.parts.flatMap((part) =>
    (assumedSigma(part, freed) ?? []).map((sigma, i) => ({ sigma, column: firstNumberOf(model, part.id) + i })),
  );
  const left = new Matrix(
    assumed.map((a) => assumed.map((b) => covariance.get(a.column, b.column) / (a.sigma * b.sigma))),
  );
  const rarity = model.parts.reduce(
    (sum, { id, unusual, rarity: own = 0 }) => sum + (freed.has(id) ? (unusual?.cost ?? 0) : own),
    0,
  );
  return rarity - Math.log(Math.max(determinant(left), Number.MIN_VALUE));
}

function isPlausible(freed: ReadonlySet<MapPart>, { model, values, diagnosis }: AdjustedView): boolean {
  // A lens that bows as it should has its middle where it should.
  if (freed.has('lens-centre') && !freed.has('lens')) return false;
  return [...freed].every((part) => {
    const bounds = PLAUSIBLE[part];
    const first = firstNumberOf(model, part);
    const size = model.parts.find(({ id }) => id === part)!.start.length;
    return (
      bounds !== undefined &&
      diagnosis.redundancy >= bounds.left &&
      values.slice(first, first + size).every((value) => Math.abs(value) <= bounds.limit)
    );
  });
}
