/**
 * Least squares as surveyors do it, in the mixed form: unknowns and observed numbers are tied by conditions (the
 * Gauss-Helmert model; Förstner & Wrobel, Photogrammetric Computer Vision, 2016, section 4.8; Mikhail & Ackermann,
 * Observations and Least Squares, 1976, chapter 5). What was observed (a click) never becomes an unknown: it is
 * eliminated row by row, so that a problem is as large as its unknowns. This room knows nothing of pictures.
 */
export interface Block {
  readonly id: string;
  /** Where an unknown starts; of an observed block what was observed. */
  readonly start: readonly number[];
  /** One sigma of every number of an observed block, or of each. Absent: the block is unknown. */
  readonly sigma?: number | readonly number[] | undefined;
  /**
   * An unknown block of one number, a logarithm, in whose units the numbers of this unknown one are sought: steps then follow what leaves their ratio as it is. It changes the way
   * that the search takes, not where it ends.
   */
  readonly inUnitsOf?: string | undefined;
}

/** Where a sigma comes from; said again wherever its influence is reported. */
export type SigmaOrigin = 'stated' | 'measured' | 'assumed';

/**
 * One or several equations between blocks. With `exact` they hold to the last digit (a relation); otherwise they are
 * (predicted − stated) / sigma with a noise of one.
 */
export interface Condition {
  /** Conditions with the same group stand and fall together. */
  readonly group: string;
  readonly origin: SigmaOrigin;
  readonly exact: boolean;
  readonly blocks: readonly string[];
  /** `values` are the blocks in the order of `blocks`. Not finite where the condition has no meaning. */
  residuals(values: readonly (readonly number[])[]): readonly number[];
  /** Its residuals have one slope by each number, whatever the numbers are. */
  readonly isStraight?: boolean | undefined;
  /**
   * The residuals with their slopes by every number of the blocks, one block after the other. Without it the slopes are found by
   * differences. Changes nothing of what it is given.
   */
  linearize?(values: readonly (readonly number[])[]): LinearCondition;
}

export interface LinearCondition {
  readonly residuals: readonly number[];
  readonly slopes: readonly (readonly number[])[];
}

export interface Problem {
  readonly blocks: readonly Block[];
  readonly conditions: readonly Condition[];
}

export type Values = ReadonlyMap<string, readonly number[]>;

/** First column of each block among the unknowns or among what was observed, and how many columns each side has. */
export interface Layout {
  readonly unknown: ReadonlyMap<string, number>;
  readonly observed: ReadonlyMap<string, number>;
  readonly unknowns: number;
  /** The columns of each unknown block. */
  readonly blocks: readonly (readonly number[])[];
  /** Observed value and variance, column by column. */
  readonly observations: readonly number[];
  readonly variances: readonly number[];
}

export function layOut(blocks: readonly Block[]): Layout {
  const [unknown, observed] = [new Map<string, number>(), new Map<string, number>()];
  const [observations, variances]: [number[], number[]] = [[], []];
  const columns: number[][] = [];
  let unknowns = 0;
  for (const { id, start, sigma } of blocks) {
    if (sigma === undefined) {
      unknown.set(id, unknowns);
      columns.push(start.map((_, i) => unknowns + i));
      unknowns += start.length;
    } else {
      observed.set(id, observations.length);
      observations.push(...start);
      variances.push(...start.map((_, i) => (typeof sigma === 'number' ? sigma : sigma[i]!) ** 2));
    }
  }
  return { unknown, observed, unknowns, blocks: columns, observations, variances };
}

export function startValues(problem: Problem): Values {
  return new Map(problem.blocks.map((block) => [block.id, block.start]));
}
