/**
 * What goes between a worker and the page. A worker offers a closed set of named operations with plain data in and a result
 * out; a call can report progress, be cancelled, and fail with a code that the interface words.
 */
export type Outcome<T> =
  | { readonly kind: 'done'; readonly value: T }
  | { readonly kind: 'failed'; readonly code: string; readonly detail: Readonly<Record<string, string | number>> }
  | { readonly kind: 'cancelled' };

export interface OperationTypes {
  readonly [name: string]: { readonly input: unknown; readonly output: unknown };
}

export type ToWorker =
  | { readonly kind: 'call'; readonly call: number; readonly operation: string; readonly input: unknown }
  | { readonly kind: 'cancel'; readonly call: number }
  | { readonly kind: 'ping' };

export type FromWorker =
  | { readonly kind: 'outcome'; readonly call: number; readonly outcome: Outcome<unknown> }
  | { readonly kind: 'progress'; readonly call: number; readonly done: number; readonly word: string }
  | { readonly kind: 'pong' }
  /** The name of a lock that the worker holds for as long as it lives. */
  | { readonly kind: 'alive'; readonly lock: string };

/** What an operation gets: whether it was cancelled, and a way to say how far it is (0…1) and what it is doing. */
export interface CallContext {
  isCancelled(): boolean;
  progress(done: number, word: string): void;
}

/** Thrown inside an operation for an expected failure. */
export class OperationRefused extends Error {
  constructor(
    readonly code: string,
    readonly detail: Readonly<Record<string, string | number>> = {},
  ) {
    super(code);
  }
}

/** An output together with what moves out of the worker instead of being copied. */
export class Transferred<T> {
  constructor(
    readonly value: T,
    readonly transfer: Transferable[],
  ) {}
}
