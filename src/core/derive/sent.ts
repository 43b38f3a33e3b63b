import { isUpright, LEVEL_SIGMA, type Facing } from '../arrange';
import { angleOf, lineAngle, mix, subtract } from '../geometry';
import type { Feature, Job, LineShown } from '../job';
import { findGuideLine, type Chain, type Guide, type Place } from '../outline';
import { axesSeenFrom, type Direction } from '../space';
import type { FittedView } from './fits';
import { facingOf } from './scene';

/** What is sent from one view to the others: what it is called and its places of their own are the caller's to add. */
export type Sent = Pick<LineShown, 'along'> & { readonly seen: readonly Omit<LineShown['seen'][number], 'id'>[] };

/** One sigma of a place that nobody pointed at itself, px. */
const CONSTRUCTED = 1;

/**
 * A guide as a line that other views show too: level or upright in a view that shows a side. It is seen where it was pointed at; where it stands aside of that, or half-way, at the one place that this makes: that it runs level is no more than the view's own datum says. Undefined for one that
 * runs aslant, or upright where that is no coordinate of the thing, or in a view of which nobody said how it looks at it.
 */
export function sentGuide(guide: Guide, fitted: FittedView, features: readonly Feature[]): Sent | undefined {
  const { source, placing } = fitted;
  const facing = facingOf(source, features);
  const line = facing && findGuideLine(guide, placing, 1);
  if (!line) return undefined;
  const turn = Math.abs(lineAngle(angleOf(subtract(line.b, line.a))));
  if (turn > LEVEL_SIGMA && turn < Math.PI / 2 - LEVEL_SIGMA) return undefined;
  const along = coordinateOfLine(turn <= LEVEL_SIGMA ? 'level' : 'upright', facing);
  if (!along) return undefined;
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

/** The coordinate that a line means which runs so in a view; along an edge it means none. */
export function coordinateOfLine(runs: 'level' | 'upright', facing: Facing): Direction | undefined {
  if (isUpright(facing)) return runs === 'level' ? 'up' : undefined;
  const [right, up] = axesSeenFrom(facing);
  return (runs === 'level' ? up : right).direction;
}

const pointedIn = (place: Place, view: string): Sent['seen'] =>
  place.kind === 'pointed' && (place.view ?? view) === view
    ? [{ view, at: place.at, sigma: place.sigma, ...(place.edge ? { edge: place.edge } : {}) }]
    : [];

/** A node as a place that other views show too; undefined where it was not pointed at in this view, or nobody said how that looks at the thing. */
export function sentNode(
  { nodes }: Chain,
  node: string,
  { source }: Pick<FittedView, 'source'>,
  features: readonly Feature[],
): Sent | undefined {
  const place = nodes.find(({ id }) => id === node)?.place;
  const seen = place && facingOf(source, features) ? pointedIn(place, source.id) : [];
  return seen.length > 0 ? { seen } : undefined;
}

/** Whether there is anywhere to send to: another view of which is said how it looks at the thing. */
export const hasOthers = (
  { views, features }: Pick<Job, 'views' | 'features'>,
  { source }: Pick<FittedView, 'source'>,
): boolean => views.some((view) => view.id !== source.id && facingOf(view, features) !== undefined);
