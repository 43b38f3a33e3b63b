/** A thing of known size. mm. */
export interface ShelfEntry {
  readonly id: string;
  readonly name: string;
  readonly family: ShelfFamily;
  readonly shape: ShelfShape;
  /** Published limits, or how far such things differ: half the width between the smallest and the largest. mm. */
  readonly tolerance: number;
  /** Height of the rim that is seen above what it lies on, where that matters. mm. */
  readonly rim?: number | undefined;
  readonly source: string;
  /** `standard`: a published standard; `memory`: a published size, written down from memory; `practice`: what is usual, a guess; `own`: measured by its owner. */
  readonly standing: 'standard' | 'memory' | 'practice' | 'own';
}

export type ShelfFamily =
  | 'own things'
  | 'cards and paper'
  | 'coins'
  | 'batteries'
  | 'boards and bricks'
  | 'transport'
  | 'house'
  | 'pipes'
  | 'balls and discs'
  | 'small things';

export type ShelfShape =
  | { readonly kind: 'length'; readonly mm: number }
  | { readonly kind: 'circle'; readonly diameter: number }
  | { readonly kind: 'rectangle'; readonly width: number; readonly height: number };

/** What is thinner lies in one plane with other thin things, as far as a photo tells. mm */
const THIN = 3;

/**
 * How high above the plane of the fit the rim of a thing is seen, mm; undefined for thin things. A card, a coin, a rule and a sheet beside each other are all about as
 * thin: raising one of them by its thickness and not the others would make their sizes disagree, and raising none says the same. A battery on end or a pallet
 * stands out of that plane.
 */
export const heightAbovePlane = ({ rim }: Pick<ShelfEntry, 'rim'>): number | undefined =>
  rim !== undefined && rim > THIN ? rim : undefined;

/** Limits are taken as evenly likely between them: their one sigma is half the width over √3. mm. */
export function sigmaOfTolerance(halfWidth: number): number {
  return halfWidth / Math.sqrt(3);
}

/** The other way round: the limits that a thing with this sigma keeps. mm. */
export function limitsOfSigma(sigma: number): number {
  return sigma * Math.sqrt(3);
}
