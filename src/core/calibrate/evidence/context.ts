import { slopesByDifferences, type Block, type Condition, type LinearCondition } from '../../adjust';
import type { Vec } from '../../geometry';
import { placeWithSlopes, type MapSlopes, type SlopedPlace } from '../map-slopes';
import type { MapModel } from '../models';
import { isInFront, toPlane } from '../sheet-map';
import { heightOf, type SheetPoint } from './evidence';
import { pointFrame, type PointFrame } from './point-frame';

export type Points = Readonly<Record<string, SheetPoint>>;

/** What a piece of evidence needs to write its conditions: the map that is looked for, the points, and where it all starts. */
export interface EvidenceContext {
  readonly model: MapModel;
  readonly points: Points;
  /**
   * The map with its slopes, for the numbers of its parts and a height; where `varies`, the height is one more number, the last. Asked
   * for the same parts again and again: worth remembering.
   */
  slopesAt(parts: readonly (readonly number[])[], height: number, varies: boolean): MapSlopes;
  /** Where a named point lies on the plane at the start. mm. */
  place(name: string): Vec;
}

export interface Conditions {
  /** What the piece brings as unknowns of its own (a centre, a direction). */
  readonly blocks: readonly Block[];
  readonly conditions: readonly Condition[];
}

export const pointBlock = (name: string) => `point:${name}`;
/** The height of what is traced, as it was stated or assumed: an observed number like the points. */
export const LIFT_BLOCK = 'lift';

export interface PlaneCondition {
  readonly group: string;
  readonly exact: boolean;
  readonly points: readonly string[];
  readonly blocks?: readonly string[];
  /** With slopes by the places, then by the piece's own unknowns; or the residuals alone, whose slopes are then found by differences. */
  readonly linearize?: (places: readonly Vec[], own: readonly (readonly number[])[]) => LinearCondition;
  readonly residuals?: (places: readonly Vec[], own: readonly (readonly number[])[]) => readonly number[];
}

const NOWHERE: Vec = [NaN, NaN];

/**
 * A condition between places on the plane: the map carries the sheet points there, each at its own height or at that of what is
 * traced. Slopes follow by the chain rule: the map's in closed form, those of the residuals by the places by differences.
 */
export function onPlane(
  { model, points, slopesAt }: EvidenceContext,
  { group, exact, points: names, blocks = [], ...condition }: PlaneCondition,
): Condition {
  const { linearize = differenced(condition.residuals!) } = condition;
  const residuals = condition.residuals ?? ((places, own) => linearize(places, own).residuals);
  const parts = model.parts.map(({ id }) => id);
  const frames = names.map((name) => pointFrame(points[name]!));
  const raised = names.map((name) => points[name]!.height === 'traced');
  const lifts = raised.includes(true) ? [LIFT_BLOCK] : [];
  const [firstPoint, lift] = [parts.length, parts.length + names.length];
  const ownAmong = (values: readonly (readonly number[])[]) => values.slice(lift + lifts.length);
  /** The map at each point's height, with its slopes, and where the point is on the sheet. */
  const seenAt = (values: readonly (readonly number[])[]) => {
    const map = values.slice(0, firstPoint);
    return names.map((name, i) => ({
      at: slopesAt(map, heightOf(points[name]!, values[lift]?.[0] ?? 0), raised[i]!),
      sheet: frames[i]!.toSheet(values[firstPoint + i]!),
    }));
  };
  const numbers = model.parts.reduce((sum, { start }) => sum + start.length, 0);
  return {
    group,
    exact,
    origin: 'stated',
    blocks: [...parts, ...names.map(pointBlock), ...lifts, ...blocks],
    residuals: (values) => residuals(seenAt(values).map(placeSeen), ownAmong(values)),
    linearize(values) {
      const seen = seenAt(values);
      const places = seen.map(({ at, sheet }) => placeWithSlopes(at, sheet));
      const isSeen = seen.every(({ at, sheet }) => isInFront(at.map, sheet));
      const inner = linearize(isSeen ? places.map(({ place }) => place) : names.map(() => NOWHERE), ownAmong(values));
      return {
        residuals: inner.residuals,
        slopes: inner.slopes.map((row) => chained(row, places, frames, numbers, lifts.length)),
      };
    },
  };
}

const placeSeen = ({ at: { map }, sheet }: { readonly at: MapSlopes; readonly sheet: Vec }): Vec =>
  isInFront(map, sheet) ? toPlane(map, sheet) : NOWHERE;

/** Residuals with slopes found by differences. */
function differenced(residuals: NonNullable<PlaneCondition['residuals']>): NonNullable<PlaneCondition['linearize']> {
  return (places, own) => {
    // The same arrays in both: what differences change in one is seen through the other.
    const [at, ownAt] = [places.map((place) => [...place]), own.map((numbers) => [...numbers])];
    return {
      residuals: residuals(places, own),
      slopes: slopesByDifferences({ residuals: () => residuals(at as unknown as readonly Vec[], ownAt) }, [
        ...at,
        ...ownAt,
      ]),
    };
  };
}

/** From slopes by the places to slopes by the map, by each sheet point, by the height of what is traced and by the piece's own unknowns. */
function chained(
  slopes: readonly number[],
  places: readonly SlopedPlace[],
  frames: readonly PointFrame[],
  numbers: number,
  lifts: number,
): number[] {
  const points = 2 * places.length;
  const all = new Array<number>(numbers + lifts + slopes.length).fill(0);
  for (let i = 0; i < places.length; i++) {
    const { x, y } = places[i]!;
    const [dx, dy] = [slopes[2 * i]!, slopes[2 * i + 1]!];
    const last = x.length - 2;
    for (let n = 0; n < last; n++) all[n < numbers ? n : n + points]! += dx * x[n]! + dy * y[n]!;
    const [bySheetX, bySheetY] = [dx * x[last]! + dy * y[last]!, dx * x[last + 1]! + dy * y[last + 1]!];
    const [[u, v], [p, q]] = frames[i]!.axes;
    all[numbers + 2 * i] = bySheetX * u + bySheetY * v;
    all[numbers + 2 * i + 1] = bySheetX * p + bySheetY * q;
  }
  for (let own = points; own < slopes.length; own++) all[numbers + lifts + own] = slopes[own]!;
  return all;
}
