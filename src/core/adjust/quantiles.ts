/** 99 % quantile of chi-square, within 1 % (Wilson & Hilferty, The distribution of chi-square, 1931). */
export function chiSquareQuantile99(freedoms: number): number {
  const share = 2 / (9 * freedoms);
  return freedoms * (1 - share + 2.3263478740408408 * Math.sqrt(share)) ** 3;
}

/**
 * The size of a two-sided normal deviate that is as unlikely as this chi-square: exact for one freedom, by Wilson & Hilferty's
 * cube root for more, whose one-sided deviate is turned into a two-sided one.
 */
export function equivalentNormal(chiSquare: number, freedoms: number): number {
  if (freedoms === 1) return Math.sqrt(chiSquare);
  const share = 2 / (9 * freedoms);
  const oneSided = ((chiSquare / freedoms) ** (1 / 3) - 1 + share) / Math.sqrt(share);
  return oneSided > 6 ? oneSided : normalQuantile(1 - (1 - normalProbability(oneSided)) / 2);
}

/** Normal probability below z, within 1e-7 (Abramowitz & Stegun, Handbook of Mathematical Functions, 26.2.17). */
function normalProbability(z: number): number {
  if (z < 0) return 1 - normalProbability(-z);
  const t = 1 / (1 + 0.2316419 * z);
  const tail = ((((1.330274429 * t - 1.821255978) * t + 1.781477937) * t - 0.356563782) * t + 0.31938153) * t;
  return 1 - (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) * tail;
}

/** Inverse of the above for p ≥ 0.5, within 5e-4 (Abramowitz & Stegun 26.2.23). */
function normalQuantile(p: number): number {
  const t = Math.sqrt(-2 * Math.log(Math.max(1 - p, 1e-300)));
  return Math.max(
    0,
    t - ((0.010328 * t + 0.802853) * t + 2.515517) / (((0.001308 * t + 0.189269) * t + 1.432788) * t + 1),
  );
}
