import { done, refused, type Result } from '../basics';
import { withoutFalseBow, type Path } from '../geometry';
import { findReading } from './arrangement';
import { findBoundaries, type Boundary } from './boundary';
import { findWindings } from './winding';

export type Combining = 'united' | 'subtracted' | 'intersected';

/**
 * What several closed outlines are together: everything that one of them holds, the first without the others, or what all of them hold. Lines, arcs and curves stay
 * what they are. Loops with what they hold on their left: outer ones counter-clockwise, holes clockwise; none when nothing is left. `tolerance` in the paths' unit.
 * Refused when a path is open, or so close to another that it cannot be told what lies where.
 */
export function combine(
  sets: readonly (readonly Path[])[],
  how: Combining,
  tolerance: number,
): Result<readonly Boundary[]> {
  if (sets.some((paths) => paths.some(({ closed }) => !closed))) return refused('combine-open');
  const pieces = sets.flatMap((paths, set) =>
    paths.flatMap((path) => path.pieces.map((piece) => ({ piece: withoutFalseBow(piece), set }))),
  );
  const given = pieces.map(({ piece }) => piece);
  const loops = findReading(given, tolerance, (arrangement) => {
    const windings = sets.map((_, set) => findWindings(arrangement, (i) => (pieces[i]!.set === set ? 1 : 0)));
    if (windings.includes(undefined)) return undefined;
    return findBoundaries(arrangement, given, tolerance, (face) =>
      isKept(
        how,
        windings.map((winding) => winding!(face) % 2 !== 0),
      ),
    );
  });
  return loops ? done(loops) : refused('combine-unclear');
}

function isKept(how: Combining, [first = false, ...others]: readonly boolean[]): boolean {
  if (how === 'united') return first || others.some(Boolean);
  return first && (how === 'subtracted' ? !others.some(Boolean) : others.every(Boolean));
}
