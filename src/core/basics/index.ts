export { CoreError } from './core-error';
export { done, refused, type Refusal, type Result } from './result';
