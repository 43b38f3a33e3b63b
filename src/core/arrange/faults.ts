import { refused, type Refusal } from '../basics';
import { findFault, inOrder, type Observation } from '../calibrate';
import { DIRECTIONS } from '../space';
import { isUpright, type Upright } from './facing';
import {
  coordinateOf,
  directionsBetween,
  directionsOf,
  type SceneFeature,
  type Scene,
  type SceneEvidence,
} from './scene';
import { axesShown } from './shown';

/** Why a scene cannot be adjusted, with what it is about; undefined when it can. */
export function findSceneFault(scene: Scene): Refusal | undefined {
  const twice = findTwice([
    ...scene.views.map(({ id }) => ['view-id-twice', id] as const),
    ...scene.features.map(({ id }) => ['feature-id-twice', id] as const),
    ...scene.evidence.map(({ id }) => ['evidence-id-twice', id] as const),
  ]);
  if (twice) return twice;
  for (const view of scene.views) {
    if (isUpright(view.side) && !isEdge(view.side, scene)) return refused('view-edge-unknown', { view: view.id });
    const again = findTwice(view.evidence.map(({ id }) => ['evidence-id-twice', id] as const));
    if (again) return again;
    for (const piece of view.evidence) {
      const found = findPieceFault(piece, view.points);
      if (found) return found;
    }
  }
  return (
    first(scene.features, (feature) => findFeatureFault(feature, scene)) ??
    first(scene.evidence, (piece) => findSaidFault(piece, scene))
  );
}

/** Whether a view can stand between two features: two places of the thing. */
const isEdge = ({ from, to }: Upright, { features }: Scene): boolean =>
  from !== to && [from, to].every((end) => features.some(({ id, only }) => id === end && only === undefined));

function findPieceFault(piece: Observation, points: Scene['views'][number]['points']): Refusal | undefined {
  const found = findFault(piece, points);
  return found?.code === 'evidence-corners-not-around' ? findFault(inOrder(piece, points), points) : found;
}

function first<T>(list: readonly T[], find: (item: T) => Refusal | undefined): Refusal | undefined {
  for (const item of list) {
    const found = find(item);
    if (found) return found;
  }
  return undefined;
}

function findTwice(named: readonly (readonly [string, string])[]): Refusal | undefined {
  const seen = new Set<string>();
  for (const [code, id] of named) {
    if (seen.has(`${code} ${id}`)) return refused(code, { id });
    seen.add(`${code} ${id}`);
  }
  return undefined;
}

function findFeatureFault(feature: SceneFeature, { views, features }: Scene): Refusal | undefined {
  const { id, mm, sigma, seen } = feature;
  if (mm && (mm.length !== DIRECTIONS.length || mm.some((value) => value !== null && !Number.isFinite(value))))
    return refused('feature-not-a-number', { feature: id });
  if (sigma !== undefined && !(sigma > 0 && Number.isFinite(sigma)))
    return refused('feature-sigma-not-positive', { feature: id });
  for (const { view: name, points } of seen) {
    const view = views.find((other) => other.id === name);
    if (!view) return refused('feature-view-unknown', { feature: id, view: name });
    const missing = points.find((point) => view.points[point] === undefined);
    if (missing !== undefined) return refused('feature-point-unknown', { feature: id, view: name, point: missing });
    const unsure = points.find((point) => !(view.points[point]!.sigma > 0));
    if (unsure !== undefined) return refused('point-sigma-not-positive', { point: unsure });
    if (axesShown(view.side, feature, features).length === 0)
      return refused('feature-not-shown', { feature: id, view: name });
  }
  return undefined;
}

function findSaidFault(piece: SceneEvidence, { features }: Scene): Refusal | undefined {
  const { id } = piece;
  const named = piece.kind === 'distance' ? [piece.from, piece.to] : piece.of;
  const known = named.map((name) => features.find((feature) => feature.id === name));
  const missing = known.indexOf(undefined);
  if (missing >= 0) return refused('evidence-feature-unknown', { id, feature: named[missing]! });
  if (new Set(named).size < named.length || named.length < 2) return refused('evidence-features-coincide', { id });
  const [a, ...others] = known as SceneFeature[];
  if (piece.kind === 'same') return findSameFault(id, piece.along, known as SceneFeature[]);
  if (!directionsBetween(a!, others[0]!, piece.along)) return refused('evidence-direction-missing', { id });
  if (!(piece.mm > 0) || !Number.isFinite(piece.mm)) return refused('evidence-length-not-positive', { id });
  return piece.sigma > 0 && Number.isFinite(piece.sigma) ? undefined : refused('evidence-sigma-not-positive', { id });
}

/** The same coordinate has to be one that each has, and may not be known as two different ones. */
function findSameFault(
  id: string,
  along: readonly (typeof DIRECTIONS)[number][],
  features: readonly SceneFeature[],
): Refusal | undefined {
  for (const direction of along) {
    if (features.some((feature) => !directionsOf(feature).includes(direction)))
      return refused('evidence-direction-missing', { id });
    const known = features.flatMap((feature) => {
      const coordinate = coordinateOf(feature, direction);
      return 'mm' in coordinate ? [coordinate.mm] : [];
    });
    if (new Set(known).size > 1) return refused('evidence-contradicts', { id });
  }
  return undefined;
}
