import { lineAngle } from '../geometry';
import type { Turn } from '../outline';
import type { Relation } from './relation';

/** Nearer than this to level or upright, radians, a direction is it. */
const SAME = 1e-9;

/**
 * A relation said in other axes, so that everything stays where it is on the thing: what was level is then upright, or runs in a direction.
 * Undefined where it cannot be said: a distance across from zero, when across points another way.
 */
export function findTurned(relation: Relation, turn: Turn): Relation | undefined {
  const { kind, value = 0 } = relation;
  if (kind === 'level' || kind === 'upright') return directed(relation, turn.angle(kind === 'level' ? 0 : Math.PI / 2));
  if (kind === 'direction') return { ...relation, value: folded(turn.angle(value)) };
  if (kind !== 'across' && kind !== 'up') return relation;
  const [x, y] = turn.displacement(kind === 'across' ? [1, 0] : [0, 1]);
  const isAcross = Math.abs(y) <= SAME;
  if (!isAcross && Math.abs(x) > SAME) return undefined;
  const at = turn.place(kind === 'across' ? [value, 0] : [0, value]);
  return { ...relation, kind: isAcross ? 'across' : 'up', value: isAcross ? at[0] : at[1] };
}

function directed({ value: _, ...relation }: Relation, angle: number): Relation {
  const way = folded(angle);
  if (Math.abs(way) < SAME) return { ...relation, kind: 'level' };
  return Math.abs(Math.abs(way) - Math.PI / 2) < SAME
    ? { ...relation, kind: 'upright' }
    : { ...relation, kind: 'direction', value: way };
}

/** A direction of a line, which has no front: more than −90° and up to 90°. */
function folded(angle: number): number {
  const way = lineAngle(angle);
  return way <= -Math.PI / 2 + SAME ? way + Math.PI : way;
}
