import type { LookedFrom, ThingByEye } from '@/core/shelf';

/** What is stood in a drawing to judge it by eye. */
export const BY_EYE_WORDS: Readonly<Record<ThingByEye, string>> = {
  door: 'Door leaf',
  person: 'Person',
  chair: 'Chair',
  table: 'Table',
  hand: 'Hand',
  brick: 'Brick',
};

export const LOOKED_FROM_WORDS: Readonly<Record<LookedFrom, string>> = {
  standing: 'As it stands',
  above: 'From above',
};
