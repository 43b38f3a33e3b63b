export { CoreError } from './core-error';
export { median } from './median';
export { done, refused, type Refusal, type Result } from './result';
