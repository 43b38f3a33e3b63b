import { LEVEL_SIGMA } from '../arrange';
import { angleOf, lineAngle, mix, subtract } from '../geometry';
import type { Job, LineShown } from '../job';
import { findGuideLine, type Chain, type Guide, type Place } from '../outline';
import { axesSeenFrom } from '../space';
import type { FittedView } from './fits';
import { isSide } from './scene';

/** What is sent from one view to the others: what it is called and its places of their own are the caller's to add. */
export type Sent = Pick<LineShown, 'along'> & { readonly seen: readonly Omit<LineShown['seen'][number], 'id'>[] };

/** One sigma of a place that nobody pointed at itself, px. */
const CONSTRUCTED = 1;

/**
 * A guide as a line that other views show too: level or upright in a view that shows a side. It is seen where it was pointed at; where it stands aside of that, or half-way, at the one place that this makes: that it runs level is no more than the view's own datum says. Undefined for one that
 * runs aslant, or in a view of which nobody said the side.
 */
export function sentGuide(guide: Guide, fitted: FittedView): Sent | undefined {
  const { source, placing } = fitted;
  const line = isSide(source.side) && findGuideLine(guide, placing, 1);
  if (!line || !isSide(source.side)) return undefined;
  const turn = Math.abs(lineAngle(angleOf(subtract(line.b, line.a))));
  const [right, up] = axesSeenFrom(source.side);
  if (turn > LEVEL_SIGMA && turn < Math.PI / 2 - LEVEL_SIGMA) return undefined;
  const along = turn <= LEVEL_SIGMA ? up.direction : right.direction;
  const own = [guide.through, ...(guide.towards ? [guide.towards] : [])].flatMap((place) =>
    pointedIn(place, source.id),
  );
  const isOnThem = guide.offset === 0 && !guide.square && own.length > 0;
  return {
    along,
    seen: isOnThem
      ? own
      : [{ view: source.id, at: fitted.fit.toSheet(mix(line.a, line.b, 0.5)), sigma: own[0]?.sigma ?? CONSTRUCTED }],
  };
}

const pointedIn = (place: Place, view: string): Sent['seen'] =>
  place.kind === 'pointed' && (place.view ?? view) === view
    ? [{ view, at: place.at, sigma: place.sigma, ...(place.edge ? { edge: place.edge } : {}) }]
    : [];

/** A node as a place that other views show too; undefined where it was not pointed at in this view, or nobody said which side that shows. */
export function sentNode({ nodes }: Chain, node: string, { source }: Pick<FittedView, 'source'>): Sent | undefined {
  const place = nodes.find(({ id }) => id === node)?.place;
  const seen = place && isSide(source.side) ? pointedIn(place, source.id) : [];
  return seen.length > 0 ? { seen } : undefined;
}

/** Whether there is anywhere to send to: another view that shows a side. */
export const hasOthers = ({ views }: Pick<Job, 'views'>, { source }: Pick<FittedView, 'source'>): boolean =>
  views.some(({ id, side }) => id !== source.id && isSide(side));
