import type { FromWorker, OperationTypes, Outcome, ToWorker } from './protocol';

export interface CallOptions {
  readonly signal?: AbortSignal;
  readonly transfer?: Transferable[];
  onProgress?(done: number, word: string): void;
}

export interface WorkerClient<T extends OperationTypes> {
  call<K extends keyof T & string>(
    operation: K,
    input: T[K]['input'],
    options?: CallOptions,
  ): Promise<Outcome<T[K]['output']>>;
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
/** A worker that decodes a large picture may be silent for long; one that is silent longer than this is taken as dead, where its end cannot be seen. */
const SILENCE_MS = 60_000;

/** The worker of a client while it lives, and the calls that wait for it. */
class Connection {
  private worker: WorkerLike | undefined;
  private heartbeat: ReturnType<typeof setInterval> | undefined;
  private heardAt = 0;
  private nextCall = 1;
  private readonly waiting = new Map<number, Waiting>();

  constructor(
    private readonly spawn: () => WorkerLike,
    private readonly hearsCancel: boolean,
    private readonly whenFree: WhenFree,
  ) {}

  call(operation: string, input: unknown, options: CallOptions): Promise<Outcome<never>> {
    if (options.signal?.aborted) return Promise.resolve({ kind: 'cancelled' });
    const call = this.nextCall++;
    return new Promise((resolve) => {
      const worker = this.begin();
      this.waiting.set(call, { resolve, options });
      options.signal?.addEventListener('abort', () => this.cancel(call));
      worker.postMessage({ kind: 'call', call, operation, input }, options.transfer ?? []);
    });
  }

  private begin(): WorkerLike {
    const worker = (this.worker ??= this.start());
    if (this.waiting.size === 0) {
      this.heardAt = Date.now();
      this.heartbeat = setInterval(() => this.beat(), HEARTBEAT_MS);
    }
    return worker;
  }

  private start(): WorkerLike {
    const started = this.spawn();
    const ended = () => started === this.worker && this.stop();
    started.onmessage = (event) =>
      event.data.kind === 'alive' ? void this.whenFree(event.data.lock).then(ended) : this.hear(event.data);
    started.onerror = ended;
    return started;
  }

  /** Takes a call off those that wait; undefined where it does not any more. */
  private take(call: number): Waiting | undefined {
    const taken = this.waiting.get(call);
    this.waiting.delete(call);
    if (this.waiting.size === 0) clearInterval(this.heartbeat);
    return taken;
  }

  private cancel(call: number): void {
    const taken = this.take(call);
    if (!taken) return;
    if (this.waiting.size === 0 && !this.hearsCancel) this.stop();
    else this.worker?.postMessage({ kind: 'cancel', call }, []);
    taken.resolve({ kind: 'cancelled' });
  }

  private hear(data: Exclude<FromWorker, { kind: 'alive' }>): void {
    this.heardAt = Date.now();
    if (data.kind === 'pong') return;
    if (data.kind === 'progress') return this.waiting.get(data.call)?.options.onProgress?.(data.done, data.word);
    this.take(data.call)?.resolve(data.outcome as Outcome<never>);
  }

  private beat(): void {
    if (Date.now() - this.heardAt > SILENCE_MS) this.stop();
    else this.worker?.postMessage({ kind: 'ping' }, []);
  }

  /** Ends the worker; every call that waits has failed. */
  private stop(): void {
    this.worker?.terminate();
    this.worker = undefined;
    for (const call of [...this.waiting.keys()])
      this.take(call)?.resolve({ kind: 'failed', code: 'worker-died', detail: {} });
  }
}

/** Comes about when nobody holds a lock any more; where there are no locks, never. */
type WhenFree = (lock: string) => Promise<void>;

const whenLockIsFree: WhenFree = (lock) =>
  typeof navigator !== 'undefined' && navigator.locks
    ? navigator.locks.request(lock, () => undefined)
    : new Promise<void>(() => undefined);

/**
 * A typed client. The worker starts with the first call. When it dies or falls silent, every call that waits fails with
 * `worker-died`, and the next call starts a new one. A worker that cannot hear of a cancelled call while it works is ended when nothing else waits for it.
 */
export function createWorkerClient<T extends OperationTypes>(
  spawn: () => WorkerLike,
  { hearsCancel = true, whenFree = whenLockIsFree } = {},
): WorkerClient<T> {
  const connection = new Connection(spawn, hearsCancel, whenFree);
  return { call: (operation, input, options = {}) => connection.call(operation, input, options) };
}
