import type { Condition } from '../adjust';
import type { Direction } from '../space';
import { coordinateOf, directionsBetween, type SceneFeature } from './scene';

/** Some coordinates of features: which blocks they are among, and how to read them off these. */
export interface Read {
  readonly blocks: readonly string[];
  /** One number for each coordinate, in the order asked for. mm. */
  numbers(values: readonly (readonly number[])[]): readonly number[];
}

export function readCoordinates(wanted: readonly (readonly [SceneFeature, Direction])[]): Read {
  const coordinates = wanted.map(([feature, direction]) => coordinateOf(feature, direction));
  const blocks = [...new Set(coordinates.flatMap((coordinate) => ('block' in coordinate ? [coordinate.block] : [])))];
  const at = coordinates.map((coordinate) => ('block' in coordinate ? blocks.indexOf(coordinate.block) : -1));
  return {
    blocks,
    numbers: (values) => coordinates.map((coordinate, i) => ('mm' in coordinate ? coordinate.mm : values[at[i]!]![0]!)),
  };
}

/** Several readings one after the other. */
export function readTogether(reads: readonly Read[]): Read {
  const blocks = [...new Set(reads.flatMap((read) => read.blocks))];
  const at = reads.map((read) => read.blocks.map((block) => blocks.indexOf(block)));
  return {
    blocks,
    numbers: (values) => reads.flatMap((read, i) => read.numbers(at[i]!.map((block) => values[block]!))),
  };
}

/** How far apart two features are, from their coordinates along these directions. Without a sign. mm. */
export function readDistance(a: SceneFeature, b: SceneFeature, along?: Direction): Read {
  const directions = directionsBetween(a, b, along) ?? [];
  const read = readCoordinates(
    [a, b].flatMap((feature) => directions.map((direction) => [feature, direction] as const)),
  );
  return {
    blocks: read.blocks,
    numbers(values) {
      const numbers = read.numbers(values);
      return [Math.hypot(...directions.map((_, i) => numbers[i]! - numbers[i + directions.length]!))];
    },
  };
}

/** A condition between coordinates. */
export const conditionOn = (
  group: string,
  exact: boolean,
  { blocks, numbers }: Read,
  residuals: (numbers: readonly number[]) => readonly number[],
): Condition => ({
  group,
  exact,
  origin: 'stated',
  blocks,
  residuals: (values) => residuals(numbers(values)),
});
