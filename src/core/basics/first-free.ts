/** The first name, by its number from 1 on, that is not taken. */
export function firstFree(taken: ReadonlySet<string>, nameOf: (count: number) => string): string {
  for (let count = 1; ; count++) if (!taken.has(nameOf(count))) return nameOf(count);
}
