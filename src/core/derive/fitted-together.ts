import {
  fitScene,
  refitScene,
  standingByZero,
  type ByZero,
  type Scene,
  type SceneFit,
  type SceneVerdict,
} from '../arrange';
import { done, isSameList, type Refusal, type Result } from '../basics';
import { allowanceOf } from '../calibrate';
import type { Job } from '../job';
import type { FittedView } from './fits';
import { sceneOf } from './scene';

/** Views that were fitted together, by themselves and in the job. */
export interface Fitting {
  readonly fit: SceneFit | undefined;
  readonly refusal: Refusal | undefined;
  readonly byZero: ByZero;
  readonly views: readonly FittedView[];
  /** What was fitted; undefined where there is nothing to fit. */
  readonly scene: Scene | undefined;
  /** What is asked here was not judged to the end: the fit is one of everything, or the last that was, or none. */
  readonly isPending: boolean;
}

/** What views came to together, as plain data. */
export type ToldScene = Result<SceneVerdict>;
export type ToldOfScenes = ReadonlyMap<Scene, ToldScene>;

export function toldOfScene(scene: Scene): ToldScene {
  const fit = fitScene(scene);
  return fit.ok ? done(fit.value.verdict()) : fit;
}

const NOTHING: Fitting = {
  fit: undefined,
  refusal: undefined,
  byZero: new Map(),
  views: [],
  scene: undefined,
  isPending: false,
};

/** Views that are asked about together: the same object for as long as nothing that counts is another one. */
interface Question {
  readonly of: readonly unknown[];
  readonly scene: Scene;
  readonly byZero: ByZero;
}

/**
 * Fits views together; each set of views, by a name, remembers its last question and the last fit that there was. Features and views are compared by identity, so that a name or a look changes nothing. `most`: so many pieces and ties may be adjusted;
 * where that is not enough the fit is pending until it is told what it came to elsewhere.
 */
export function createFittingTogether(most: number) {
  const known = new Map<string, Fitting & { readonly question: Question; readonly told: ToldScene | undefined }>();
  return (name: string, job: Job, views: readonly FittedView[], told: ToldOfScenes): Fitting => {
    if (views.length === 0) return NOTHING;
    const before = known.get(name);
    const question = questionOf(job, views, before?.question);
    const answer = told.get(question.scene);
    if (before?.question === question && before.told === answer) return before;
    const fitting = fitThese(question, answer, most, before);
    known.set(name, { ...fitting, views, question, told: answer });
    return known.get(name)!;
  };
}

const asked = new WeakMap<Job['features'], readonly Question[]>();

/** The question of these views, which may have been asked before, here or by another deriver. */
function questionOf(job: Job, views: readonly FittedView[], before: Question | undefined): Question {
  const of = listAsked(job, views);
  const others = asked.get(job.features) ?? [];
  const same = [...(before ? [before] : []), ...others].find((other) => isSameList(other.of, of));
  if (same) return same;
  const question = { of, ...standingByZero(sceneOf(job, views)) };
  // The last few are enough: older ones are of a job as it was.
  asked.set(job.features, [question, ...others].slice(0, 8));
  return question;
}

/** All by which views are fitted together. */
const listAsked = ({ features, spans }: Job, views: readonly FittedView[]): readonly unknown[] => [
  ...features.flatMap(({ id, along, said, plusMinus, seen }) => [id, along, said, plusMinus, seen]),
  ...spans.flatMap(({ id, from, to, said, role, guess, plusMinus }) => [id, from, to, said, role, guess, plusMinus]),
  ...views.flatMap(({ question, source: { id, side, standsOn, datum, shares } }) => [
    question,
    id,
    side,
    standsOn?.ends?.from,
    standsOn?.ends?.to,
    standsOn?.turned,
    datum,
    shares,
  ]),
];

/** A fit of a question: as it was told, or as far as it may be sought; while that is not far enough, as these views were fitted last. */
function fitThese(
  { scene, byZero }: Question,
  told: ToldScene | undefined,
  most: number,
  last: Fitting | undefined,
): Omit<Fitting, 'views'> {
  if (told)
    return told.ok
      ? { fit: refitScene(scene, told.value), refusal: undefined, byZero, scene, isPending: false }
      : { fit: undefined, refusal: told, byZero, scene, isPending: false };
  const allowance = allowanceOf(most);
  const fit = fitScene(scene, allowance);
  if (allowance.isSpent && !fit.ok)
    return { fit: last?.fit, refusal: undefined, byZero: last?.byZero ?? byZero, scene, isPending: true };
  return {
    fit: fit.ok ? fit.value : undefined,
    refusal: fit.ok ? undefined : fit,
    byZero,
    scene,
    isPending: allowance.isSpent,
  };
}
