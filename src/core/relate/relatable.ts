import type { Chain, CircleOutline, Outline } from '../outline';

/** Outlines about which something can be said: those that stand on places of their own, ellipses apart. */
export type Relatable = Chain | CircleOutline;

export const isRelatable = (outline: Outline): outline is Relatable =>
  outline.shape === 'chain' || outline.shape === 'circle';
