/** A length said without a plus-minus is taken as read off a rule or caliper: 0.15 mm and 0.02 % (one sigma, assumed). */
const READING = { mm: 0.15, share: 0.0002 };
/** "about": 3 % on screen, therefore 1.5 % as one sigma. */
const GUESS_SHARE = 0.015;

/** One sigma of a size that was said without one. mm. */
export function sigmaOfReading(mm: number, guess: boolean): number {
  return guess ? mm * GUESS_SHARE : READING.mm + mm * READING.share;
}
