import type { Job } from '../job';
import type { Derived } from './derived';
import { createDeriver, NOTHING_TOLD, toldIn } from './derive';
import { toldOf, type Told } from './fits';
import type { ToldScene } from './fitted-together';

/** A job with what its views have come to, as plain data that can be handed to a worker. */
export interface ToldJob {
  readonly job: Job;
  /** By the views' ids; what is pending is left out. */
  readonly views: readonly (readonly [id: string, told: Told])[];
  /** In the order in which views are asked about together. */
  readonly scenes: readonly (ToldScene | undefined)[];
}

export function tellJob(job: Job, derived: Derived): ToldJob {
  const { scenes } = toldIn(derived);
  return {
    job,
    views: [...derived.alone].flatMap(([id, fitted]) => (fitted.isPending ? [] : [[id, toldOf(fitted)] as const])),
    scenes: derived.arranged.asked.map((scene) => scenes.get(scene)),
  };
}

/** What a job comes to, without judging again what it was told with; what was pending is judged to the end. */
export function deriveAsTold({ job, views, scenes }: ToldJob): Derived {
  const derive = createDeriver();
  // What is asked follows from the views alone: nothing is judged or drawn to learn it.
  const bare = createDeriver({ most: 0, mostTogether: 0 })({ ...job, outlines: [], relations: [] }, NOTHING_TOLD);
  const told = new Map(views);
  return derive(job, {
    questions: new Map(
      [...bare.alone].flatMap(([id, { question }]) => (told.has(id) ? [[question, told.get(id)!] as const] : [])),
    ),
    scenes: new Map(bare.arranged.asked.flatMap((scene, i) => (scenes[i] ? [[scene, scenes[i]] as const] : []))),
  });
}
