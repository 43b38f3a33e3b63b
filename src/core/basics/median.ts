/** The middle of the values in order, the upper one of two; 0 of none. */
export function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;
}
