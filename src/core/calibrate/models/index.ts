export { ASSUMED, lensSigma } from './assumptions';
export { chooseModel, type LensWish, type ModelWish } from './choose';
export {
  assumedConditions,
  assumedSigma,
  assumptionOf,
  mapBlocks,
  firstNumberOf,
  type LensName,
  type MapModel,
  type MapPart,
  type ModelName,
} from './model';
