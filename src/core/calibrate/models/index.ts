export { ASSUMED, lensSigma } from './assumptions';
export { heldAs, holdingOf, leaningOf, type Holding } from './holding';
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
