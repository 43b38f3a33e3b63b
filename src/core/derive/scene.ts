import {
  isUpright,
  lyingByDatum,
  tellsAlong,
  turnedUpright,
  type Facing,
  type SceneFeature,
  type Scene,
  type SceneEvidence,
  type SceneView,
} from '../arrange';
import { averagedPoint, type Points } from '../calibrate';
import type { Feature, Job, Seen, Span, View } from '../job';
import { DIRECTIONS, SIDES, type Direction, type Side } from '../space';
import { pointsOfView, sigmaOfSaid, steadinessOfView, toPiece } from './evidence';
import { liftOf, pictureOf, type FittedView } from './fits';

export const isSide = (side: string | undefined): side is Side => SIDES.some((other) => other === side);

/** How a view looks at the thing: upright between the shared ends of an edge that it stands on, or from the side that it is said to show; undefined where nothing says. */
export function facingOf(
  { side, standsOn }: Pick<View, 'side' | 'standsOn'>,
  features: readonly Feature[],
): Facing | undefined {
  const ends = standsOn?.ends;
  const isThere = (end: string) => features.some(({ id, along }) => id === end && along === undefined);
  if (ends && ends.from !== ends.to && isThere(ends.from) && isThere(ends.to))
    return standsOn.turned ? turnedUpright(ends) : { from: ends.from, to: ends.to };
  return isSide(side) ? side : undefined;
}

/** Whether a view shows where a shared line or place lies along any of its directions. */
export const canShow = (facing: Facing, { along }: Pick<Feature, 'along'>): boolean =>
  along === undefined || tellsAlong(facing, along);

/** Whether a view stands where what it shows of all this tells: one on an edge by a place at least, for a line says only how high it stands. */
export function showsWhere({ id, side, standsOn }: View, features: readonly Feature[]): boolean {
  const facing = facingOf({ side, standsOn }, features);
  if (facing === undefined) return false;
  return features.some(
    (feature) =>
      canShow(facing, feature) &&
      (feature.along === undefined || !isUpright(facing)) &&
      feature.seen.some((seen) => seen.view === id),
  );
}

/** A job's views and what they share, in the terms of the fit. */
export function sceneOf({ features, spans }: Pick<Job, 'features' | 'spans'>, views: readonly FittedView[]): Scene {
  const owners = ownersOf(views);
  const facings = new Map(views.map((fitted) => [fitted, facingOf(fitted.source, features)!]));
  const shown = features.map((feature) => sceneFeature(feature, views, facings));
  return {
    views: views.map((fitted) => sceneView(fitted, features, owners)),
    features: shown,
    evidence: spans.flatMap((span) => sceneEvidence(span, features)),
  };
}

/** Of views that stand on one fit the first holds what is known of it. */
function ownersOf(views: readonly FittedView[]): ReadonlyMap<string, string> {
  return new Map(
    views.map(({ source, question }) => [source.id, views.find((other) => other.question === question)!.source.id]),
  );
}

function sceneView(fitted: FittedView, features: readonly Feature[], owners: ReadonlyMap<string, string>): SceneView {
  const { source, view, sheet } = fitted;
  const owner = owners.get(source.id)!;
  const pieces = view.evidence.filter(({ role }) => role !== 'off').map(toPiece);
  return lyingByDatum({
    id: source.id,
    picture: pictureOf(sheet, source),
    side: facingOf(source, features)!,
    points: { ...pointsOfView(view), ...seenPoints(fitted, features) },
    evidence: owner === source.id ? pieces : [],
    lift: liftOf(view),
    model: view.model,
    lens: view.lens,
    datum: source.datum,
    ...(owner === source.id ? {} : { shares: owner }),
  });
}

const seenName = ({ id }: Seen) => `seen:${id}`;

function seenPoints({ source, view }: FittedView, features: readonly Feature[]): Points {
  const steadiness = steadinessOfView(view);
  return Object.fromEntries(
    features
      .flatMap(({ seen }) => seen.filter((each) => each.view === source.id))
      .map((each) => [seenName(each), averagedPoint([each], steadiness)]),
  );
}

function sceneFeature(
  feature: Feature,
  views: readonly FittedView[],
  facings: ReadonlyMap<FittedView, Facing>,
): SceneFeature {
  const { id, along, said, plusMinus, seen } = feature;
  const showing = views.filter((fitted) => canShow(facings.get(fitted)!, feature)).map(({ source }) => source.id);
  return {
    id,
    only: along,
    mm: DIRECTIONS.map((direction) => said[direction]?.value ?? null),
    sigma: plusMinus === undefined ? undefined : plusMinus / 2,
    seen: showing.flatMap((view) => {
      const points = seen.filter((each) => each.view === view).map(seenName);
      return points.length > 0 ? [{ view, points }] : [];
    }),
  };
}

/** The direction along which a size lies: the one it names, or the one that both lines mean; undefined: the whole way. */
export function directionOfSpan({ along, from, to }: Span, features: readonly Feature[]): Direction | undefined {
  const [a, b] = [from, to].map((id) => features.find((feature) => feature.id === id));
  return along ?? a?.along ?? b?.along;
}

function sceneEvidence(span: Span, features: readonly Feature[]): SceneEvidence[] {
  const { id, from, to, said, role } = span;
  if (role === 'off') return [];
  return [
    {
      kind: 'distance',
      id,
      from,
      to,
      along: directionOfSpan(span, features),
      mm: said.value,
      sigma: sigmaOfSaid(span, said.value),
      check: role === 'check',
    },
  ];
}
