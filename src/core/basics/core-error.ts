/** Misuse of the core by its caller. Expected failures are `Result` values instead. The interface words the code. */
export class CoreError extends Error {
  constructor(
    readonly code: string,
    readonly detail: Readonly<Record<string, unknown>> = {},
  ) {
    super(code);
    this.name = 'CoreError';
  }
}
