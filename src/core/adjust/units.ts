import type { NormalEquations } from './normal';
import type { Block, Layout, Values } from './problem';

/** How far at the most what is sought in a unit follows one step of its logarithm: beyond that it would run away. */
const LONGEST = 1;

/** Blocks that are sought in units of another, with the columns of both. */
export interface InUnits {
  readonly id: string;
  readonly columns: readonly number[];
  readonly unit: number;
}

export function listInUnits(blocks: readonly Block[], { unknown }: Layout): readonly InUnits[] {
  return blocks.flatMap(({ id, start, inUnitsOf }) => {
    const [first, unit] = [unknown.get(id), inUnitsOf === undefined ? undefined : unknown.get(inUnitsOf)];
    return first === undefined || unit === undefined ? [] : [{ id, columns: start.map((_, k) => first + k), unit }];
  });
}

/** The equations by the ratios: where a unit grows, what is sought in it grows along. (The ratios are scaled so that only slopes by the units change.) */
export function inRatios(equations: NormalEquations, inUnits: readonly InUnits[], values: Values): NormalEquations {
  if (inUnits.length === 0) return equations;
  const [normal, gradient, bound] = [equations.normal.clone(), equations.gradient.slice(), equations.bound.clone()];
  for (const { id, columns, unit } of inUnits)
    columns.forEach((column, k) => {
      const along = values.get(id)![k]!;
      for (let i = 0; i < normal.rows; i++) normal.set(i, unit, normal.get(i, unit) + along * normal.get(i, column));
      for (let i = 0; i < normal.rows; i++) normal.set(unit, i, normal.get(unit, i) + along * normal.get(column, i));
      for (let i = 0; i < bound.rows; i++) bound.set(i, unit, bound.get(i, unit) + along * bound.get(i, column));
      gradient[unit]! += along * gradient[column]!;
    });
  return { ...equations, normal, gradient, bound };
}

/** A change of ratios as a change of the unknowns, each to its end: a ratio that moves evenly is an unknown that does not. */
export function fromRatios(change: Float64Array, inUnits: readonly InUnits[], values: Values): Float64Array {
  const moved = change.slice();
  for (const { id, columns, unit } of inUnits) {
    const grown = Math.exp(Math.max(-LONGEST, Math.min(LONGEST, change[unit]!)));
    columns.forEach((column, k) => {
      const value = values.get(id)![k]!;
      moved[column] = (value + change[column]!) * grown - value;
    });
  }
  return moved;
}
