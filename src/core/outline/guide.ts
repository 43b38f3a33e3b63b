import { add, angleOf, perpendicular, polar, scale, subtract, type Line, type Vec } from '../geometry';
import { findPosition, type Place, type Placing } from './place';

/**
 * A construction line without ends. Through a place at an angle (radians on the view plane), or through two places;
 * `offset` (mm, to the left of its direction) stands it aside. Guides are snapped to and never leave in a file.
 */
export interface Guide {
  readonly id: string;
  readonly plane: string;
  readonly through: Place;
  readonly towards?: Place | undefined;
  readonly angle: number;
  readonly offset: number;
  /** Square to the direction from `through` to `towards`. */
  readonly square?: boolean | undefined;
  /** A centre line: what is drawn on one side of it appears mirrored on the other. */
  readonly mirrors?: boolean | undefined;
}

/** A long piece of the guide's line about its place; `reach` to each side. Undefined when its place is lost. */
export function findGuideLine(guide: Guide, plain: Omit<Placing, 'nodeAt'>, reach: number): Line | undefined {
  const placing: Placing = { ...plain, nodeAt: () => undefined };
  const through = findPosition(guide.through, placing);
  const towards = guide.towards && findPosition(guide.towards, placing);
  if (!through || (guide.towards && !towards)) return undefined;
  const along = polar(
    1,
    (towards ? angleOf(subtract(towards, through)) : guide.angle) + (guide.square ? Math.PI / 2 : 0),
  );
  const foot: Vec = placing.scaled ? add(through, scale(perpendicular(along), guide.offset)) : through;
  return { kind: 'line', a: add(foot, scale(along, -reach)), b: add(foot, scale(along, reach)) };
}
