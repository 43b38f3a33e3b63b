import type { PictureGeometry } from '../picture';
import { ASSUMED, assumedOf } from './assumptions';
import { atAim, atFoot, cameraShape } from './camera';
import { flatShape, isFlat } from './flat';
import { createModel, type LensName, type MapModel, type ModelName } from './model';

export type ModelWish = ModelName | 'auto';
export type LensWish = LensName | 'auto';

/**
 * The model for a wish. A model that was asked for has no assumptions; only a focal length that the camera told is taken as
 * stated with its own doubt. `auto` is the family of everything this kind of sheet may suffer from, held by assumptions.
 */
export function chooseModel(
  picture: PictureGeometry,
  model: ModelWish,
  lens: LensWish,
  frame: { readonly turns: boolean; readonly shifts: boolean },
): MapModel {
  const assumes = assumedOf(picture);
  const assumesLens = lens === 'auto' && picture.kind === 'photo';
  const usual = assumesLens ? ('k1k2' as const) : ('none' as const);
  const choice = {
    lens: lens === 'auto' ? usual : lens,
    lensAssumed: assumesLens ? assumes.lens : undefined,
    centreAssumed: assumesLens ? assumes.lensCentre : undefined,
    ...frame,
  };
  if (model === 'auto' && picture.kind === 'photo')
    return createModel(picture, cameraShape(picture, { ...assumes, focalOrigin: 'assumed' }, atAim), {
      ...choice,
      name: 'camera',
    });
  if (model === 'auto') return createModel(picture, flatShape('affine', assumes), { ...choice, name: 'affine' });
  if (isFlat(model)) return createModel(picture, flatShape(model), { ...choice, name: model });
  const told = picture.focal35mm === undefined ? undefined : { sigma: [ASSUMED.focalTold] };
  return createModel(picture, cameraShape(picture, { focal: told, focalOrigin: 'stated' }, atFoot), {
    ...choice,
    name: 'camera',
  });
}
