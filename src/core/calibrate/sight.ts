import type { Vec } from '../geometry';
import type { Pose } from '../space';
import type { Adjustment } from './adjustment';
import type { Datum } from './picture';
import { thenOnPlane, toPlane, toSheet, turnAndShift, type SheetMap } from './sheet-map';

/** How one view sees its plane: the way from its sheet (px) to the plane (mm, y up, on the datum) and back. */
export interface Sight {
  /** The map for what is traced. */
  readonly map: SheetMap;
  toPlane(sheet: Vec): Vec;
  toSheet(plane: Vec): Vec;
  /** The map for other numbers of the adjustment to a plane that stands at a pose in the view's frame; without a pose as high as the numbers say. */
  mapWith(values: readonly number[], pose?: Pose): SheetMap;
}

/** The axes in which a view sees its plane. */
export interface Axes {
  readonly datum: Datum;
  /** The datum sets zero and what is level, whatever the evidence tells of them: it belongs to another view of the sheet. */
  readonly ownAxes?: boolean | undefined;
}

const NOTHING_TOLD = { turn: false, shift: false };

export function sightOf({ values, mapAt, tells }: Adjustment, { datum, ownAxes }: Axes): Sight {
  const told = ownAxes ? NOTHING_TOLD : tells;
  const mapWith: Sight['mapWith'] = (at, pose) => onDatum(mapAt(at, pose), datum, told);
  const map = mapWith(values);
  return { map, mapWith, toPlane: (sheet) => toPlane(map, sheet), toSheet: (plane) => toSheet(map, plane) };
}

/** The map turned and shifted so that the datum's origin is (0, 0) and its direction is +x, as far as the evidence left that free. */
function onDatum(map: SheetMap, datum: Datum, told: { readonly turn: boolean; readonly shift: boolean }): SheetMap {
  if (told.shift) return map;
  const reach = map.unit / 20;
  const origin = toPlane(map, datum.origin);
  const along = toPlane(map, [
    datum.origin[0] + reach * Math.cos(datum.direction),
    datum.origin[1] + reach * Math.sin(datum.direction),
  ]);
  const turn = told.turn ? 0 : -Math.atan2(along[1] - origin[1], along[0] - origin[0]);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return thenOnPlane(map, turnAndShift(turn, [s * origin[1] - c * origin[0], -s * origin[0] - c * origin[1]]));
}
