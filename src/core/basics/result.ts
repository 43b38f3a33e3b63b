/** Why something could not be done: a code that the interface words, and what the words need. */
export interface Refusal {
  readonly ok: false;
  readonly code: string;
  readonly detail: Readonly<Record<string, string | number>>;
}

/** An expected outcome: the value, or the reason why there is none. */
export type Result<T> = { readonly ok: true; readonly value: T } | Refusal;

export function done<T>(value: T): Result<T> {
  return { ok: true, value };
}

export function refused(code: string, detail: Refusal['detail'] = {}): Refusal {
  return { ok: false, code, detail };
}
