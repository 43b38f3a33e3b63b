import { proposeSides, type ProjectionMethod, type ProposedSide } from '@/core/arrange';
import { boxAround, levelled } from '@/core/geometry';
import type { Job, View } from '@/core/job';

/** Sides that the views of a sheet show by how they lie on it, those that nobody said yet; none where nothing stands in line. */
export function sidesBySheet(
  { views }: Pick<Job, 'views'>,
  projection: ProjectionMethod,
): readonly (ProposedSide & { readonly isSaid: boolean })[] {
  const bySheet = new Map<string, View[]>();
  for (const view of views) if (view.frame) bySheet.set(view.sheet, [...(bySheet.get(view.sheet) ?? []), view]);
  return [...bySheet.values()].flatMap((some) => {
    const laid = some.map(({ id, frame }) => {
      // As the sheet lies when it is read: the first view says what is level.
      const { toSeen } = levelled(some[0]!.datum.direction, false);
      return { id, ...boxAround(frame!.map(toSeen)) };
    });
    return proposeSides(laid, projection).map((proposed) => ({
      ...proposed,
      isSaid: some.find(({ id }) => id === proposed.view)?.side === proposed.side,
    }));
  });
}
