import { boxAround, isOverlapping, norm, scale, subtract, type Box, type Vec } from '@/core/geometry';
import { freePart, fromBench, panBy, zoomAbout, zoomTo, type Room, type Viewport } from './viewport';

/** What there is to look at, in the bench's frame. */
export interface LookScene {
  /** All of the picture. */
  readonly whole: Box;
  /** The places that are worked on, the latest last: those that were set, what is chosen. */
  readonly focus: readonly Vec[];
}

/** Around what is brought into sight, CSS px: so much that its marks and figures are seen too. */
const AROUND = 28;

/** How far a box of the screen has to be moved along one axis to lie between two bounds; undefined where there is no room for it. */
function shiftInto([from, to]: Vec, [least, most]: Vec): number | undefined {
  if (to - from > most - least) return undefined;
  return Math.max(0, least - from) - Math.max(0, to - most);
}

/**
 * Moved just as far as places of the bench have to be to lie in the free part: all of them where there is room, else the last one. What lies there already
 * moves nothing, and nothing is zoomed.
 */
export function broughtIn(viewport: Viewport, places: readonly Vec[]): Viewport {
  const free = freePart(viewport);
  const shiftFor = (list: readonly Vec[]) => {
    const { min, max } = boxAround(list.map((place) => fromBench(viewport, place)));
    return [0, 1].map((axis) => {
      const around = Math.min(AROUND, (free.max[axis]! - free.min[axis]!) / 2);
      return shiftInto([min[axis]!, max[axis]!], [free.min[axis]! + around, free.max[axis]! - around]);
    });
  };
  const shifts = [places, places.slice(-1)].map(shiftFor).find((shift) => !shift.includes(undefined)) as
    Vec | undefined;
  return !shifts || norm(shifts) === 0 ? viewport : panBy(viewport, shifts);
}

type Where = Pick<Viewport, 'zoom' | 'centre'>;

/** What is looked at, and how that follows what comes to lie over the bench. */
export interface Look {
  readonly viewport: Viewport;
  /** The whole picture was asked for, and no hand has moved it since. */
  readonly isWhole: boolean;
  /** Where the picture went of its own accord, and where it had been: what lies over the bench may go again. */
  readonly moved?: { readonly from: Where; readonly to: Where } | undefined;
}

const isSamePlace = (a: Where, b: Where) => a.zoom === b.zoom && a.centre === b.centre;

/** On each side, of the free part. */
const WHOLE_MARGIN = 0.02;

/** The bench has another size, or other things lie over it: the picture follows, and comes back when they go and no hand has moved it. */
export function inRoom({ viewport, isWhole, moved }: Look, room: Room, { whole, focus }: LookScene): Look {
  const before = moved && isSamePlace(viewport, moved.to) ? moved.from : viewport;
  const there: Viewport = { ...viewport, zoom: before.zoom, centre: before.centre, ...room };
  if (isWhole) return { viewport: zoomTo(there, whole, WHOLE_MARGIN), isWhole };
  const seen = focus.length > 0 ? broughtIn(there, focus) : there;
  return { viewport: seen, isWhole, moved: isSamePlace(seen, before) ? undefined : { from: before, to: seen } };
}

/** All of the picture in the free part. */
export const shownWhole = ({ viewport }: Look, { whole }: LookScene): Look => ({
  viewport: zoomTo(viewport, whole, WHOLE_MARGIN),
  isWhole: true,
});

/** Moved by the hand, CSS px. */
export const pannedBy = ({ viewport }: Look, by: Vec): Look => ({ viewport: panBy(viewport, by), isWhole: false });

export const zoomedAbout = ({ viewport }: Look, about: Vec, factor: number): Look => ({
  viewport: zoomAbout(viewport, about, factor),
  isWhole: false,
});

/** A box brought into sight with as much around it again as `margin` says. */
export const goneTo = ({ viewport }: Look, box: Box, margin: number): Look => ({
  viewport: zoomTo(viewport, box, margin),
  isWhole: false,
});

/** What is worked on is brought into sight where it is not. */
export function keptInSight(look: Look, { focus }: LookScene): Look {
  const seen = focus.length > 0 ? broughtIn(look.viewport, focus) : look.viewport;
  return isSamePlace(seen, look.viewport) ? look : { viewport: seen, isWhole: false };
}

/** A box of the bench is followed where nothing of it is seen any more: as far as it has to be, or to its middle. */
export function followed(look: Look, { min, max }: Box): Look {
  const free = freePart(look.viewport);
  const seen = boxAround([min, max].map((corner) => fromBench(look.viewport, corner)));
  if (isOverlapping(seen, free)) return look;
  const middle: Vec = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
  return { viewport: broughtIn(look.viewport, [min, max, middle]), isWhole: false };
}

/** How what is seen with one look lay with another: a place that is at p now was at `factor` · p + `by`. CSS px. */
export function wayBetween(from: Viewport, to: Viewport): { readonly factor: number; readonly by: Vec } {
  const factor = from.zoom / to.zoom;
  return { factor, by: subtract(fromBench(from, to.centre), scale(fromBench(to, to.centre), factor)) };
}
