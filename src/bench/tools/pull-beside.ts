import { cross, nearestOn, subtract, tangentAt, windingNumber, type Piece, type Vec } from '@/core/geometry';
import { makeShape, type MadeOutline, type Recipe } from '@/core/outline';
import type { Aim } from '../aim';
import type { ToolContext } from './tool';

type BesideRecipe = Extract<Recipe, { kind: 'offset' | 'strip' }>;
/** What lies beside its sources at a distance: an offset, or a strip with its thickness. */
type Pullable = MadeOutline & { readonly recipe: BesideRecipe };

export const isPullable = (outline: { readonly shape: string } | undefined): outline is Pullable =>
  outline?.shape === 'made' && ['offset', 'strip'].includes((outline as MadeOutline).recipe.kind);

/** A distance by hand is no finer than this: mm. */
const STEP = 0.1;

/** What passes where one points: as far from what it follows, to that side. Undefined at nothing. */
export function pulledThrough(made: Pullable, aim: Aim, { shapes, fitted }: ToolContext): Pullable | undefined {
  // Caught by itself it would stay where it is.
  const place = aim.snap === 'nearest' ? fitted.placing.toPlane(aim.free) : aim.plane;
  const nearest = made.recipe.of
    .flatMap((id) => {
      const shape = shapes.get(id);
      return shape ? shape.finished.map((piece) => ({ piece, shape, near: nearestOn(piece, place) })) : [];
    })
    .sort((a, b) => a.near.distance - b.near.distance)[0];
  if (!nearest) return undefined;
  const { piece, shape, near } = nearest;
  const away = Math.round(near.distance / STEP) * STEP;
  if (away === 0) return undefined;
  const right = isRight(piece, near.t, near.point, place);
  return {
    ...made,
    recipe:
      made.recipe.kind === 'strip'
        ? asThick(made.recipe, away, right)
        : asFar(made.recipe, away, shape.closed ? windingNumber(shape.finished, place) === 0 : right),
  };
}

const isRight = (piece: Piece, t: number, foot: Vec, place: Vec) =>
  cross(tangentAt(piece, t), subtract(place, foot)) < 0;

/** About its line a strip reaches as far to both sides; beside it, to the side that is pointed at. */
const asThick = (strip: Extract<Recipe, { kind: 'strip' }>, away: number, right: boolean): BesideRecipe =>
  strip.justified === 'middle'
    ? { ...strip, width: 2 * away }
    : { ...strip, width: away, justified: right ? 'right' : 'left' };

const asFar = (offset: Extract<Recipe, { kind: 'offset' }>, away: number, isOut: boolean): BesideRecipe => ({
  ...offset,
  otherHand: undefined,
  by: offset.both || isOut ? away : -away,
});

/** What it would look like. */
export function piecesPulled(made: Pullable, { shapes, fitted, job }: ToolContext): readonly Piece[] {
  return makeShape(made, {
    placing: fitted.placing,
    findShape: (id) => shapes.get(id),
    findOutline: (id) => job.outlines.find((outline) => outline.id === id),
    findGuide: () => undefined,
    findSited: () => undefined,
  }).finished;
}
