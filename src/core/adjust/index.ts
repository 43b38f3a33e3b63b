export { covarianceOf, type Covariance } from './covariance';
export { openAt, openCovarianceOf, type OpenCovariance } from './open-covariance';
export { ownedBy, ownedName } from './owned';
export { diagnose, type Diagnosis, type GroupDiagnosis } from './diagnosis';
export { freeMatrix, linearize, slopesByDifferences } from './linearize';
export { semiInverse } from './pivoted-cholesky';
export { transposedTimes } from './sparse';
export {
  layOut,
  type Block,
  type Condition,
  type Layout,
  type LinearCondition,
  type Problem,
  type SigmaOrigin,
  type Values,
} from './problem';
export { propagate, propagateMany, type Measured } from './propagate';
export { measureEachBy, rootOf, type Cause } from './causes';
export { chiSquareQuantile99, equivalentNormal } from './quantiles';
export { resumed, type AtRest } from './resumed';
export { solve, type Search, type Solution } from './solve';
