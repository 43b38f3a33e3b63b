import { ownedName, type Measured } from '../adjust';
import { isDoubted, isOpen, LEVEL_BY_DATUM, tieOf, type Open, type Scene, type SceneFit } from '../arrange';
import { done, type Refusal } from '../basics';
import type { Adjustment, MapPart } from '../calibrate';
import type { Feature, Job, Span } from '../job';
import type { Direction } from '../space';
import { sigmaOfSaid } from './evidence';
import type { FittedView } from './fits';
import { createFittingTogether, type Fitting, type ToldOfScenes } from './fitted-together';
import { directionOfSpan, facingOf, showsWhere } from './scene';
import { standingOf, type Standing } from './standing';

/** Why a view that shows a side does not stand among the others. */
export type Apart =
  | 'shows-nothing'
  | 'lies-on-points'
  | 'only-looked-at'
  | 'without-scale'
  | 'nothing-sized'
  | 'open'
  | 'fits-none'
  | 'not-found'
  | 'pending';

export interface StandsApart {
  readonly why: Apart;
  /** Blocks of its map that stay open. */
  readonly open: readonly string[];
}

/** By how much (share) the scale of a view among the others differs from that of its own evidence, and one sigma of the latter. */
export interface Grown {
  readonly by: number;
  readonly sigma: number;
}

/** What several views of one thing come to together. Lengths in mm, object frame; one sigma. */
export interface Arranged {
  /** How each view stands that shows something shared. */
  readonly stands: ReadonlyMap<string, Standing>;
  /** Views that show a side and do not stand, and what stays open of their maps. */
  readonly apart: ReadonlyMap<string, StandsApart>;
  /** What joining does to views that have a scale of their own. */
  readonly grown: ReadonlyMap<string, Grown>;
  /** What the views come to that a view stands among; undefined where that does not determine its map. */
  among(view: string): Adjustment | undefined;
  /** A coordinate of a shared line or place; undefined where nothing tells it. */
  coordinate(feature: string, direction: Direction): Measured | undefined;
  /** How far along a direction one shared line or place lies beyond another; undefined where nothing tells either. */
  between(from: string, to: string, direction: Direction): Measured | undefined;
  readonly spans: ReadonlyMap<string, SpanRead>;
  /** Why all of it together gives no fit. */
  readonly refusal: Refusal | undefined;
  readonly warnings: readonly string[];
  readonly suspectsKept: boolean;
  /** All views that show something shared, as they were fitted, and whether anything of that is doubted; undefined where there are none. */
  readonly scene: Scene | undefined;
  readonly isDoubted: boolean;
  /** What is not judged to the end yet: fits that are shown meanwhile are of everything, or of what was asked before. */
  readonly pending: readonly Scene[];
  /** All that is asked of views together, pending or not. */
  readonly asked: readonly Scene[];
  /** What was judged to the end, as plain data. */
  told(): ToldOfScenes;
}

/** What a size between shared lines or places comes to. mm. */
export interface SpanRead {
  readonly comesTo: Measured | undefined;
  /** Comes to minus said, and one sigma of that for a size that is held back. */
  readonly difference: number | undefined;
  readonly sigma: number | undefined;
  /** How far it is off in the sigmas of that, where it takes part. */
  readonly normalized: number | undefined;
  readonly suspect: boolean;
}

type Views = ReadonlyMap<string, FittedView>;

/**
 * Fits the views of a job together that show something of what is shared: all that stand, and, where only some of them join, those among themselves. A view that does not join keeps its own fit, and stands where what it shows comes closest.
 * Remembers by identity. `most` pieces and ties may be adjusted for each.
 */
export function createArranging(most: number) {
  const fitTogether = createFittingTogether(most);
  const waiting = createWaiting();
  return (
    job: Job,
    alone: Views,
    told: ToldOfScenes,
    see: SeeBy,
  ): { readonly arranged: Arranged; readonly views: Views } => {
    const candidates = [...alone.values()].filter((fitted) => apartBefore(fitted, job) === undefined);
    const all = fitTogether('all', job, candidates, told);
    const joining = candidates.filter(({ source }) => source.joins);
    const joined = joining.length === candidates.length ? all : fitTogether('joined', job, joining, told);
    const views = new Map(
      [...alone].map(([id, fitted]) => {
        const found = joining.includes(fitted) ? adjustmentIn(joined, id) : undefined;
        const seen = found ? see(fitted, found) : fitted;
        return [id, joined.isPending && joining.includes(fitted) ? waiting(seen) : seen] as const;
      }),
    );
    return { arranged: arrangedOf(job, { alone, views }, { all, joined }), views };
  };
}

/** Views whose fit with others is not judged to the end. */
function createWaiting() {
  const known = new WeakMap<FittedView, FittedView>();
  return (fitted: FittedView): FittedView => {
    const waiting = known.get(fitted) ?? { ...fitted, isPending: true };
    known.set(fitted, waiting);
    return waiting;
  };
}

/** A view as it sees its plane by another fit than its own. */
type SeeBy = (fitted: FittedView, adjustment: Adjustment) => FittedView;

/** Why a view cannot stand, before anything is fitted; undefined where it may. */
function apartBefore({ source, view }: FittedView, { features }: Pick<Job, 'features'>): Apart | 'no-side' | undefined {
  if (!facingOf(source, features)) return 'no-side';
  if (source.lookOnly) return 'only-looked-at';
  if (view.evidence.some(({ kind, role }) => kind === 'known-point' && role === 'use')) return 'lies-on-points';
  return showsWhere(source, features) ? undefined : 'shows-nothing';
}

/** Remembers what was read off each fit. */
function readOnce<K, V>(read: (fit: SceneFit, key: K) => V): (fit: SceneFit, key: K) => V {
  const known = new WeakMap<SceneFit, Map<K, V>>();
  return (fit, key) => {
    const all = known.get(fit) ?? new Map<K, V>();
    known.set(fit, all);
    if (!all.has(key)) all.set(key, read(fit, key));
    return all.get(key)!;
  };
}

const readAdjustment = readOnce((fit, view: string) => fit.adjustment(view));

/** What a view came to among the others; undefined where that does not determine its map. */
function adjustmentIn({ fit }: Fitting, id: string): Adjustment | undefined {
  const found = fit && readAdjustment(fit, id);
  return found && !('open' in found) ? found : undefined;
}

/** Whether a view takes part in a fit that determines its map. */
const joinsIn = (joined: Fitting, id: string) =>
  joined.views.some(({ source }) => source.id === id) && adjustmentIn(joined, id) !== undefined;

interface Together {
  readonly all: Fitting;
  readonly joined: Fitting;
}

interface Seeing {
  readonly alone: Views;
  readonly views: Views;
}

/** How each view stands that has a scale and shows something shared. */
function standsOf(
  { features }: Job,
  { alone, views }: Seeing,
  { all, joined }: Together,
  coordinate: Arranged['coordinate'],
): Arranged['stands'] {
  return new Map(
    [...views].flatMap(([id, fitted]) => {
      const joins = joinsIn(joined, id);
      const within = joins ? joined : all;
      const among = adjustmentIn(within, id);
      if (!among || !fitted.fit.scaled) return [];
      const how = {
        joins,
        byZero: within.byZero.get(id) ?? [],
        features,
        coordinate,
        leftOf: (feature: string) => leftOf(within, tieOf(feature, id)),
        lies: leftOf(within, ownedName(id, LEVEL_BY_DATUM)),
      };
      const standing = standingOf(fitted, among, how);
      return standing ? [[id, standing] as const] : [];
    }),
  );
}

function arrangedOf(job: Job, seeing: Seeing, together: Together): Arranged {
  const { alone, views } = seeing;
  const { all, joined } = together;
  const coordinate = (feature: string, direction: Direction) =>
    coordinateIn([joined, all], feature, direction) ?? saidOf(job, feature, direction);
  const stands = standsOf(job, seeing, together, coordinate);
  const told = joined.fit ? joined : all;
  return {
    stands,
    apart: new Map(
      [...views].flatMap(([id, fitted]) => {
        const why = stands.has(id) ? undefined : whyApart(fitted, job, all);
        return why ? [[id, why] as const] : [];
      }),
    ),
    grown: new Map(
      [...alone].flatMap(([id, fitted]) => {
        const grown = grownOf(fitted, adjustmentIn(all, id));
        return grown ? [[id, grown] as const] : [];
      }),
    ),
    among: (id) => adjustmentIn(joinsIn(joined, id) ? joined : all, id),
    coordinate,
    between: (from, to, direction) => {
      const [near, far] = [from, to].map((id) => coordinate(id, direction));
      if (!near || !far) return undefined;
      const apart = distanceIn([joined, all], from, to, direction);
      return { value: far.value - near.value, sigma: apart?.sigma ?? Math.hypot(near.sigma, far.sigma) };
    },
    spans: new Map(job.spans.map((span) => [span.id, readSpan(span, job.features, [joined, all])])),
    refusal: all.refusal ?? joined.refusal,
    warnings: told.fit?.warnings ?? [],
    suspectsKept: told.fit?.suspectsKept ?? false,
    scene: all.scene,
    isDoubted: all.scene !== undefined && !all.isPending && isDoubted(all.fit),
    asked: [...new Set([joined, all])].flatMap(({ scene }) => scene ?? []),
    told: () => toldBy([joined, all]),
    pending: [...new Set([joined, all])].flatMap(({ scene, isPending }) => (scene && isPending ? [scene] : [])),
  };
}

const readCoordinate = readOnce((fit, name: string) => {
  const [direction, feature] = name.split('\n') as [Direction, string];
  return fit.coordinate(feature, direction);
});
const readDistance = readOnce((fit, name: string) => {
  const [direction, from, to] = name.split('\n') as [Direction | '', string, string];
  return fit.distance(from, to, direction === '' ? undefined : direction);
});

const coordinateIn = (fittings: readonly Fitting[], feature: string, direction: Direction): Measured | undefined =>
  firstRead(fittings, (fit) => readCoordinate(fit, `${direction}\n${feature}`));
const distanceIn = (fittings: readonly Fitting[], from: string, to: string, direction: Direction) =>
  firstRead(fittings, (fit) => readDistance(fit, `${direction}\n${from}\n${to}`));

/** What the first of them tells that tells it. */
function firstRead(
  fittings: readonly Fitting[],
  read: (fit: NonNullable<Fitting['fit']>) => Measured | Open | undefined,
): Measured | undefined {
  for (const { fit } of fittings) {
    const found = fit && read(fit);
    if (found && !isOpen(found)) return found;
  }
  return undefined;
}

const toldBy = (fittings: readonly Fitting[]): ToldOfScenes =>
  new Map(
    fittings.flatMap(({ scene, fit, refusal, isPending }) => {
      const told = fit ? done(fit.verdict()) : refusal;
      return scene && told && !isPending ? [[scene, told] as const] : [];
    }),
  );

/** What somebody typed of a coordinate, where no view stands that could tell more. */
function saidOf({ features }: Job, id: string, direction: Direction): Measured | undefined {
  const feature = features.find((each) => each.id === id);
  const said = feature?.said[direction];
  return said && { value: said.value, sigma: (feature?.plusMinus ?? 0) / 2 };
}

const partOf = (adjustment: Adjustment, name: MapPart) => adjustment.parts.find(({ part }) => part === name);

/** How the scale of a view would change among the others. */
function grownOf({ fit }: FittedView, among: Adjustment | undefined): Grown | undefined {
  const [before, after] = [fit, among].map((each) => each && partOf(each, 'scale'));
  if (!before || !after) return undefined;
  return { by: Math.exp(after.values[0]! - before.values[0]!) - 1, sigma: before.sigmas[0]! };
}

/** Whether anything says how large any of it is. */
const isSized = (views: readonly FittedView[], { spans, features }: Job) =>
  views.some(({ fit }) => fit.scaled) ||
  spans.some(({ role }) => role === 'use') ||
  features.filter(({ said }) => Object.keys(said).length > 0).length > 1;

/** Why a view that shows a side does not stand, as it is now. */
function whyApart(fitted: FittedView, job: Job, { fit, views, isPending }: Fitting): StandsApart | undefined {
  const before = apartBefore(fitted, job);
  if (before) return before === 'no-side' ? undefined : { why: before, open: [] };
  if (!fit) return { why: isPending ? 'pending' : 'not-found', open: [] };
  const found = readAdjustment(fit, fitted.source.id);
  if (found && 'open' in found && !isSized(views, job)) return { why: 'nothing-sized', open: found.open };
  if (found && 'open' in found) return { why: 'open', open: found.open };
  if (found) return { why: 'without-scale', open: [] };
  if (isPending) return { why: 'pending', open: [] };
  return { why: fitsNone(fitted, job, fit) ? 'fits-none' : 'not-found', open: [] };
}

/** Whether nothing that a view shows belongs with what the others show. */
function fitsNone(
  { source: { id } }: FittedView,
  { features }: Pick<Job, 'features'>,
  { suspects }: SceneFit,
): boolean {
  const shown = features.filter(({ seen }) => seen.some(({ view }) => view === id));
  return shown.every((feature) => suspects.includes(tieOf(feature.id, id)));
}

/** How a group stood in a fit, also where it was left out of it. */
function leftOf({ fit }: Fitting, group: string): { normalized: number | undefined; suspect: boolean } {
  const found = fit && [...fit.diagnosis.groups, ...fit.leftOut].find((other) => other.group === group);
  return { normalized: found?.normalized ?? undefined, suspect: fit?.suspects.includes(group) ?? false };
}

function readSpan(span: Span, features: readonly Feature[], fittings: readonly Fitting[]): SpanRead {
  for (const fitting of fittings) {
    const along = directionOfSpan(span, features) ?? '';
    const found = fitting.fit && readDistance(fitting.fit, [along, span.from, span.to].join('\n'));
    if (!found || isOpen(found)) continue;
    return {
      comesTo: found,
      difference: found.value - span.said.value,
      sigma: Math.hypot(found.sigma, sigmaOfSaid(span, span.said.value)),
      ...leftOf(fitting, span.id),
    };
  }
  return { comesTo: undefined, difference: undefined, sigma: undefined, normalized: undefined, suspect: false };
}
