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
  type Allowance,
  type EvidenceFigure,
  type Observation,
} from '../calibrate';
import type { Direction } from '../space';
import { adjustmentsIn } from './adjusted';
import { readCoordinates, readDistance, type Read } from './coordinates';
import { findSceneFault } from './faults';
import { isAgreed, judgeScene, startFrom, takesPart, type JudgedScene } from './judge';
import { measureIn, type Open } from './measure';
import { modelOf } from './problem';
import { coordinateBlock, directionsOf, partBlock, type SceneFeature, type Scene, type SceneView } from './scene';
import { beginViews, startOfScene, type ViewBegun } from './start';
import { begunAsTold, judgedAsTold, sceneVerdictOf, type Begun, type SceneVerdict } from './verdict';

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
  /** What it came to, to have the same fit again (`refitScene`). */
  verdict(): SceneVerdict;
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
 * Where the allowance runs out what does not belong was not sought to the end, or, with a refusal, nothing was adjusted.
 * Weak: first order, as every fit here; a view that lies turned on its sheet by more than a quarter needs ties that say so.
 */
export function fitScene(given: Scene, allowance?: Allowance): Result<SceneFit> {
  const fault = findSceneFault(given);
  if (fault) return fault;
  const begun = beginViews(given.views, allowance);
  const scene = sceneAsBegun(given, begun);
  const judged = judgeScene(scene, (some) => startOfScene(some, begun), freedBy(begun), allowance);
  return judged ? done(readFit(scene, begun, judged)) : refused('evidence-contradicts');
}

/** Whether all that is said of several views agrees as it stands: a fit of them would have nothing to doubt. Much sooner than a fit that has. */
export function agrees(given: Scene): boolean {
  if (findSceneFault(given)) return false;
  const begun = beginViews(given.views);
  const scene = sceneAsBegun(given, begun);
  return isAgreed(scene, startOfScene(scene, begun), freedBy(begun));
}

const freedBy = (begun: readonly ViewBegun[]): ReadonlySet<string> => new Set(begun.flatMap((view) => view.freed));

/** The fit of a scene of which somebody else told what it came to: the same, without a search. */
export function refitScene(given: Scene, verdict: SceneVerdict): SceneFit {
  const begun = begunAsTold(given, verdict);
  const scene = sceneAsBegun(given, begun);
  return readFit(scene, begun, judgedAsTold(scene, verdict));
}

/** With the pieces of each view as its own fit takes them. */
const sceneAsBegun = (scene: Scene, begun: readonly Begun[]): Scene => ({
  ...scene,
  views: begun.map(({ view, evidence }) => ({ ...view, evidence })),
});

/** What is read off a scene that was judged. */
function readFit(scene: Scene, begun: readonly Begun[], judged: JudgedScene): SceneFit {
  const { diagnosis, leftOut, suspects, suspectsKept, solution } = judged;
  const measure = measureIn(judged);
  const maps = startFrom(scene, judged).maps;
  const byId = new Map(scene.features.map((feature) => [feature.id, feature]));
  const featureOf = (id: string): SceneFeature => byId.get(id) ?? { id, seen: [] };
  return {
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
    verdict: () => sceneVerdictOf(begun, judged),
  };
}

function standOf({ view, model, numbers, isScaled }: Begun, standing: readonly number[]): Stand {
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
