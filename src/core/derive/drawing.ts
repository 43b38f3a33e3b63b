import { done, refused, type Result } from '../basics';
import { isSound, type Drawing, type DrawingLayer, type DrawnPath, type SpacePath } from '../formats';
import { endOf, findTurn, startOf, tangentAt, type Piece, type Vec } from '../geometry';
import type { DrawnSpaceCurve, Job, LayerColor } from '../job';
import { isSign, type Outline, type Shape } from '../outline';
import { toSpace, type Pose } from '../space';
import type { Derived } from './derived';
import { endsOfRise, poseOnLayer } from './levels';
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
      const poses = endsOfRise(layer, placed.side, derived.arranged).map((end) =>
        poseOnLayer(placed, end, derived.arranged),
      );
      return drawing.value.layers.map(({ paths, ...one }) => ({
        ...one,
        name: `${one.name} (${name})`,
        paths: poses.flatMap((stands) => paths.map((path) => ({ ...path, stands }))),
        ...(poses[1] ? { inSpace: uprightsOf(paths, poses[0]!, poses[1]) } : {}),
      }));
    }),
  );
  const curves = job.spaceCurves.flatMap((drawn) => curveLayer(drawn, job, derived));
  return layers.length + curves.length > 0 ? done({ layers: [...layers, ...curves] }) : refused('drawing-empty');
}

/** The edges along which what is drawn rises: one at each corner, and at the ends of what is open. */
const uprightsOf = (paths: readonly DrawnPath[], foot: Pose, head: Pose): readonly SpacePath[] =>
  paths.flatMap(cornersOf).map((at) => ({
    closed: false,
    pieces: [{ kind: 'line', a: toSpace(foot, at), b: toSpace(head, at) }],
  }));

function cornersOf({ closed, pieces }: DrawnPath): readonly Vec[] {
  const kinks = pieces.flatMap((piece, i) => {
    const before = i > 0 ? pieces[i - 1] : closed ? pieces.at(-1) : undefined;
    return before && !isSmooth(before, piece) ? [startOf(piece)] : [];
  });
  return closed ? kinks : [startOf(pieces[0]!), ...kinks, endOf(pieces.at(-1)!)];
}

/** Directions that differ by less run on without a corner. Radians. */
const SMOOTH = 0.01;
const isSmooth = (before: Piece, after: Piece): boolean =>
  Math.abs(findTurn(tangentAt(before, 1), tangentAt(after, 0)) ?? 0) < SMOOTH;

/** A curve in space, and its mirror image, on a layer of its own, in the colour of its first outline. One that its outlines do not make stays behind. */
function curveLayer({ id, name, of: [first] }: DrawnSpaceCurve, job: Job, { spaceCurve }: Derived): DrawingLayer[] {
  const made = spaceCurve(id);
  if (!made?.ok) return [];
  const { closed, pieces, mirrored } = made.value;
  const layer = job.layers.find((each) => each.id === job.outlines.find((outline) => outline.id === first)?.layer);
  const inSpace = [pieces, ...(mirrored ? [mirrored] : [])].map((all) => ({ closed, pieces: all }));
  return [{ name: `${name} (in space)`, color: LAYER_INK[layer?.color ?? 'berry'], paths: [], inSpace }];
}
