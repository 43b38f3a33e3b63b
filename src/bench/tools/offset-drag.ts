import { cross, nearestOn, subtract, tangentAt, windingNumber, type Piece, type Vec } from '@/core/geometry';
import { makeShape, type MadeOutline, type Recipe } from '@/core/outline';
import type { Aim } from '../aim';
import type { ToolContext } from './tool';

type Offset = MadeOutline & { readonly recipe: Extract<Recipe, { kind: 'offset' }> };

export const isOffset = (outline: { readonly shape: string } | undefined): outline is Offset => outline?.shape === 'made' && (outline as MadeOutline).recipe.kind === 'offset';

/** A distance by hand is no finer than this: mm. */
const STEP = 0.1;

/** The offset that passes where one points: as far from what it follows, to that side. Undefined at nothing. */
export function offsetThrough(made: Offset, aim: Aim, { shapes, fitted }: ToolContext): Offset | undefined {
  // Caught by itself it would stay where it is.
  const place = aim.snap === 'nearest' ? fitted.placing.toPlane(aim.free) : aim.plane;
  const nearest = made.recipe.of.flatMap((id) => {
    const shape = shapes.get(id);
    return shape ? shape.finished.map((piece) => ({ piece, shape, near: nearestOn(piece, place) })) : [];
  }).sort((a, b) => a.near.distance - b.near.distance)[0];
  if (!nearest) return undefined;
  const { piece, shape, near } = nearest;
  const isOut = shape.closed ? windingNumber(shape.finished, place) === 0 : isRight(piece, near.t, near.point, place);
  const away = Math.round(near.distance / STEP) * STEP;
  return away === 0 ? undefined : { ...made, recipe: { ...made.recipe, by: made.recipe.both || isOut ? away : -away } };
}

const isRight = (piece: Piece, t: number, foot: Vec, place: Vec) => cross(tangentAt(piece, t), subtract(place, foot)) < 0;

/** What it would look like. */
export function piecesOfOffset(made: Offset, { shapes, fitted }: ToolContext): readonly Piece[] {
  return makeShape(made, { placing: fitted.placing, findShape: (id) => shapes.get(id), findChain: () => undefined, findGuide: () => undefined }).finished;
}
