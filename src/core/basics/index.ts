export { CoreError } from './core-error';
export { median } from './median';
export { isWithinReach } from './reach';
export { isSameList } from './same-list';
export { done, refused, type Refusal, type Result } from './result';
export { Amount, z } from './schema';
