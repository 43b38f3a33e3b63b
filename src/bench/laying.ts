import { canSquareUp, scaleInMiddle, toPlane, toSheet, type Fit } from '@/core/calibrate';
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
  type Affine,
  type Box,
  type Vec,
} from '@/core/geometry';

type SheetMap = Fit['map'];

/**
 * How a picture was laid on the bench, as plain data: by the map of its fit as it was then, so that it does not turn under a hand that corrects what it is laid by. As it was taken, turned about its middle; squared up by its fit, lens and all; or as it lies where the picture of another view does, `over` it.
 */
export type Laid =
  | {
      readonly kind: 'turned';
      readonly map: SheetMap;
      readonly middle: Vec;
      readonly direction: number;
      readonly mirrored: boolean;
    }
  | {
      readonly kind: 'squared';
      readonly map: SheetMap;
      readonly picture: Fit['picture'];
      /** The direction on the plane that lies level. */
      readonly along: number;
    }
  | {
      readonly kind: 'under';
      readonly over: Laid | undefined;
      /** The map of the picture that it lies under, and its own. */
      readonly map: SheetMap;
      readonly own: SheetMap;
      /** From its plane to that of the other, and back. */
      readonly onto: Affine;
      readonly back: Affine;
    };

/**
 * Where places lie on the bench. Bench frame: pixels of the picture as it lies, x right, y down; squared up, the middle of the picture keeps its place and its scale.
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

function asTaken(fromPlane: (plane: Vec) => Vec): Laying {
  const same = (place: Vec) => place;
  return { straight: false, toBench: same, toSheet: same, fromPlane, canLay: () => true };
}

const known = new WeakMap<Laid, Laying>();

/** Where places lie of a picture that was laid so. */
export function layingBy(laid: Laid): Laying {
  const laying = known.get(laid) ?? readLaid(laid);
  known.set(laid, laying);
  return laying;
}

function readLaid(laid: Laid): Laying {
  if (laid.kind === 'turned') return readTurned(laid);
  return laid.kind === 'squared' ? readSquared(laid) : readUnder(laid);
}

/** As it was taken, turned about its middle so that the view's datum is level, or seen from behind; undefined where that changes nothing. */
export function turned({ fit, sheet, view: { datum, mirrored = false } }: FittedView): Laid | undefined {
  if (datum.direction === 0 && !mirrored) return undefined;
  const middle: Vec = [sheet.width / 2, sheet.height / 2];
  return { kind: 'turned', map: fit.map, middle, direction: datum.direction, mirrored };
}

function readTurned({ map, middle, direction, mirrored }: Extract<Laid, { kind: 'turned' }>): Laying {
  const level = levelled(direction, mirrored);
  const toBench = (place: Vec) => add(middle, level.toSeen(subtract(place, middle)));
  return {
    straight: false,
    toBench,
    toSheet: (place) => add(middle, level.toSheet(subtract(place, middle))),
    fromPlane: (plane) => toBench(toSheet(map, plane)),
    canLay: () => true,
  };
}

/** A fit, and the direction on its plane that is worked along: that lies level. */
interface Squared {
  readonly fit: Fit;
  readonly view: Pick<FittedView['view'], 'workAlong'>;
}

export const squaredUp = ({ fit: { map, picture }, view: { workAlong: along = 0 } }: Squared): Laid => ({
  kind: 'squared',
  map,
  picture,
  along,
});

function readSquared({ map, picture, along }: Extract<Laid, { kind: 'squared' }>): Laying {
  const middle: Vec = [picture.width / 2, picture.height / 2];
  const about = toPlane(map, middle);
  const perMm = scaleInMiddle({ map, picture });
  const fromPlane = (plane: Vec): Vec => {
    const [x, y] = applied(placed([0, 0], -along), subtract(plane, about));
    return [middle[0] + x * perMm, middle[1] - y * perMm];
  };
  return {
    straight: true,
    fromPlane,
    toBench: (sheet) => fromPlane(toPlane(map, sheet)),
    toSheet: ([x, y]) =>
      toSheet(map, applied(placed(about, along), [(x - middle[0]) / perMm, (middle[1] - y) / perMm])),
    canLay: (sheet) => canSquareUp(map, perMm, sheet),
  };
}

function readUnder({ over, map, own, onto, back }: Extract<Laid, { kind: 'under' }>): Laying {
  const laying = over ? layingBy(over) : asTaken((plane) => toSheet(map, plane));
  const toBench = (sheet: Vec) => laying.fromPlane(applied(onto, toPlane(own, sheet)));
  return {
    straight: true,
    fromPlane: laying.fromPlane,
    toBench,
    toSheet: (bench) => toSheet(own, applied(back, toPlane(map, laying.toSheet(bench)))),
    canLay: (sheet) => toBench(sheet).every(Number.isFinite),
  };
}

interface UnderViewport {
  readonly laid?: Laid | undefined;
}

/** How the picture lies under a viewport; undefined: as it was taken. */
export const layingUnder = ({ laid }: UnderViewport): Laying | undefined => laid && layingBy(laid);

/** How the picture lies under a viewport, and what is drawn on its plane. */
export const layingOf = (viewport: UnderViewport, fit: Pick<Fit, 'toSheet'>): Laying =>
  layingUnder(viewport) ?? asTaken(fit.toSheet);

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
