import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Outcome } from '@/workers';

/** What a worker makes of what is drawn: the last that it made while it works on a newer drawing. */
export interface Worked<T> {
  readonly value: T | undefined;
  readonly isWorking: boolean;
  /** It was stopped, or came to nothing: `value` is not of what is drawn now. */
  readonly isStopped: boolean;
  stop(): void;
  again(): void;
}

/** Work on what a view shows (`of`), again whenever one of it is replaced by another object. */
export function useWorked<T>(
  name: string,
  view: string,
  of: readonly unknown[],
  work: (signal: AbortSignal) => Promise<Outcome<T>>,
  enabled = true,
): Worked<T> {
  const client = useQueryClient();
  const queryKey = ['worked', name, view, ...of.map(numberOf)];
  const { data, isFetching, isPlaceholderData, refetch } = useQuery<{ readonly value: T }>({
    queryKey,
    enabled,
    staleTime: Infinity,
    gcTime: KEPT_MS,
    structuralSharing: false,
    // What was made of another view says nothing of this one.
    placeholderData: (previous, query) => (query?.queryKey[2] === view ? previous : undefined),
    queryFn: ({ signal }) => work(signal).then(valueOf),
  });
  const isCurrent = data !== undefined && !isPlaceholderData;
  return {
    value: data?.value,
    isWorking: isFetching,
    isStopped: !isFetching && !isCurrent,
    stop: () => void client.cancelQueries({ queryKey }),
    again: () => void refetch(),
  };
}

const KEPT_MS = 30_000;

function valueOf<T>(outcome: Outcome<T>): { readonly value: T } {
  if (outcome.kind === 'done') return outcome;
  throw new Error(outcome.kind === 'failed' ? outcome.code : outcome.kind);
}

const numbers = new WeakMap<object, number>();
let last = 0;

/** Objects by number, the same object by the same, so that what is large need not be written out to be known again. */
function numberOf(value: unknown): unknown {
  if (typeof value !== 'object' || value === null) return value;
  const number = numbers.get(value) ?? ++last;
  numbers.set(value, number);
  return number;
}
