import { ownedName, type Diagnosis, type GroupDiagnosis, type Measured } from '../adjust';
import { done, refused, type Result } from '../basics';
import {
  atHeight,
  firstNumberOf,
  heightOf,
  listFigures,
  PART_ORDER,
  pointBlock,
  pointFrame,
  pointsOf,
  toPlane,
  type Adjustment,
  type EvidenceFigure,
  type Observation,
} from '../calibrate';
import type { Direction } from '../space';
import { adjustmentsIn } from './adjusted';
import { readCoordinates, readDistance, type Read } from './coordinates';
import { findSceneFault } from './faults';
import { judgeScene, startFrom, takesPart } from './judge';
import { measureIn, type Open } from './measure';
import { modelOf } from './problem';
import { coordinateBlock, directionsOf, partBlock, type Feature, type Scene, type SceneView } from './scene';
import { beginViews, startOfScene, type ViewBegun } from './start';

/** What follows from several views together. */
export interface SceneFit {
  /** A coordinate of a feature, by its id; mm with one sigma. */
  coordinate(feature: string, direction: Direction): Measured | Open;
  /** How far apart two features are, whole or along a direction; mm with one sigma. */
  distance(from: string, to: string, along?: Direction): Measured | Open;
  /** What a piece of a view's evidence comes to, whether it took part or not. */
  figures(
    view: SceneView,
    piece: Observation,
  ): readonly { readonly figure: EvidenceFigure; readonly read: Measured | Open }[];
  /** What it all comes to for one view; what stays open of its map; undefined where it took no part. */
  adjustment(view: string): Adjustment | Open | undefined;
  readonly diagnosis: Diagnosis;
  /** Of what was left out, how it stood while it took part. */
  readonly leftOut: readonly GroupDiagnosis[];
  /** Pieces (`front/w`, or the id of one that is said of features) and ties (`tie:base@front`) that do not belong with the others; still in the fit where nothing tells which is wrong. */
  readonly suspects: readonly string[];
  readonly suspectsKept: boolean;
  readonly warnings: readonly string[];
  /** Of every view that shows a feature; others stand by themselves, as their own evidence leaves them. */
  readonly stands: readonly Stand[];
}

/** How a view stands beside what its own evidence says. */
export interface Stand {
  readonly view: string;
  /** Numbers of its map; it carries the sheet into its plane, whose axes are the object frame's. */
  readonly numbers: readonly number[];
  /** By how much (share) its scale differs from that of its own evidence; undefined where that tells none. */
  readonly grown: number | undefined;
}

/**
 * One adjustment of several flat views of one thing: each view's own evidence, which features it shows, and what is said of these. A view without sizes takes its scale from what it shares. Refused where the scene is not
 * sound (`findSceneFault`), or no adjustment comes to an end. What is not determined is said figure by figure, so that what can be known is.
 * Weak: first order, as every fit here; a view that lies turned on its sheet by more than a quarter needs ties that say so.
 */
export function fitScene(given: Scene): Result<SceneFit> {
  const fault = findSceneFault(given);
  if (fault) return fault;
  const begun = beginViews(given.views);
  const scene: Scene = { ...given, views: begun.map(({ view, evidence }) => ({ ...view, evidence })) };
  const judged = judgeScene(scene, startOfScene(scene, begun), new Set(begun.flatMap(({ freed }) => freed)));
  if (!judged) return refused('evidence-contradicts');
  const { diagnosis, leftOut, suspects, suspectsKept, solution } = judged;
  const measure = measureIn(judged);
  const maps = startFrom(scene, judged).maps;
  const byId = new Map(scene.features.map((feature) => [feature.id, feature]));
  const featureOf = (id: string): Feature => byId.get(id) ?? { id, seen: [] };
  return done({
    coordinate: (feature, direction) => measure(readCoordinates([[featureOf(feature), direction]])),
    distance: (from, to, along) => measure(readDistance(featureOf(from), featureOf(to), along)),
    figures: (view, piece) =>
      listFigures(piece).map((figure) => ({ figure, read: measure(readFigure(view, piece, figure, solution.values)) })),
    adjustment: adjustmentsIn(scene, judged),
    diagnosis,
    leftOut,
    suspects,
    suspectsKept,
    warnings: diagnosis.isConsistent === false ? ['evidence-disagrees'] : [],
    stands: begun
      .filter(({ view }) => takesPart(view, solution.values))
      .map((view) => standOf(view, maps.get(view.view.id)!)),
  });
}

function standOf({ view, model, numbers, isScaled }: ViewBegun, standing: readonly number[]): Stand {
  const scale = firstNumberOf(model, 'scale');
  return {
    view: view.id,
    numbers: standing,
    grown: isScaled ? Math.exp(standing[scale]! - numbers[scale]!) - 1 : undefined,
  };
}

/** A figure of a view's places, off its map and the places as they were adjusted. Weak: places that took no part count as they were pointed, without a doubt of their own. */
function readFigure(
  view: SceneView,
  piece: Observation,
  figure: EvidenceFigure,
  values: ReadonlyMap<string, readonly number[]>,
): Read {
  const model = modelOf(view);
  const parts = model.parts.map(({ id }) => partBlock(view, id));
  const names = pointsOf(piece).filter((name) => values.has(ownedName(view.id, pointBlock(name))));
  return {
    blocks: [...parts, ...names.map((name) => ownedName(view.id, pointBlock(name)))],
    numbers(blocks) {
      const numbers = blocks.slice(0, parts.length).flat();
      return [
        figure.of((name) => {
          const point = view.points[name]!;
          const at = names.indexOf(name);
          const sheet = at < 0 ? point.at : pointFrame(point).toSheet(blocks[parts.length + at]!);
          return toPlane(model.mapAt(numbers, atHeight(heightOf(point, view.lift.mm))), sheet);
        }),
      ];
    },
  };
}

/** What a practitioner would have to say: parts of views, or, where only the frame is open, the features of which nobody said where they are. */
export function openParts({ views, features }: Scene, open: readonly string[]): readonly string[] {
  // A shift goes wherever the coordinates go: then these are what nobody said.
  const parts = PART_ORDER.filter(
    (part) => part !== 'shift' && views.some((view) => open.includes(partBlock(view, part))),
  );
  if (parts.length > 0) return parts;
  return features
    .filter((feature) =>
      directionsOf(feature).some((direction) => open.includes(coordinateBlock(feature.id, direction))),
    )
    .map(({ id }) => id);
}
