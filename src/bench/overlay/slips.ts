import type { Vec } from '@/core/geometry';

/** A slip of paper on the picture: its middle and its size. CSS px. */
export interface Slip {
  readonly at: Vec;
  readonly size: Vec;
}

const GAP = 3;
/** Where a slip may go instead, in its own heights, the nearest first. */
const ASIDE = [0, 1, -1, 2, -2, 3, -3];

const overlap = (a: Slip, b: Slip) => [0, 1].every((axis) => Math.abs(a.at[axis]! - b.at[axis]!) < (a.size[axis]! + b.size[axis]!) / 2 + GAP);

/** The middles of slips moved up or down so that none lies on another; where there is no room they stay. In the order given. */
export function apart(slips: readonly Slip[]): Vec[] {
  const placed: Slip[] = [];
  for (const { at, size } of slips) {
    const tried = ASIDE.map((heights): Slip => ({ at: [at[0], at[1] + heights * (size[1] + GAP)], size }));
    placed.push(tried.find((slip) => !placed.some((other) => overlap(slip, other))) ?? { at, size });
  }
  return placed.map(({ at }) => at);
}
