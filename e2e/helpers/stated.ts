import { circleThrough, measureFrom } from '../../src/core/calibrate';
import { createDeriver, measureOutline } from '../../src/core/derive';
import { distance, mix, type Vec } from '../../src/core/geometry';
import type { Job } from '../../src/core/job';
import type { Shape } from '../../src/core/outline';

/** The plus-minus (two sigma) of figures of the saved job, as the core states it: from the fit and every pointed place. */
export function stated(job: Job) {
  const derived = createDeriver()(job);
  const figured = { job, derived };
  const fitted = derived.views.get(job.views[0]!.id)!;
  const figure = (index: number, of: (shape: Shape) => number) =>
    2 * measureOutline(job.outlines[index]!, figured, of).sigma;
  /** The pointed places of a hole that was drawn across, or whose rim was found. */
  const rim = (index: number) => {
    const outline = job.outlines[index]!;
    if (outline.shape !== 'circle' || outline.by.kind === 'rim') throw new Error('a hole is drawn across or found');
    const places =
      outline.by.kind === 'two' ? [outline.by.a, outline.by.b] : [outline.by.a, outline.by.b, outline.by.c];
    return places.map((place) => {
      if (place.kind !== 'pointed') throw new Error('pointed');
      return place;
    });
  };
  const centre = (places: readonly Vec[]) =>
    places.length === 2 ? mix(places[0]!, places[1]!, 0.5) : circleThrough(places).centre;
  const spacing = (a: number, b: number) => {
    const [first, second] = [rim(a), rim(b)];
    return (
      2 *
      measureFrom(fitted.fit, [...first, ...second], (places) =>
        distance(centre(places.slice(0, first.length)), centre(places.slice(first.length))),
      ).sigma
    );
  };
  return {
    figure,
    spacing,
    diameter: (index: number) =>
      figure(index, (shape) => (shape.pieces[0]!.kind === 'arc' ? 2 * shape.pieces[0]!.radius : 0)),
  };
}
