/** Nothing that is measured or drawn is larger or lies farther away than this, mm: beyond, numbers lose what counts. */
export const FARTHEST = 1e9;

/** Whether a number is one, and not beyond all bounds. mm */
export const isWithinReach = (mm: number): boolean => Number.isFinite(mm) && Math.abs(mm) <= FARTHEST;

/** Maps count from far away: half the way around the earth, mm. Near the zero that is taken off them everything is within reach again. */
export const FARTHEST_ON_MAP = 2e10;

export const isOnMap = (mm: number): boolean => Number.isFinite(mm) && Math.abs(mm) <= FARTHEST_ON_MAP;
