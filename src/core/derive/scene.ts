import { lyingByDatum, type Feature as SceneFeature, type Scene, type SceneEvidence, type SceneView } from '../arrange';
import { averagedPoint, type Points } from '../calibrate';
import type { Feature, Job, Seen, Span } from '../job';
import { DIRECTIONS, SIDES, showsAlong, type Direction, type Side } from '../space';
import { pointsOfView, sigmaOfSaid, steadinessOfView, toPiece } from './evidence';
import { liftOf, pictureOf, type FittedView } from './fits';

export const isSide = (side: string | undefined): side is Side => SIDES.some((other) => other === side);

/** Whether a view from its side shows where a shared line or place lies along any of its directions. */
export const canShow = (side: Side, { along }: Pick<Feature, 'along'>): boolean =>
  along === undefined || showsAlong(side, along);

/** A job's views and what they share, in the terms of the fit. */
export function sceneOf({ features, spans }: Pick<Job, 'features' | 'spans'>, views: readonly FittedView[]): Scene {
  const owners = ownersOf(views);
  const shown = features.map((feature) => sceneFeature(feature, views));
  return {
    views: views.map((fitted) => sceneView(fitted, features, owners)),
    features: shown,
    evidence: spans.flatMap((span) => sceneEvidence(span, features)),
  };
}

/** Of views that stand on one fit, and look at the sheet from one side, the first holds what is known of it. */
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
    side: source.side as Side,
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

function sceneFeature(feature: Feature, views: readonly FittedView[]): SceneFeature {
  const { id, along, said, plusMinus, seen } = feature;
  const showing = views.filter(({ source }) => canShow(source.side as Side, feature)).map(({ source }) => source.id);
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
