import { ownedName, type GroupDiagnosis } from '../src/core/adjust';
import {
  directionsBetween,
  directionsOf,
  fitScene,
  isOpen,
  openParts,
  tieOf,
  type SceneFeature,
  type Open,
  type Scene,
  type SceneFit,
} from '../src/core/arrange';
import type { Measured } from '../src/core/calibrate';
import { DIRECTIONS } from '../src/core/space';
import { findFormatFault, isOfNumbers, refusal, type Answer, type Detail } from './answers';
import { KINDS } from './solve-format';
import { SAID_KINDS, sceneIn, SpaceSchema, type SpaceProblem } from './space-format';

/** Several views of one thing in, one answer out. */
export function solveSpace(name: string | undefined, raw: unknown): Answer {
  const parsed = SpaceSchema.safeParse(raw);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    const kinds = issue?.path[0] === 'views' ? KINDS : SAID_KINDS;
    return refusal(name, ...(findViewFault(raw) ?? findFormatFault(raw, issue, kinds)));
  }
  const problem = parsed.data;
  const fault = findAskFault(problem) ?? findSigmaFault(problem);
  if (fault) return refusal(name, ...fault);
  const scene = sceneIn(problem);
  const fit = fitScene(scene);
  if (!fit.ok) return refusal(name, fit.code, fit.detail);
  const answer = answerFrom(problem, scene, fit.value);
  return isOfNumbers(answer) ? answer : refusal(name, 'figures-beyond-bounds');
}

/** A camera anywhere in space is another kind of view than the flat ones that are fitted here. */
function findViewFault(raw: unknown): [string, Detail] | undefined {
  const views = (raw as { views?: unknown }).views;
  const camera = Array.isArray(views)
    ? (views as { id?: unknown; model?: unknown }[]).find((view) => view?.model === 'camera')
    : undefined;
  return camera && ['view-camera-not-supported', { view: camera.id }];
}

function findSigmaFault({ views }: SpaceProblem): [string, Detail] | undefined {
  const bad = views.find(({ clickSigmaPx, focal35mm }) => clickSigmaPx <= 0 || (focal35mm ?? 1) <= 0);
  return bad && [bad.clickSigmaPx <= 0 ? 'click-sigma-not-positive' : 'focal-not-positive', { view: bad.id }];
}

function findAskFault({ ask, features }: SpaceProblem): [string, Detail] | undefined {
  const unknown = [...ask.distances.flat(), ...ask.features].find((id) => !Object.hasOwn(features, id));
  if (unknown !== undefined) return ['ask-feature-unknown', { feature: unknown }];
  if (ask.cameras.length > 0) return ['ask-camera-unknown', { view: ask.cameras[0] }];
  const mixed = ask.distances.find(
    ([from, to]) =>
      !directionsBetween({ ...features[from]!, id: from, seen: [] }, { ...features[to]!, id: to, seen: [] }),
  );
  return mixed && ['ask-direction-missing', { from: mixed[0], to: mixed[1] }];
}

function answerFrom(problem: SpaceProblem, scene: Scene, fit: SceneFit): Answer {
  const byId = new Map(scene.features.map((feature) => [feature.id, feature]));
  const open: string[] = [];
  const known = (figure: Measured | Open): Measured => {
    if (!isOpen(figure)) return figure;
    open.push(...figure.open);
    return { value: 0, sigma: 0 };
  };
  const distances = problem.ask.distances.map(([from, to]) => {
    const { value, sigma } = known(fit.distance(from, to));
    return { from, to, mm: value, sigma };
  });
  const features = problem.ask.features.map((id) => placeOf(byId.get(id)!, fit, known));
  if (open.length > 0) {
    const undetermined = openParts(scene, open);
    const isPart = !undetermined.some((id) => byId.has(id));
    const code = isPart && undetermined[0] ? `${undetermined[0]}-undetermined` : 'feature-undetermined';
    return { name: problem.name, status: 'undetermined', code, undetermined };
  }
  return {
    name: problem.name,
    status: 'ok',
    redundancy: fit.diagnosis.redundancy,
    varianceFactor: fit.diagnosis.varianceFactor,
    suspectsKept: fit.suspectsKept,
    evidence: reportsOn(scene, fit),
    distances,
    features,
    cameras: [],
    views: fit.stands.map(({ view, grown }) => ({ view, grown: grown ?? null })),
    warnings: warningsIn(scene, fit),
  };
}

/** Null where a line has no such coordinate. */
function placeOf(feature: SceneFeature, fit: SceneFit, known: (figure: Measured | Open) => Measured) {
  const figures = DIRECTIONS.map((direction) =>
    directionsOf(feature).includes(direction) ? known(fit.coordinate(feature.id, direction)) : undefined,
  );
  return {
    id: feature.id,
    mm: figures.map((figure) => figure?.value ?? null),
    sigma: figures.map((figure) => figure?.sigma ?? null),
  };
}

function reportsOn(scene: Scene, fit: SceneFit) {
  const groups = new Map([...fit.diagnosis.groups, ...fit.leftOut].map((group) => [group.group, group]));
  const leftOut = new Set(fit.leftOut.map(({ group }) => group));
  const reportOn = (id: string, group: string) => {
    const found: GroupDiagnosis | undefined = groups.get(group);
    return {
      id,
      normalized: found?.normalized ?? null,
      redundancy: found?.redundancy ?? 0,
      suspect: fit.suspects.includes(group),
      ...(leftOut.has(group) && { leftOut: true }),
    };
  };
  return [
    ...scene.views.flatMap((view) =>
      view.evidence.map((piece) =>
        piece.check
          ? {
              ...comparedBy(
                piece.id,
                fit.figures(view, piece).map(({ figure, read }) => [figure.said, figure.sigma, read] as const),
              ),
              view: view.id,
            }
          : { ...reportOn(piece.id, ownedName(view.id, piece.id)), view: view.id },
      ),
    ),
    ...scene.evidence.map((piece) => {
      if (!piece.check) return reportOn(piece.id, piece.id);
      if (piece.kind === 'same') return comparedBy(piece.id, []);
      return comparedBy(piece.id, [[piece.mm, piece.sigma, fit.distance(piece.from, piece.to, piece.along)]]);
    }),
  ];
}

/** A check agrees when its difference is within two sigma of the difference itself. */
function comparedBy(id: string, figures: readonly (readonly [number | undefined, number, Measured | Open])[]) {
  const off = figures.flatMap(([said, sigma, read]) =>
    said === undefined || isOpen(read) ? [] : [(said - read.value) / Math.hypot(sigma, read.sigma)],
  );
  const worst = off.reduce((most, each) => (Math.abs(each) > Math.abs(most) ? each : most), 0);
  return {
    id,
    check: true,
    verdict: off.length === 0 ? null : Math.abs(worst) <= 2 ? 'agrees' : 'disagrees',
    normalized: off.length === 0 ? null : worst,
    redundancy: null,
    suspect: false,
  };
}

function warningsIn(scene: Scene, fit: SceneFit) {
  const ties = scene.features.flatMap(({ id, seen }) =>
    seen.map(({ view }) => ({ feature: id, view, group: tieOf(id, view) })),
  );
  const odd = ties.filter(({ group }) => fit.suspects.includes(group));
  const open = scene.features.filter((feature) =>
    directionsOf(feature).some((direction) => isOpen(fit.coordinate(feature.id, direction))),
  );
  const alone = scene.views.filter(({ id }) => !fit.stands.some(({ view }) => view === id));
  return [
    ...(alone.length > 0 ? [{ code: 'views-alone', detail: { views: alone.map(({ id }) => id) } }] : []),
    ...fit.warnings.map((code) => ({ code, detail: {} })),
    ...(fit.suspects.length > 0
      ? [{ code: fit.suspectsKept ? 'suspects-kept' : 'suspects-left-out', detail: { ids: fit.suspects } }]
      : []),
    ...odd.map(({ feature, view }) => ({ code: 'tie-does-not-belong', detail: { feature, view } })),
    ...(open.length > 0 ? [{ code: 'features-open', detail: { features: open.map(({ id }) => id) } }] : []),
  ];
}
