/** How a place is pointed at. */
export type Pointer = 'touch' | 'mouse' | 'keyboard';

/** What points, and which share of where a finger stands, 0 to 1, it owes to its landing and not to aiming; others owe nothing to it. */
export interface Hand {
  readonly pointer: Pointer;
  readonly unaided?: number | undefined;
}

/** How large the sheet is shown, in CSS px a sheet px: where it was aimed at, and where a finger landed. */
export interface ShownAt {
  readonly aimed: number;
  readonly landed: number;
}

/** Repeatability of pointing, CSS px of the picture that is looked at, one sigma. Assumed: see docs/accuracy.md. */
const POINTING = { touch: 1.6, mouse: 0.8, keyboard: 0.8 } as const;
/** A finger that has not aimed yet points as well as is seen where it landed. CSS px, one sigma. */
const LANDING = 1.6;
/** A photographed edge is spread over about a pixel; nobody points better than half of that. Sheet px. */
export const EDGE_SIGMA = 0.5;

/** One sigma of each coordinate of a place that is pointed at with nothing to catch the aim. Sheet px. */
export function sigmaOfPointing({ pointer, unaided = 0 }: Hand, { aimed, landed }: ShownAt): number {
  return Math.hypot(POINTING[pointer] / aimed, (unaided * LANDING) / landed, EDGE_SIGMA);
}
