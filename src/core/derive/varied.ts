import { Matrix } from 'ml-matrix';
import { propagate, type Measured } from '../adjust';
import { movedFit } from '../calibrate';
import type { DrawnOutline, Placing } from '../outline';
import type { Relatable, Spread } from '../relate';
import type { FittedView } from './fits';
import type { RelatedView } from './related';

/** What a figure of solved outlines is varied by: the unknowns of every group, and how far the fit's doubts went from where they are, in their sigmas. */
export interface Varied {
  readonly x: readonly (readonly number[])[];
  readonly doubts: readonly number[];
}

/** Outlines that relations hold together, with what is known of where they may be. */
export interface SolvedOutlines {
  readonly known: ReadonlyMap<string, Relatable>;
  readonly spread: Spread;
}

/** The groups of related outlines to which some belong. */
export function solvedAmong(
  outlines: readonly DrawnOutline[],
  related: RelatedView | undefined,
): readonly SolvedOutlines[] {
  return (related?.groups ?? []).flatMap((group) => {
    const { known } = group.solved;
    const spread = outlines.some(({ id }) => related!.shapes.has(id) && known.has(id)) ? group.spread() : undefined;
    return spread ? [{ known, spread }] : [];
  });
}

/** Where pointed places lie when the fit's doubts go so far. */
export function placingBy({ fit, placing }: FittedView, doubts: readonly number[]): Omit<Placing, 'nodeAt'> {
  return doubts.every((doubt) => doubt === 0) ? placing : { ...placing, toPlane: movedFit(fit, doubts).toPlane };
}

/** Unknowns that follow the fit's doubts. */
export function followed(
  x: readonly number[],
  follows: Matrix | undefined,
  doubts: readonly number[],
): readonly number[] {
  if (!follows || doubts.every((doubt) => doubt === 0)) return x;
  return x.map((value, i) => doubts.reduce((sum, doubt, k) => sum + follows.get(i, k) * doubt, value));
}

/**
 * A figure of solved outlines with its plus-minus: what pointing leaves open in each group, and the fit's doubts, which move all of them at once and are unknowns of one
 * group where sizes were said. `swings` are what else the figure swings by, one sigma each.
 */
export function measureVaried(
  spreads: readonly Spread[],
  figure: (varied: Varied) => number,
  swings: readonly number[],
): Measured {
  const still = Array.from({ length: Math.max(0, ...spreads.map(({ follows }) => follows?.columns ?? 0)) }, () => 0);
  const rest: Varied = { x: spreads.map(({ x }) => x), doubts: still };
  const withGroup = (i: number, x: readonly number[], doubts = still): Varied => ({
    x: rest.x.map((own, k) => (k === i ? x : own)),
    doubts,
  });
  const parts = spreads.map(
    ({ x: start, own, findDoubts }, i) =>
      propagate(
        (x) => {
          const [now, first] = [findDoubts(x), findDoubts(start)];
          return figure(withGroup(i, x, now && first ? now.map((doubt, k) => doubt - first[k]!) : still));
        },
        start,
        own,
      ).sigma,
  );
  const isSized = spreads.some(({ x, findDoubts }) => findDoubts(x) !== undefined);
  const ofFit =
    isSized || still.length === 0
      ? 0
      : propagate((doubts) => figure({ ...rest, doubts }), still, Matrix.eye(still.length)).sigma;
  return { value: figure(rest), sigma: Math.hypot(...parts, ofFit, ...swings) };
}
