import type { StandingIn } from '../relate';
import { axesSeenFrom, vectorAlong } from '../space';
import type { Arranged } from './arranged';
import type { FittedView } from './fits';

/**
 * Where a plane stands for what relates its outlines to those of others: by a view that joins the one fit of all, along the directions along which something says how it stands. Views that stand
 * by themselves are laid to the others where that comes closest, which is no place to hold anything exactly.
 */
export function standingIn(
  plane: string,
  {
    views,
    arranged: { stands },
  }: { readonly views: ReadonlyMap<string, FittedView>; readonly arranged: Pick<Arranged, 'stands'> },
): StandingIn | undefined {
  const joining = [...views.values()]
    .filter(({ view }) => view.plane === plane)
    .flatMap(({ source }) => stands.get(source.id) ?? [])
    .find(({ joins }) => joins);
  if (!joining) return undefined;
  const { pose, side, byZero } = joining;
  const told = axesSeenFrom(side).filter(({ direction }) => !byZero.includes(direction));
  return { pose, shows: told.map(({ direction }) => vectorAlong(direction)) };
}
