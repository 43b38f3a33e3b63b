import { canSquareUp, scaleInMiddle, type Fit } from '@/core/calibrate';
import type { FittedView } from '@/core/derive';
import {
  add,
  applied,
  boxAround,
  distance,
  levelled,
  mix,
  placed,
  subtract,
  type Box,
  type Vec,
} from '@/core/geometry';

/**
 * How a picture lies on the bench: as it was taken and turned level, or squared up by its fit, lens and all. Bench frame: pixels of the picture as
 * it lies, x right, y down; squared up, the middle of the picture keeps its place and its scale.
 */
export interface Laying {
  readonly straight: boolean;
  toBench(sheet: Vec): Vec;
  toSheet(bench: Vec): Vec;
  /** From the view plane, without the way round by the sheet. */
  fromPlane(plane: Vec): Vec;
  /** Whether a sheet place can be laid at all: what lies near the horizon cannot. */
  canLay(sheet: Vec): boolean;
}

function asTaken(fit: Pick<Fit, 'toSheet'>): Laying {
  const same = (place: Vec) => place;
  return { straight: false, toBench: same, toSheet: same, fromPlane: fit.toSheet, canLay: () => true };
}

/** As it was taken, turned about its middle so that the view's datum is level, or seen from behind; undefined where that changes nothing. */
export function turned({ fit, sheet, view: { datum, mirrored = false } }: FittedView): Laying | undefined {
  if (datum.direction === 0 && !mirrored) return undefined;
  const middle: Vec = [sheet.width / 2, sheet.height / 2];
  const level = levelled(datum.direction, mirrored);
  const toBench = (place: Vec) => add(middle, level.toSeen(subtract(place, middle)));
  const toSheet = (place: Vec) => add(middle, level.toSheet(subtract(place, middle)));
  return { straight: false, toBench, toSheet, fromPlane: (plane) => toBench(fit.toSheet(plane)), canLay: () => true };
}

/** A fit, and the direction on its plane that is worked along: that lies level. */
interface Squared {
  readonly fit: Fit;
  readonly view: Pick<FittedView['view'], 'workAlong'>;
}

export function squaredUp({ fit, view: { workAlong: along = 0 } }: Squared): Laying {
  const { width, height } = fit.picture;
  const middle: Vec = [width / 2, height / 2];
  const about = fit.toPlane(middle);
  const perMm = scaleInMiddle(fit);
  const fromPlane = (plane: Vec): Vec => {
    const [x, y] = applied(placed([0, 0], -along), subtract(plane, about));
    return [middle[0] + x * perMm, middle[1] - y * perMm];
  };
  return {
    straight: true,
    fromPlane,
    toBench: (sheet) => fromPlane(fit.toPlane(sheet)),
    toSheet: ([x, y]) => fit.toSheet(applied(placed(about, along), [(x - middle[0]) / perMm, (middle[1] - y) / perMm])),
    canLay: (sheet) => canSquareUp(fit.map, perMm, sheet),
  };
}

/** How the picture lies under a viewport. */
export function layingOf(viewport: { readonly laying?: Laying | undefined }, fit: Pick<Fit, 'toSheet'>): Laying {
  return viewport.laying ?? asTaken(fit);
}

/** The box on the bench around a box of the view plane. */
export const boxOnBench = ({ fromPlane }: Laying, { min, max }: Box): Box =>
  boxAround([min, max, [min[0], max[1]] as const, [max[0], min[1]] as const].map(fromPlane));

/** The box of what a view shows of its picture as it lies, bench frame; of what can be laid of it. */
export function boundsOf(laying: Laying, { view, sheet: { width, height } }: Pick<FittedView, 'view' | 'sheet'>): Box {
  const grid = [0, 0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875, 1];
  const whole = grid.flatMap((u) => grid.map((v): Vec => [u * width, v * height]));
  const places = (view.frame ? alongFrame(view.frame) : whole).filter(laying.canLay).map(laying.toBench);
  return boxAround(places);
}

/** Places on the rim of a frame, close enough that a bowed side is followed. Sheet px. */
export function alongFrame(frame: readonly Vec[]): Vec[] {
  const STEPS = 16;
  return frame.flatMap((from, i) =>
    Array.from({ length: STEPS }, (_, k) => mix(from, frame[(i + 1) % frame.length]!, k / STEPS)),
  );
}

/** So many pixels of the sheet tell a direction. */
const REACH = 20;

/** A place of the sheet that lies across from another, in the plane's own axes: these stay where evidence tells them, however the view is turned. */
export function acrossFrom(at: Vec, { toPlane, toSheet }: Pick<Fit, 'toPlane' | 'toSheet'>): Vec {
  const from = toPlane(at);
  return toSheet(add(from, [distance(from, toPlane([at[0] + REACH, at[1]])), 0]));
}
