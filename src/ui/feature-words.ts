import type { End } from '@/core/derive';
import type { Feature, ViewSide } from '@/core/job';
import type { Direction } from '@/core/space';

/** The first line along a direction is most often this one. */
const FIRST_LINES: Readonly<Record<Direction, string>> = {
  up: 'Base line',
  across: 'Centre line',
  deep: 'Back line',
};

/** What a new shared line, or place, is called until somebody calls it something else: the first along a direction as that most often is. */
export function nameForFeature(
  along: Direction | undefined,
  features: readonly Pick<Feature, 'name' | 'along'>[],
): string {
  const first = along === undefined ? 'Place 1' : FIRST_LINES[along];
  const taken = features.map(({ name }) => name);
  const isFirst = along === undefined || features.every((feature) => feature.along !== along);
  if (isFirst && !taken.includes(first)) return first;
  const word = along === undefined ? 'Place' : 'Line';
  for (let i = 2; ; i++) if (!taken.includes(`${word} ${i}`)) return `${word} ${i}`;
}

/** What something new is called until somebody calls it something else: "Curve 1", or the next number that is free. */
export function nameInRow(word: string, taken: readonly string[]): string {
  for (let i = 1; ; i++) if (!taken.includes(`${word} ${i}`)) return `${word} ${i}`;
}

/** What a line is called at which a thing ends. */
const ENDS: Readonly<Record<Direction, Readonly<Record<End, string>>>> = {
  up: { least: 'Base line', most: 'Top' },
  across: { least: 'Left end', most: 'Right end' },
  deep: { least: 'Front edge', most: 'Rear edge' },
};

export function nameForEnd(along: Direction, end: End, taken: readonly string[]): string {
  const name = ENDS[along][end];
  return taken.includes(name) ? nameInRow(name, taken) : name;
}

export const DIRECTION_WORDS: Readonly<Record<Direction, string>> = { across: 'across', deep: 'deep', up: 'up' };

/** What one coordinate of a thing is called along each direction. */
export const EXTENT_WORDS: Readonly<Record<Direction, string>> = { across: 'width', deep: 'depth', up: 'height' };

export const SIDE_WORDS: Readonly<Record<ViewSide, string>> = {
  front: 'Front',
  back: 'Back',
  left: 'Left',
  right: 'Right',
  top: 'Top',
  bottom: 'Underneath',
  section: 'Section',
  face: 'Other face',
};
