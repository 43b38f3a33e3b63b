import { measureFrom } from '../../src/core/calibrate';
import { createDeriver, measureOutline } from '../../src/core/derive';
import { distance, mix } from '../../src/core/geometry';
import type { Job } from '../../src/core/job';
import type { Shape } from '../../src/core/outline';

/** The plus-minus (two sigma) of figures of the saved job, as the core states it: from the fit and every pointed place. */
export function stated(job: Job) {
  const fitted = [...createDeriver()(job).views.values()][0]!;
  const figure = (index: number, of: (shape: Shape) => number) => 2 * measureOutline(job.outlines[index]!, fitted, of).sigma;
  const sides = (index: number) => {
    const outline = job.outlines[index]!;
    if (outline.shape !== 'circle' || outline.by.kind !== 'two') throw new Error('a hole is drawn across');
    return [outline.by.a, outline.by.b].map((place) => {
      if (place.kind !== 'pointed') throw new Error('pointed');
      return { at: place.at, sigma: place.sigma };
    });
  };
  const spacing = (a: number, b: number) => 2 * measureFrom(fitted.fit, [...sides(a), ...sides(b)], ([p, q, r, t]) => {
    return distance(mix(p!, q!, 0.5), mix(r!, t!, 0.5));
  }).sigma;
  return { figure, spacing, diameter: (index: number) => figure(index, (shape) => (shape.pieces[0]!.kind === 'arc' ? 2 * shape.pieces[0]!.radius : 0)) };
}
