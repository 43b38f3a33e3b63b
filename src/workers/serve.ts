import {
  OperationRefused,
  Transferred,
  type CallContext,
  type FromWorker,
  type OperationTypes,
  type Outcome,
  type ToWorker,
} from './protocol';

export type Operations<T extends OperationTypes> = {
  readonly [K in keyof T]: (
    input: T[K]['input'],
    context: CallContext,
  ) => Promise<T[K]['output'] | Transferred<T[K]['output']>>;
};

const page = self as unknown as {
  postMessage(message: FromWorker, transfer?: Transferable[]): void;
  onmessage: ((event: MessageEvent<ToWorker>) => void) | null;
};

/** The worker's side: runs calls as they come, several at once where operations wait for the browser. */
export function serve<T extends OperationTypes>(operations: Operations<T>): void {
  const cancelled = new Set<number>();
  page.onmessage = ({ data }) => {
    if (data.kind === 'ping') page.postMessage({ kind: 'pong' });
    else if (data.kind === 'cancel') cancelled.add(data.call);
    else void run(operations[data.operation as keyof T]!, data.call, data.input as T[keyof T]['input'], cancelled);
  };
  holdLock();
}

/** A worker that dies says nothing. Its lock is let go by the browser; locks are there in secure contexts only (and on the machine itself). */
function holdLock(): void {
  const lock = `bryony-worker-${crypto.getRandomValues(new Uint32Array(4)).join('-')}`;
  void navigator.locks?.request(lock, () => {
    page.postMessage({ kind: 'alive', lock });
    return new Promise(() => undefined);
  });
}

async function run<I, O>(
  operation: (input: I, context: CallContext) => Promise<O | Transferred<O>>,
  call: number,
  input: I,
  cancelled: Set<number>,
): Promise<void> {
  const context: CallContext = {
    isCancelled: () => cancelled.has(call),
    progress: (done, word) => page.postMessage({ kind: 'progress', call, done, word }),
  };
  const answer = (outcome: Outcome<unknown>, transfer: Transferable[] = []) => {
    page.postMessage(
      { kind: 'outcome', call, outcome: cancelled.delete(call) ? { kind: 'cancelled' } : outcome },
      transfer,
    );
  };
  try {
    const output = await operation(input, context);
    if (output instanceof Transferred) answer({ kind: 'done', value: output.value }, output.transfer);
    else answer({ kind: 'done', value: output });
  } catch (problem) {
    if (problem instanceof OperationRefused) answer({ kind: 'failed', code: problem.code, detail: problem.detail });
    else answer({ kind: 'failed', code: 'worker-failed', detail: { message: String(problem) } });
  }
}
