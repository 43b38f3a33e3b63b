import { createDeriver, drawingOf, figuresOf, measureDimension } from '../../src/core/derive';
import { writeDxf, writeSvg } from '../../src/core/formats';
import { sha256Hex } from '../../src/core/pictures';
import type { Job } from '../../src/core/job';

/** All that a job comes to: numbers by name, and its files by their hashes. */
export interface ToldOfJob {
  readonly numbers: Readonly<Record<string, number>>;
  readonly files: Readonly<Record<string, string>>;
}

/** Fits, evidence, outlines and dimensions, each with its plus-minus; mm, mm² and radians, one sigma. */
export function tellJob(job: Job): ToldOfJob {
  const derived = createDeriver()(job);
  const numbers: Record<string, number> = {};
  const put = (name: string, measured: { readonly value: number; readonly sigma: number } | undefined) => {
    if (measured) Object.assign(numbers, { [name]: measured.value, [`${name} ±`]: measured.sigma });
  };
  for (const [id, { sheet, fit, sigma, figures, checks }] of derived.views) {
    const [x, y] = fit.toPlane([sheet.width / 3, sheet.height / 4]);
    Object.assign(numbers, { [`${id} x`]: x, [`${id} y`]: y, [`${id} ±`]: sigma ?? 0 });
    const all = [...figures, ...checks.map((check) => [check.id, check.figures] as const)];
    all.forEach(([piece, read]) => read.forEach(({ comesTo }, i) => put(`${id} ${piece} ${i}`, comesTo)));
  }
  for (const outline of job.outlines) {
    const figured = { job, derived };
    const { length, area, radius, centre, shares } = figuresOf(outline, figured, derived.shapes.get(outline.id)!);
    Object.entries({ length, area, radius, across: centre?.[0], up: centre?.[1] }).forEach(([name, measured]) =>
      put(`${outline.id} ${name}`, measured),
    );
    numbers[`${outline.id} pointed`] = shares?.pointed ?? -1;
  }
  for (const dimension of job.dimensions)
    put(dimension.id, measureDimension(dimension, { job, derived }, derived.shapes));
  return { numbers, files: filesOf(job, derived) };
}

function filesOf(job: Job, derived: ReturnType<ReturnType<typeof createDeriver>>): Record<string, string> {
  return Object.fromEntries(
    job.views.flatMap(({ id, plane }) => {
      const drawing = drawingOf(job, derived, { plane });
      if (!drawing.ok) return [];
      const hash = (text: string) => sha256Hex(new TextEncoder().encode(text));
      return [
        [`${id}.dxf`, hash(writeDxf(drawing.value, 'mm'))],
        [`${id}.svg`, hash(writeSvg(drawing.value, 'mm'))],
      ];
    }),
  );
}
