/** The middle of the values in order, the upper one of two; 0 of none. */
export function median(values: readonly number[]): number {
  return Float64Array.from(values).sort()[values.length >> 1] ?? 0;
}
