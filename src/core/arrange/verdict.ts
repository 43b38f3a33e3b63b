import { Matrix } from 'ml-matrix';
import { openAt, resumed, type Diagnosis, type GroupDiagnosis, type Values } from '../adjust';
import type { Observation } from '../calibrate';
import type { JudgedScene } from './judge';
import { modelOf, problemOfScene, type Belief, type SceneStart } from './problem';
import type { Scene } from './scene';
import type { ViewBegun } from './start';

/** What judging a scene came to, as plain data that can be handed from one worker to another: with it the same fit is had again without a search. */
export interface SceneVerdict {
  readonly begun: readonly (Pick<ViewBegun, 'numbers' | 'isScaled'> & {
    readonly view: string;
    readonly evidence: readonly Observation[];
  })[];
  readonly belief: Belief;
  readonly start: SceneStart;
  /** Where everything came to lie. */
  readonly values: Values;
  readonly covariance: {
    readonly matrix: Rows;
    readonly open: Rows;
    readonly reach: readonly number[];
    readonly redundancy: number;
  };
  readonly diagnosis: Diagnosis;
  readonly leftOut: readonly GroupDiagnosis[];
  readonly suspects: readonly string[];
  readonly suspectsKept: boolean;
}

/** A matrix row by row. */
type Rows = readonly (readonly number[])[];

/** A view as it began, as far as that counts once everything is judged. */
export type Begun = Pick<ViewBegun, 'view' | 'model' | 'evidence' | 'numbers' | 'isScaled'>;

export function sceneVerdictOf(begun: readonly Begun[], judged: JudgedScene): SceneVerdict {
  const { belief, start, solution, covariance, diagnosis, leftOut, suspects, suspectsKept } = judged;
  const { matrix, open, reach, redundancy } = covariance;
  return {
    begun: begun.map(({ view: { id }, evidence, numbers, isScaled }) => ({ view: id, evidence, numbers, isScaled })),
    belief,
    start,
    values: solution.values,
    covariance: { matrix: matrix.to2DArray(), open: open.to2DArray(), reach, redundancy },
    diagnosis,
    leftOut,
    suspects,
    suspectsKept,
  };
}

/** How the views of a scene began, as a verdict on it tells. */
export const begunAsTold = ({ views }: Scene, { begun }: SceneVerdict): readonly Begun[] =>
  begun.map(({ view: id, ...told }) => {
    const view = views.find((other) => other.id === id)!;
    return { ...told, view, model: modelOf(view) };
  });

/** The judgement that a verdict tells of, on the scene that it was given on. */
export function judgedAsTold(scene: Scene, { values, covariance, ...told }: SceneVerdict): JudgedScene {
  const solution = resumed(problemOfScene(scene, told.belief, told.start), values);
  const numbers = { ...covariance, matrix: matrixOf(covariance.matrix), open: matrixOf(covariance.open) };
  return { ...told, solution, covariance: openAt(solution, numbers) };
}

/** Rows may be empty, where nothing is open. */
const matrixOf = (rows: Rows): Matrix =>
  rows.length > 0 && rows[0]!.length > 0 ? new Matrix(rows.map((row) => [...row])) : Matrix.zeros(rows.length, 0);
