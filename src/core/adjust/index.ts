export { covarianceOf, type Covariance } from './covariance';
export { chiSquareQuantile99, diagnose, type Diagnosis, type GroupDiagnosis } from './diagnosis';
export { layOut, type Block, type Observation, type Problem, type SigmaOrigin, type Values } from './problem';
export { propagate, propagateMany, type Measured } from './propagate';
export { solve, type Solution } from './solve';
