import type { FromWorker, OperationTypes, Outcome, ToWorker } from './protocol';

export interface CallOptions {
  readonly signal?: AbortSignal;
  readonly transfer?: Transferable[];
  onProgress?(done: number, word: string): void;
}

export interface WorkerClient<T extends OperationTypes> {
  call<K extends keyof T & string>(operation: K, input: T[K]['input'], options?: CallOptions): Promise<Outcome<T[K]['output']>>;
}

/** The few things a client needs of a worker, so that tests can hand in another. */
export interface WorkerLike {
  postMessage(message: ToWorker, transfer: Transferable[]): void;
  terminate(): void;
  onmessage: ((event: MessageEvent<FromWorker>) => void) | null;
  onerror: ((event: ErrorEvent) => void) | null;
}

interface Waiting {
  readonly resolve: (outcome: Outcome<never>) => void;
  readonly options: CallOptions;
}

const HEARTBEAT_MS = 4000;
/** A worker that decodes a large picture may be silent for long; one that is silent longer than this is taken as dead. */
const SILENCE_MS = 60_000;

/**
 * A typed client. The worker starts with the first call. When it dies or falls silent, every call that waits fails with
 * `worker-died`, and the next call starts a new one. A worker that cannot hear of a cancelled call while it works is ended when nothing else waits for it.
 */
export function createWorkerClient<T extends OperationTypes>(spawn: () => WorkerLike, { hearsCancel = true } = {}): WorkerClient<T> {
  let worker: WorkerLike | undefined;
  let heartbeat: ReturnType<typeof setInterval> | undefined;
  let heardAt = 0;
  let nextCall = 1;
  const waiting = new Map<number, Waiting>();

  function stop(): void {
    worker?.terminate();
    worker = undefined;
    clearInterval(heartbeat);
    const lost = [...waiting.values()];
    waiting.clear();
    for (const { resolve } of lost) resolve({ kind: 'failed', code: 'worker-died', detail: {} });
  }

  function hear({ data }: MessageEvent<FromWorker>): void {
    heardAt = Date.now();
    if (data.kind === 'pong') return;
    const call = waiting.get(data.call);
    if (!call) return;
    if (data.kind === 'progress') return call.options.onProgress?.(data.done, data.word);
    waiting.delete(data.call);
    call.resolve(data.outcome as Outcome<never>);
    if (waiting.size === 0) clearInterval(heartbeat);
  }

  function beat(): void {
    if (Date.now() - heardAt > SILENCE_MS) stop();
    else worker?.postMessage({ kind: 'ping' }, []);
  }

  function start(): WorkerLike {
    const started = spawn();
    started.onmessage = hear;
    started.onerror = stop;
    return started;
  }

  return {
    call(operation, input, options = {}) {
      if (options.signal?.aborted) return Promise.resolve({ kind: 'cancelled' });
      const call = nextCall++;
      return new Promise((resolve) => {
        worker ??= start();
        if (waiting.size === 0) {
          heardAt = Date.now();
          heartbeat = setInterval(beat, HEARTBEAT_MS);
        }
        waiting.set(call, { resolve: resolve as Waiting['resolve'], options });
        options.signal?.addEventListener('abort', () => {
          if (!waiting.delete(call)) return;
          if (waiting.size === 0) clearInterval(heartbeat);
          if (waiting.size === 0 && !hearsCancel) stop();
          else worker?.postMessage({ kind: 'cancel', call }, []);
          resolve({ kind: 'cancelled' });
        });
        worker.postMessage({ kind: 'call', call, operation, input }, options.transfer ?? []);
      });
    },
  };
}
