import { directionOfSpan, doubtOfCurve, drawingInSpace, sizeInSpace, type Derived } from '../src/core/derive';
import { listTurnedRound } from '../src/core/arrange';
import type { Result } from '../src/core/basics';
import { readSpaceDxf, writeDxf, type FileUnit } from '../src/core/formats';
import type { Job } from '../src/core/job';
import { DIRECTIONS } from '../src/core/space';

/** How the views of a job stand to each other, what they share, and what does not belong. mm, object frame; one sigma. */
export function reportOnArranged(job: Job, derived: Derived) {
  const { arranged } = derived;
  return {
    stands: [...arranged.stands.values()],
    apart: [...arranged.apart].map(([view, why]) => ({ view, ...why })),
    shared: job.features.map(({ id, name, along }) => ({
      id,
      name,
      ...Object.fromEntries(
        (along ? [along] : DIRECTIONS).map((direction) => [direction, arranged.coordinate(id, direction) ?? null]),
      ),
    })),
    sizes: job.spans.map((span) => ({
      id: span.id,
      along: directionOfSpan(span, job.features) ?? null,
      said: span.said.value,
      ...arranged.spans.get(span.id),
    })),
    curves: job.spaceCurves.map((curve) => {
      const made = derived.spaceCurve(curve.id);
      if (!made?.ok) return { ...curve, refusal: made?.code };
      const { along, closed, missing, pieces } = made.value;
      return { ...curve, along, closed, missing, pieces, ...doubtOfCurve(curve, job, derived) };
    }),
    turnedRound: arranged.scene && arranged.isDoubted ? listTurnedRound(arranged.scene) : [],
    refusal: arranged.refusal?.code,
  };
}

/** What is drawn on all views that stand, in space, with what the file says of itself. */
export function writtenInSpace(
  job: Job,
  derived: Derived,
  unit: FileUnit,
): Result<{ readonly text: string; readonly says: unknown }> {
  const drawing = drawingInSpace(job, derived);
  if (!drawing.ok) return drawing;
  const text = writeDxf(drawing.value, unit);
  const says = readSpaceDxf(text);
  if (!says.ok) return says;
  const sizes = sizeInSpace(job, derived).map((size) => size ?? null);
  return { ok: true, value: { text, says: { ...says.value, sizes } } };
}
