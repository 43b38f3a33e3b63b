export { CoreError } from './core-error';
export { median } from './median';
export type { Random } from './random';
export { FARTHEST, FARTHEST_ON_MAP, isOnMap, isWithinReach } from './reach';
export { isSameList } from './same-list';
export { done, refused, type Refusal, type Result } from './result';
export { firstFree } from './first-free';
