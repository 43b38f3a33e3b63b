import type { Vec } from '../geometry';
import type { Side } from '../space';

/** How the views of one sheet are laid out: in first angle a side is drawn beyond the thing, in third angle before it (ISO 128-3, ISO 5456-2; from memory of the standards). */
export const PROJECTION_METHODS = ['first', 'third'] as const;
export type ProjectionMethod = (typeof PROJECTION_METHODS)[number];

/** What a view takes up of its sheet, px, y down. */
export interface LaidView {
  readonly id: string;
  readonly min: Vec;
  readonly max: Vec;
}

export interface ProposedSide {
  readonly view: string;
  readonly side: Side;
  /** Where it lies beside the view that is taken for the front; undefined of that one itself. */
  readonly lies: 'above' | 'below' | 'left' | 'right' | 'beyond' | undefined;
}

type Place = Exclude<ProposedSide['lies'], undefined>;

const SIDES: Readonly<Record<ProjectionMethod, Readonly<Record<Place, Side>>>> = {
  first: { above: 'bottom', below: 'top', left: 'right', right: 'left', beyond: 'back' },
  third: { above: 'top', below: 'bottom', left: 'left', right: 'right', beyond: 'back' },
};

/** Views stand in one row, or in one column, when they overlap by this share of the smaller one. */
const IN_LINE = 0.5;

/**
 * Which sides the views of a sheet show, from how they lie to each other. The front is the one that stands in line with most others, above all with both a row and a column; of several that could be it, the one that is drawn largest. What lies in no
 * line with it gets no side; a second one farther out in its row, on the side of another, is the back. Empty where nothing stands in line.
 */
export function proposeSides(views: readonly LaidView[], projection: ProjectionMethod): ProposedSide[] {
  const ranked = views
    .map((view) => ({ view, neighbours: neighboursOf(view, views) }))
    .filter(({ neighbours }) => neighbours.length > 0)
    .sort((a, b) => rankOf(b.neighbours) - rankOf(a.neighbours) || areaOf(b.view) - areaOf(a.view));
  const [front] = ranked;
  if (!front) return [];
  const taken = new Set<Side>();
  const others = [...front.neighbours]
    .sort((a, b) => a.away - b.away)
    .flatMap(({ view, lies }): ProposedSide[] => {
      const isRow = lies === 'left' || lies === 'right';
      const nearest = SIDES[projection][lies];
      const place: Place | undefined = !taken.has(nearest) ? lies : isRow && !taken.has('back') ? 'beyond' : undefined;
      if (!place) return [];
      const side = SIDES[projection][place];
      taken.add(side);
      return [{ view: view.id, side, lies: place }];
    });
  return [{ view: front.view.id, side: 'front', lies: undefined }, ...others];
}

interface Neighbour {
  readonly view: LaidView;
  readonly lies: Exclude<Place, 'beyond'>;
  /** px from middle to middle. */
  readonly away: number;
}

function neighboursOf(view: LaidView, views: readonly LaidView[]): Neighbour[] {
  return views.flatMap((other): Neighbour[] => {
    if (other === view) return [];
    const [dx, dy] = [0, 1].map((axis) => middleOf(other, axis) - middleOf(view, axis)) as [number, number];
    const isApart = (axis: number) => overlapOf(view, other, axis) <= 0;
    if (isInLine(view, other, 1) && isApart(0))
      return [{ view: other, lies: dx > 0 ? 'right' : 'left', away: Math.abs(dx) }];
    if (isInLine(view, other, 0) && isApart(1))
      return [{ view: other, lies: dy > 0 ? 'below' : 'above', away: Math.abs(dy) }];
    return [];
  });
}

const middleOf = ({ min, max }: LaidView, axis: number) => (min[axis]! + max[axis]!) / 2;
const overlapOf = (a: LaidView, b: LaidView, axis: number) =>
  Math.min(a.max[axis]!, b.max[axis]!) - Math.max(a.min[axis]!, b.min[axis]!);
const isInLine = (a: LaidView, b: LaidView, axis: number) =>
  overlapOf(a, b, axis) >= IN_LINE * Math.min(...[a, b].map(({ min, max }) => max[axis]! - min[axis]!));
const areaOf = ({ min, max }: LaidView) => (max[0] - min[0]) * (max[1] - min[1]);

/** A row and a column count more than two in a row. */
function rankOf(neighbours: readonly Neighbour[]): number {
  const isRow = ({ lies }: Neighbour) => lies === 'left' || lies === 'right';
  return neighbours.length + (neighbours.some(isRow) && !neighbours.every(isRow) ? 10 : 0);
}
