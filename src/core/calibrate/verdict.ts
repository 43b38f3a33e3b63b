import { adjustView, type AdjustedView, type Patience } from './adjust-view';
import type { Pointed } from './view-problem';
import type { Observation } from './evidence';
import { heldAs, holdingOf, type Holding, type MapModel, type MapPart } from './models';
import type { Judged } from './odd-one-out';

/** A story that was told to its end: which pieces took part, what was left to them, and the numbers of the map that came of it. */
interface Ending {
  readonly pieces: readonly string[];
  readonly freed: readonly MapPart[];
  /** How the camera is assumed to have been held, where that is not what is usual. */
  readonly holding?: Holding | undefined;
  readonly values: readonly number[];
}

/** What judging evidence came to, as plain data that can be handed from one worker to another: with it the same judgement is had again by one adjustment for each story that counts. */
export interface Judgement {
  /** All pieces as they were taken: corners in order, begun on the side that fits. */
  readonly evidence: readonly Observation[];
  readonly best: Ending;
  readonly others: readonly (Ending & { readonly weight: number })[];
  readonly freed: readonly MapPart[];
  readonly suspects: readonly string[];
  readonly suspectsKept: boolean;
  readonly cost: number;
}

export function verdictOf({ adjusted, evidence, freed, suspects, suspectsKept, others, cost }: Judged): Judgement {
  return {
    evidence,
    best: endingOf(adjusted, freed),
    others: others.map((other) => ({ ...endingOf(other.adjusted, other.freed), weight: other.weight })),
    freed: [...freed],
    suspects,
    suspectsKept,
    cost,
  };
}

const endingOf = ({ evidence, values, model }: AdjustedView, freed: ReadonlySet<MapPart>): Ending => ({
  pieces: evidence.map(({ id }) => id),
  freed: [...freed],
  holding: holdingOf(model),
  values,
});

/** Enough for what was pointed at to come to rest around numbers that are at rest; what creeps is not followed farther than it was. */
const REST: Patience = { steps: 3, isAll: true };

/** The judgement that a verdict tells of, for the same pieces and the same model; undefined where it does not hold for them. */
export function judgedBy(verdict: Judgement, model: MapModel, pointed: Pointed): Judged | undefined {
  const { evidence, suspects, suspectsKept, cost } = verdict;
  const again = ({ pieces, freed, holding, values }: Ending): AdjustedView | undefined => {
    const part = evidence.filter(({ id }) => pieces.includes(id));
    const adjusted = adjustView(holding ? heldAs(model, holding) : model, part, pointed, new Set(freed), values, REST);
    // Whether it had settled was judged where it was told.
    return adjusted.ok ? adjusted.value : undefined;
  };
  const best = again(verdict.best);
  const others = verdict.others.map((other) => ({ ...other, freed: new Set(other.freed), adjusted: again(other) }));
  if (!best) return undefined;
  return {
    adjusted: best,
    evidence,
    freed: new Set(verdict.freed),
    suspects,
    suspectsKept,
    others: others.flatMap(({ adjusted, freed, weight }) => (adjusted ? [{ adjusted, freed, weight }] : [])),
    cost,
  };
}
