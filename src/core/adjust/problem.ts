/**
 * Least squares as surveyors do it. This room knows nothing of pictures: unknowns are named blocks of numbers, observations
 * are residuals already divided by their sigma. Dense matrices: meant for up to a few hundred unknowns.
 */
export interface Block {
  readonly id: string;
  readonly start: readonly number[];
}

/** Where an observation's sigma comes from; said again wherever its influence is reported. */
export type SigmaOrigin = 'stated' | 'measured' | 'assumed';

export interface Observation {
  /** Observations with the same group stand and fall together (the two coordinates of one click). */
  readonly group: string;
  readonly origin: SigmaOrigin;
  readonly blocks: readonly string[];
  /** (predicted − observed) / sigma, one number or several; `values` are the blocks in the order of `blocks`. */
  residuals(values: readonly (readonly number[])[]): readonly number[];
}

export interface Problem {
  readonly blocks: readonly Block[];
  readonly observations: readonly Observation[];
}

export type Values = ReadonlyMap<string, readonly number[]>;

/** First column of each block in the Jacobian, and how many columns there are. */
export function layOut(blocks: readonly Block[]): { readonly columns: ReadonlyMap<string, number>; readonly width: number } {
  const columns = new Map<string, number>();
  let width = 0;
  for (const block of blocks) {
    columns.set(block.id, width);
    width += block.start.length;
  }
  return { columns, width };
}
