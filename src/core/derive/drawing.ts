import { done, refused, type Result } from '../basics';
import { isSound, type Drawing, type DrawingLayer } from '../formats';
import type { DrawnSpaceCurve, Job, LayerColor } from '../job';
import { isSign, type Outline, type Shape } from '../outline';
import type { Derived } from './derived';
import { poseOnLayer } from './levels';
import { isDrawnTwice, listStanding } from './on-sites';

/** Layer colours as files carry them: the light theme's inks. */
export const LAYER_INK: Readonly<Record<LayerColor, string>> = {
  berry: '#b3243b',
  ink: '#20261f',
  tide: '#1b6b75',
  plum: '#69408f',
  straw: '#b57b0e',
  hedge: '#2f5d46',
};

export interface DrawingChoice {
  readonly plane: string;
  /** Ids of the outlines that leave; undefined for all that are shown. */
  readonly only?: readonly string[] | undefined;
}

/** Outlines of one layer that leave: those that are shown, and no aids. */
function leavingOn(
  { outlines }: Pick<Job, 'outlines'>,
  { plane, only }: DrawingChoice,
  layer: Job['layers'][number],
): readonly Outline[] {
  return outlines.filter(
    ({ id, aid, ...outline }) =>
      layer.show && !aid && outline.layer === layer.id && outline.plane === plane && (!only || only.includes(id)),
  );
}

export const outlinesLeaving = (job: Job, choice: DrawingChoice): readonly Outline[] =>
  job.layers.flatMap((layer) => leavingOn(job, choice, layer));

function shapesLeaving(
  job: Pick<Job, 'outlines'>,
  { shapes }: Pick<Derived, 'shapes'>,
  choice: DrawingChoice,
  layer: Job['layers'][number],
): readonly Shape[] {
  return leavingOn(job, choice, layer).flatMap(({ id }) => shapes.get(id) ?? []);
}

/** How many open ends a drawing has because it should: those of swings and sills. */
export function countMeantEnds(job: Job, derived: Derived, choice: DrawingChoice): number {
  const signs = job.layers.flatMap((layer) => shapesLeaving(job, derived, choice, layer)).filter(isSign);
  return 2 * signs.flatMap(({ paths }) => paths).filter(({ closed }) => !closed).length;
}

/**
 * What leaves in a file: the outlines of one plane in mm, by layer. Hidden layers and aids stay behind; pictures, evidence and guides
 * have no way in. Refused without scale, when nothing is left to write, and when something lies at no place that is one.
 */
export function drawingOf(job: Job, derived: Derived, choice: DrawingChoice): Result<Drawing> {
  if (!derived.planes.get(choice.plane)?.placing.scaled) return refused('drawing-without-scale');
  const layers = job.layers.map((layer) => {
    const paths = shapesLeaving(job, derived, choice, layer).flatMap((shape) =>
      shape.paths.filter(({ pieces }) => pieces.length > 0),
    );
    return { name: layer.name, color: LAYER_INK[layer.color], paths };
  });
  const filled = layers.filter((layer) => layer.paths.length > 0);
  if (!filled.every(({ paths }) => paths.every(({ pieces }) => pieces.every((piece) => isSound(piece)))))
    return refused('drawing-beyond');
  return filled.length > 0 ? done({ layers: filled }) : refused('drawing-empty');
}

/**
 * Likewise of all planes of which a view stands, also on an edge of another, each in its place, or at its layer's own level; a layer for each plane that has something on it. Refused where nothing stands, too.
 */
export function drawingInSpace(job: Job, derived: Derived): Result<Drawing> {
  const standing = listStanding(job, derived).flatMap((placed) => {
    const fitted = derived.views.get(placed.view);
    return fitted ? [{ plane: fitted.view.plane, name: fitted.source.name, placed }] : [];
  });
  const each = standing.filter(({ plane }, i) => standing.findIndex((other) => other.plane === plane) === i);
  if (each.length === 0) return refused('drawing-nothing-stands');
  const isTwice = isDrawnTwice(job, new Set(each.map(({ plane }) => plane)));
  const once = { ...job, outlines: job.outlines.filter((outline) => !isTwice(outline)) };
  const layers = each.flatMap(({ plane, name, placed }): readonly DrawingLayer[] =>
    job.layers.flatMap((layer) => {
      const drawing = drawingOf({ ...once, layers: [layer] }, derived, { plane });
      if (!drawing.ok) return [];
      const stands = poseOnLayer(placed, layer, derived.arranged);
      return drawing.value.layers.map(({ paths, ...one }) => ({
        ...one,
        name: `${one.name} (${name})`,
        paths: paths.map((path) => ({ ...path, stands })),
      }));
    }),
  );
  const curves = job.spaceCurves.flatMap((drawn) => curveLayer(drawn, job, derived));
  return layers.length + curves.length > 0 ? done({ layers: [...layers, ...curves] }) : refused('drawing-empty');
}

/** A curve in space, and its mirror image, on a layer of its own, in the colour of its first outline. One that its outlines do not make stays behind. */
function curveLayer({ id, name, of: [first] }: DrawnSpaceCurve, job: Job, { spaceCurve }: Derived): DrawingLayer[] {
  const made = spaceCurve(id);
  if (!made?.ok) return [];
  const { closed, pieces, mirrored } = made.value;
  const layer = job.layers.find((each) => each.id === job.outlines.find((outline) => outline.id === first)?.layer);
  const inSpace = [pieces, ...(mirrored ? [mirrored] : [])].map((all) => ({ closed, pieces: all }));
  return [{ name: `${name} (in space)`, color: LAYER_INK[layer?.color ?? 'berry'], paths: [], inSpace }];
}
