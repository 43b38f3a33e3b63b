import type { PictureGeometry } from '../picture';
import { ASSUMED, focalSigma } from './assumptions';
import { cameraShape } from './camera';
import { flatShape, isFlat } from './flat';
import { createModel, type LensName, type MapModel, type ModelName } from './model';

export type ModelWish = ModelName | 'auto';
export type LensWish = LensName | 'auto';

/**
 * The model for a wish. A model that was asked for has no assumptions; only a focal length that the camera told is taken as
 * stated with its own doubt. `auto` is the family of everything this kind of sheet may suffer from, held by assumptions.
 */
export function chooseModel(picture: PictureGeometry, model: ModelWish, lens: LensWish, frame: { readonly turns: boolean; readonly shifts: boolean }): MapModel {
  const assumesLens = lens === 'auto' && picture.kind === 'photo';
  const choice = { lens: lens === 'auto' ? (assumesLens ? 'k1k2' as const : 'none' as const) : lens, lensSigma: assumesLens ? ASSUMED.lens : undefined, centreSigma: assumesLens ? ASSUMED.lensCentre : undefined, ...frame };
  if (model === 'auto' && picture.kind === 'photo') {
    return createModel(picture, cameraShape(picture, { tilt: picture.tilt ? ASSUMED.tiltMeasured : ASSUMED.tilt, focal: focalSigma(picture), focalOrigin: 'assumed' }), { ...choice, name: 'camera' });
  }
  if (model === 'auto') return createModel(picture, flatShape('affine', { stretch: ASSUMED.stretch[picture.kind], skew: ASSUMED.skew[picture.kind] }), { ...choice, name: 'affine' });
  if (isFlat(model)) return createModel(picture, flatShape(model), { ...choice, name: model });
  const told = picture.focal35mm === undefined ? undefined : ASSUMED.focalTold;
  return createModel(picture, cameraShape(picture, { focal: told, focalOrigin: 'stated' }), { ...choice, name: 'camera' });
}
