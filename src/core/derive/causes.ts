import { rootOf, type Cause } from '../adjust';
import { pointFrame } from '../calibrate';
import { add, scale, type Vec } from '../geometry';
import type { DrawnOutline, Hold, PointedPlace } from '../outline';
import { doubtsAt, type Relatable, type Spread } from '../relate';
import type { Derived, SeenPlane } from './derived';
import { doubtsAmong, doubtsOf, doubtsOn } from './planes';

/** How what figures stand on may be otherwise than it is taken to be. What is not in it is as it is. */
export interface Otherwise {
  /** How far the doubts of planes went, in their sigmas. */
  readonly doubts?: ReadonlyMap<string, readonly number[]>;
  /** Where places were pointed instead, sheet px. */
  readonly places?: ReadonlyMap<PointedPlace, Vec>;
  /** The unknowns of outlines that relations hold. */
  readonly unknowns?: ReadonlyMap<SolvedOutlines, readonly number[]>;
  /** By how much more is said of what holds drawings on other planes, in its unit. */
  readonly holds?: ReadonlyMap<Hold, number>;
}

/** Outlines that relations hold together, with what is known of where they may be. */
export interface SolvedOutlines {
  /** The planes whose fits' doubts they follow. */
  readonly planes: readonly SeenPlane[];
  readonly known: ReadonlyMap<string, Relatable>;
  readonly spread: Spread;
}

/** The groups of related outlines to which some belong. */
export function solvedAmong(
  outlines: readonly DrawnOutline[],
  { related }: Pick<Derived, 'related'>,
): readonly SolvedOutlines[] {
  return [...new Set(related.values())].flatMap(({ planes, groups, shapes }) =>
    groups.flatMap((group) => {
      const { known } = group.solved;
      const spread = outlines.some(({ id }) => shapes.has(id) && known.has(id)) ? group.spread() : undefined;
      return spread ? [{ planes, known, spread }] : [];
    }),
  );
}

/** Whether sizes are said of it: then the doubts of its plane's fits are among its unknowns. */
const isSized = ({ spread: { x, findDoubts } }: SolvedOutlines) => findDoubts(x) !== undefined;

/** Planes whose fits sizes tell of that are said of other outlines than some, with what is known of those. */
export function toldBySizes(
  planes: readonly SeenPlane[],
  groups: readonly SolvedOutlines[],
  { related }: Pick<Derived, 'related'>,
): readonly SolvedOutlines[] {
  const open = new Set(planes.map(({ id }) => id));
  for (const { id } of groups.filter(isSized).flatMap((group) => group.planes)) open.delete(id);
  return [...new Set(related.values())]
    .filter((one) => one.planes.some(({ id }) => open.has(id)))
    .flatMap((one) =>
      one.groups.flatMap((group) => {
        const { holds, known } = group.solved;
        const spread = holds && doubtsAt(group.solved).length > 0 ? group.spread() : undefined;
        return spread ? [{ planes: one.planes, known, spread }] : [];
      }),
    );
}

/** What is left open of fits by sizes that are said of other outlines. */
function causesOfTold({ planes, spread: { x, own, findDoubts } }: SolvedOutlines): readonly Cause<Otherwise>[] {
  const places = [...findDoubts(x.map((_, i) => i))!];
  return rootOf(own.selection(places, places)).map((direction) => (by) => ({
    doubts: new Map(
      planes.map((plane) => [
        plane.id,
        doubtsOn(
          plane,
          planes,
          direction.map((each) => by * each),
        ),
      ]),
    ),
  }));
}

/**
 * The doubts of the fits that planes stand on, each fit's once, however many planes it moves. Those of planes that sizes tell of are among the unknowns of what is solved
 * there, or what that leaves open of them (`told`).
 */
export function causesOfFits(
  planes: readonly SeenPlane[],
  groups: readonly SolvedOutlines[],
  told: readonly SolvedOutlines[],
): readonly Cause<Otherwise>[] {
  const sized = new Set([...groups.filter(isSized), ...told].flatMap((group) => group.planes.map(({ id }) => id)));
  return [...told.flatMap(causesOfTold), ...causesOfOpen(planes.filter(({ id }) => !sized.has(id)))];
}

function causesOfOpen(open: readonly SeenPlane[]): readonly Cause<Otherwise>[] {
  const moved = open.flatMap((plane) => {
    const fits = doubtsOf(plane);
    const all = fits.reduce((sum, { count }) => sum + count, 0);
    return fits.map((fit) => ({ plane: plane.id, all, ...fit }));
  });
  return [...new Set(moved.map(({ of }) => of))].flatMap((of) => {
    const there = moved.filter((fit) => fit.of === of);
    const goneBy = (k: number, by: number): Otherwise => ({
      doubts: new Map(
        there.map(({ plane, all, first }) => [
          plane,
          Array.from({ length: all }, (__, i) => (i === first + k ? by : 0)),
        ]),
      ),
    });
    return there[0]!.reaches.map((reach, k) => Object.assign((by: number) => goneBy(k, by), { reach }));
  });
}

/** What pointing leaves open of solved outlines, and of the fits where sizes were said. */
export function causesOfSolved(group: SolvedOutlines): readonly Cause<Otherwise>[] {
  const {
    planes,
    spread: { x, own, findDoubts },
  } = group;
  const first = findDoubts(x);
  return rootOf(own).map((direction) => (by) => {
    const moved = x.map((value, i) => value + by * direction[i]!);
    const doubts = first && findDoubts(moved)!.map((doubt, k) => doubt - first[k]!);
    return {
      unknowns: new Map([[group, moved]]),
      ...(doubts ? { doubts: new Map(planes.map((plane) => [plane.id, doubtsOn(plane, planes, doubts)])) } : {}),
    };
  });
}

/** Where a place may have been pointed instead: along each direction in which it is known by itself. */
export function causesOfPlace(place: PointedPlace): readonly Cause<Otherwise>[] {
  const { axes, sigmas } = pointFrame(place);
  return axes.map((axis, i) => (by) => ({ places: new Map([[place, add(place.at, scale(axis, by * sigmas[i]!))]]) }));
}

/** What is said of how a drawing stands may be otherwise by its typed plus-minus. */
export const causesOfHold = (hold: Hold): readonly Cause<Otherwise>[] =>
  hold.plusMinus === undefined ? [] : [(by) => ({ holds: new Map([[hold, (by * hold.plusMinus!) / 2]]) })];

/** Unknowns of solved outlines as they follow the doubts of their planes' fits. */
export function unknownsAt(
  { planes, spread: { x, follows } }: SolvedOutlines,
  moved: readonly number[] | undefined,
  { doubts }: Otherwise,
): readonly number[] {
  const by = doubts && doubtsAmong(planes, doubts);
  const from = moved ?? x;
  if (!follows || !by) return from;
  return from.map((value, i) => by.reduce((sum, doubt, k) => sum + follows.get(i, k) * doubt, value));
}
