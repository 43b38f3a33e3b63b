/** Figures for many views of one thing: places that several of them show, adjusted together. */
import { median } from '../src/core/basics';
import { createRandom } from '../src/core/calibrate/simulation';
import { covarianceOf, solve } from '../src/core/adjust';
import { randomScene } from '../src/core/adjust/random-scene';

/** How long it takes to solve for `views` and `places`, each seen in five of them, and to say how well everything is known. ms */
export function sceneTimes(views: number, places: number): readonly [number, number] {
  const problem = randomScene(views, places, 5, createRandom(1).normal);
  const times = Array.from({ length: 3 }, () => {
    const begun = performance.now();
    const solution = solve(problem);
    const solved = performance.now();
    if (!solution.settled || covarianceOf(problem, solution).kind !== 'ok') throw new Error('not solved');
    return [solved - begun, performance.now() - solved] as const;
  });
  return [median(times.map(([solving]) => solving)), median(times.map(([, covariance]) => covariance))];
}
