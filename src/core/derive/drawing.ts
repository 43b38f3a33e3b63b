import { done, refused, type Result } from '../basics';
import type { Drawing } from '../formats';
import type { Job, LayerColor } from '../job';
import type { Derived } from './derive';

/** Layer colours as files carry them: the light theme's inks. */
export const LAYER_INK: Readonly<Record<LayerColor, string>> = {
  berry: '#b3243b', ink: '#20261f', tide: '#1b6b75', plum: '#69408f', straw: '#b57b0e', hedge: '#2f5d46',
};

export interface DrawingChoice {
  readonly view: string;
  /** Ids of the outlines that leave; undefined for all that are shown. */
  readonly only?: readonly string[] | undefined;
}

/**
 * What leaves in a file: the outlines of one view in mm, by layer. Hidden layers and aids stay behind; pictures, evidence and guides
 * have no way in. Refused without scale, and when nothing is left to write.
 */
export function drawingOf(job: Job, derived: Derived, choice: DrawingChoice): Result<Drawing> {
  if (!derived.views.get(choice.view)?.fit.scaled) return refused('drawing-without-scale');
  const layers = job.layers.filter((layer) => layer.show).map((layer) => {
    const outlines = job.outlines.filter((outline) =>
      !outline.aid && outline.layer === layer.id && outline.view === choice.view && (!choice.only || choice.only.includes(outline.id)));
    const paths = outlines.flatMap((outline) => derived.shapes.get(outline.id)?.paths.filter(({ pieces }) => pieces.length > 0) ?? []);
    return { name: layer.name, color: LAYER_INK[layer.color], paths };
  });
  const filled = layers.filter((layer) => layer.paths.length > 0);
  return filled.length > 0 ? done({ layers: filled }) : refused('drawing-empty');
}
