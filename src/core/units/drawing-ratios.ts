/** How many times larger a thing is than its drawing, usually: 1, 2 and 5 times any power of ten (ISO 5455, Technical drawings – Scales, 1979; from memory); quarters of those, and feet to fractions of an inch, by common practice. */
const USUAL: readonly number[] = [
  ...[-1, 0, 1, 2, 3, 4].flatMap((power) => [1, 2, 5].map((step) => step * 10 ** power)),
  ...[2.5, 15, 25, 75, 125, 250, 1250, 2500],
  ...[4, 8, 12, 16, 24, 32, 48, 64, 96, 120, 192, 240, 360, 480, 600],
];

/** A drawing may be so far off its ratio as printers stretch: share of a length. */
const WITHIN = 0.02;

/** The usual ratio that so many times are, as nearly as drawings are printed; undefined where they are none. */
export function findDrawingRatio(times: number): number | undefined {
  const off = (ratio: number) => Math.abs(Math.log(times / ratio));
  const nearest = USUAL.reduce((best, ratio) => (off(ratio) < off(best) ? ratio : best));
  return off(nearest) <= WITHIN ? nearest : undefined;
}
