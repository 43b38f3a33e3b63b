import {
  ASSUMED,
  findFault,
  fitView,
  isInFront,
  listAdvice,
  measuredLength,
  measuredPlace,
  readEvidence,
  checkEvidence,
  sigmaOfReading,
  type Observation,
  type Fit,
  type MeasuredPoint,
  type Points,
  type ReadFigure,
} from '../src/core/calibrate';
import type { GroupDiagnosis } from '../src/core/adjust';
import { findFormatFault, isOfNumbers, refusal, type Answer, type Detail } from './answers';
import { solveSpace } from './solve-space';
import { evidenceIn, KINDS, pointsIn, ProblemSchema, type SolveProblem } from './solve-format';

/** One problem in, one answer out. Whatever is wrong with it is an answer too. */
export function solveProblem(raw: unknown): Answer {
  const name =
    typeof (raw as { name?: unknown } | null)?.name === 'string' ? (raw as { name: string }).name : undefined;
  if ((raw as { kind?: unknown } | null)?.kind === 'space') return solveSpace(name, raw);
  const parsed = ProblemSchema.safeParse(raw);
  if (!parsed.success) return refusal(name, ...findFormatFault(raw, parsed.error.issues[0], KINDS));
  const problem = parsed.data;
  const points = pointsIn(problem);
  const evidence = evidenceIn(problem);
  const fault = findProblemFault(problem, points, evidence);
  if (fault) return refusal(name, ...fault);
  const { width, height } = problem.image;
  const fit = fitView({
    picture: { width, height, kind: problem.sheet, focal35mm: problem.focal35mm },
    datum: { origin: [0, height], direction: 0 },
    lift: { mm: 0, sigma: problem.model === 'auto' && problem.sheet === 'photo' ? ASSUMED.lift : 1e-9 },
    points,
    evidence,
    model: problem.model,
    lens: problem.lens,
  });
  if (fit.ok) {
    const answer = answerFrom(problem, fit.value, evidence);
    return isOfNumbers(answer) ? answer : refusal(name, 'figures-beyond-bounds');
  }
  const undetermined = fit.detail.undetermined;
  return typeof undetermined === 'string'
    ? { name, status: 'undetermined', code: fit.code, undetermined: undetermined.split(',') }
    : refusal(name, fit.code, fit.detail);
}

function findProblemFault(
  { clickSigmaPx, focal35mm, ask, points: given }: SolveProblem,
  points: Points,
  evidence: readonly Observation[],
): [string, Detail] | undefined {
  if (clickSigmaPx <= 0) return ['click-sigma-not-positive', { clickSigmaPx }];
  if (focal35mm !== undefined && focal35mm <= 0) return ['focal-not-positive', { focal35mm }];
  const badPoint = Object.entries(given).find(([, point]) => !Array.isArray(point) && (point.sigma ?? 1) <= 0);
  if (badPoint) return ['point-sigma-not-positive', { point: badPoint[0] }];
  const ids = evidence.map(({ id }) => id);
  const twice = ids.find((id, i) => ids.indexOf(id) !== i);
  if (twice !== undefined) return ['evidence-id-twice', { id: twice }];
  for (const piece of evidence) {
    const fault = findFault(piece, points);
    if (fault) return [fault.code, fault.detail];
  }
  const asked = [...ask.lengths.flat(), ...ask.points, ...(ask.adviseWithin ?? [])];
  const unknown = asked.find((point) => points[point] === undefined);
  if (unknown !== undefined) return ['ask-point-unknown', { point: unknown }];
  if (ask.adviseWithin && ask.adviseWithin.length < 2) return ['ask-region-too-small', {}];
  return undefined;
}

function answerFrom(problem: SolveProblem, fit: Fit, evidence: readonly Observation[]): Answer {
  const warnings: { code: string; detail: Detail }[] = fit.warnings.map((code) => ({ code, detail: {} }));
  if (fit.suspects.length > 0)
    warnings.push({ code: fit.suspectsKept ? 'suspects-kept' : 'suspects-left-out', detail: { ids: fit.suspects } });
  const at = (name: string): MeasuredPoint => (fit.adjustedPoints.has(name) ? { name } : fit.points[name]!);
  const isSeen = (name: string) => {
    const seen = isInFront(fit.map, fit.points[name]!.at);
    if (!seen) warnings.push({ code: 'point-beyond-horizon', detail: { point: name } });
    return seen;
  };
  const lengths = problem.ask.lengths.map(([from, to]) => {
    const measured = isSeen(from) && isSeen(to) ? measuredLength(fit, at(from), at(to)) : undefined;
    return { from, to, mm: measured?.value ?? null, sigma: measured?.sigma ?? null };
  });
  const places = problem.ask.points.map((id) => {
    const measured = isSeen(id) ? measuredPlace(fit, at(id)) : undefined;
    return { id, mm: measured?.map(({ value }) => value) ?? null, sigma: measured?.map(({ sigma }) => sigma) ?? null };
  });
  const { diagnosis } = fit;
  return {
    name: problem.name,
    status: 'ok',
    model: fit.model!.name,
    lens: fit.model!.lens,
    why: fit.parts.map(({ part, from }) => `${part}-${from}`),
    assumed: fit.parts.filter(({ from }) => from === 'assumed').map(({ part }) => part),
    parts: fit.parts,
    redundancy: diagnosis!.redundancy,
    varianceFactor: diagnosis!.varianceFactor,
    suspectsKept: fit.suspectsKept,
    evidence: evidence.map((piece) => reportOn(piece, fit)),
    lengths,
    points: places,
    advice: problem.ask.adviseWithin ? adviceFor(problem, fit) : [],
    warnings,
  };
}

function adviceFor({ ask, clickSigmaPx }: SolveProblem, fit: Fit) {
  return listAdvice(fit, {
    within: ask.adviseWithin!.map((name) => fit.points[name]!.at),
    clickSigma: clickSigmaPx,
    sigmaOf: (mm) => sigmaOfReading(mm, false),
  });
}

function reportOn(piece: Observation, fit: Fit) {
  const group = fit.diagnosis!.groups.find((other) => other.group === piece.id);
  return group && !piece.check ? reportUsed(piece, group, fit) : reportCompared(piece, fit);
}

/** A piece in the fit: its stated size keeps a residual; an exact relation shows what its points, as pointed, miss it by. */
function reportUsed(piece: Observation, group: GroupDiagnosis, fit: Fit) {
  const sigma = 'sigma' in piece ? piece.sigma : undefined;
  const worst = [...group.rows].sort((a, b) => Math.abs(b.residual) - Math.abs(a.residual))[0];
  const isSized = worst !== undefined && sigma !== undefined;
  const figures = readEvidence(fit, piece);
  const detectable = group.rows.map((row) => row.detectable).filter((value) => value !== null);
  const isTested = group.normalized !== null;
  return {
    id: piece.id,
    residualMm: isSized ? worst.residual * sigma : largestDifference(figures, 'mm'),
    residualDegrees: largestDifference(figures, 'degrees'),
    normalized: group.normalized,
    redundancy: group.redundancy,
    smallestDetectableMm: isSized && isTested && detectable.length > 0 ? Math.max(...detectable) * sigma : null,
    suspect: fit.suspects.includes(piece.id),
  };
}

/** A check, or a suspect that was left out: compared with the fit of the others. */
function reportCompared(piece: Observation, fit: Fit) {
  const { figures, verdict } = checkEvidence(fit, piece);
  const worst = figures
    .filter(({ difference }) => difference !== undefined)
    .sort((a, b) => Math.abs(b.difference! / b.sigma) - Math.abs(a.difference! / a.sigma))[0];
  return {
    id: piece.id,
    ...(piece.check ? { check: true, verdict } : { leftOut: true }),
    residualMm: largestDifference(figures, 'mm'),
    residualDegrees: largestDifference(figures, 'degrees'),
    normalized: worst ? worst.difference! / worst.sigma : null,
    redundancy: piece.check ? null : 1,
    smallestDetectableMm: worst?.figure.unit === 'mm' ? 4.13 * worst.sigma : null,
    suspect: fit.suspects.includes(piece.id),
  };
}

function largestDifference(figures: readonly ReadFigure[], unit: 'mm' | 'degrees'): number | null {
  const differences = figures
    .filter(({ figure, difference }) => figure.unit === unit && difference !== undefined)
    .map(({ difference }) => difference!);
  return differences.length === 0
    ? null
    : differences.reduce((worst, d) => (Math.abs(d) > Math.abs(worst) ? d : worst));
}
