import { createWorkerClient, type WorkerLike } from './client';
import type { FromWorker, ToWorker } from './protocol';

type Echo = { readonly echo: { readonly input: string; readonly output: string } };

/** A worker that a test drives by hand. */
function handDriven(options?: { readonly hearsCancel?: boolean; readonly whenFree?: (lock: string) => Promise<void> }) {
  const heard: ToWorker[] = [];
  const workers: WorkerLike[] = [];
  const spawn = (): WorkerLike => {
    const worker: WorkerLike = {
      postMessage: (message) => void heard.push(message),
      terminate: jest.fn(),
      onmessage: null,
      onerror: null,
    };
    workers.push(worker);
    return worker;
  };
  const answer = (message: FromWorker) => workers.at(-1)!.onmessage!({ data: message } as MessageEvent<FromWorker>);
  return { client: createWorkerClient<Echo>(spawn, options), heard, workers, answer };
}

describe('a worker client', () => {
  it('starts with the first call and gives back what the worker answers', async () => {
    const { client, workers, heard, answer } = handDriven();
    expect(workers).toHaveLength(0);
    const words: string[] = [];
    const call = client.call('echo', 'a', { onProgress: (_, word) => words.push(word) });
    answer({ kind: 'progress', call: 1, done: 0.5, word: 'halfway' });
    answer({ kind: 'outcome', call: 1, outcome: { kind: 'done', value: 'A' } });
    expect(await call).toEqual({ kind: 'done', value: 'A' });
    expect(words).toEqual(['halfway']);
    expect(heard[0]).toEqual({ kind: 'call', call: 1, operation: 'echo', input: 'a' });
  });

  it('cancels at once, tells the worker, and heeds no late answer', async () => {
    const { client, heard, answer } = handDriven();
    const stop = new AbortController();
    const call = client.call('echo', 'a', { signal: stop.signal });
    stop.abort();
    answer({ kind: 'outcome', call: 1, outcome: { kind: 'done', value: 'late' } });
    expect(await call).toEqual({ kind: 'cancelled' });
    expect(heard.at(-1)).toEqual({ kind: 'cancel', call: 1 });
    expect(await client.call('echo', 'b', { signal: stop.signal })).toEqual({ kind: 'cancelled' });
  });

  it('ends a worker that cannot hear, when what it alone works on is cancelled', async () => {
    const { client, workers } = handDriven({ hearsCancel: false });
    const [stop, other] = [new AbortController(), new AbortController()];
    const calls = [
      client.call('echo', 'a', { signal: stop.signal }),
      client.call('echo', 'b', { signal: other.signal }),
    ];
    stop.abort();
    expect(workers[0]!.terminate).not.toHaveBeenCalled();
    other.abort();
    expect(workers[0]!.terminate).toHaveBeenCalled();
    for (const call of calls) expect(await call).toEqual({ kind: 'cancelled' });
    const next = client.call('echo', 'c');
    expect(workers).toHaveLength(2);
    workers[1]!.onerror!({} as ErrorEvent);
    expect(await next).toMatchObject({ code: 'worker-died' });
  });

  it('fails everything that waits when the worker dies, and starts a new one with the next call', async () => {
    const { client, workers, answer } = handDriven();
    const calls = [client.call('echo', 'a'), client.call('echo', 'b')];
    workers[0]!.onerror!({} as ErrorEvent);
    for (const call of calls) expect(await call).toEqual({ kind: 'failed', code: 'worker-died', detail: {} });
    const next = client.call('echo', 'c');
    expect(workers).toHaveLength(2);
    answer({ kind: 'outcome', call: 3, outcome: { kind: 'done', value: 'C' } });
    expect(await next).toEqual({ kind: 'done', value: 'C' });
  });

  it('sees at once that a worker died, by the lock that it held, also while it had nothing to do', async () => {
    const free = new Map<string, () => void>();
    const { client, workers, answer } = handDriven({
      whenFree: (lock) => new Promise((resolve) => free.set(lock, resolve)),
    });
    const first = client.call('echo', 'a');
    answer({ kind: 'alive', lock: 'one' });
    free.get('one')!();
    expect(await first).toMatchObject({ code: 'worker-died' });
    const second = client.call('echo', 'b');
    answer({ kind: 'alive', lock: 'two' });
    answer({ kind: 'outcome', call: 2, outcome: { kind: 'done', value: 'B' } });
    expect(await second).toEqual({ kind: 'done', value: 'B' });
    free.get('two')!();
    await Promise.resolve();
    const third = client.call('echo', 'c');
    expect(workers).toHaveLength(3);
    answer({ kind: 'outcome', call: 3, outcome: { kind: 'done', value: 'C' } });
    expect(await third).toEqual({ kind: 'done', value: 'C' });
  });

  it('takes a worker that falls silent as dead', async () => {
    jest.useFakeTimers();
    const { client, workers, heard } = handDriven();
    const call = client.call('echo', 'a');
    jest.advanceTimersByTime(4000);
    expect(heard.at(-1)).toEqual({ kind: 'ping' });
    jest.advanceTimersByTime(64_000);
    expect(await call).toMatchObject({ code: 'worker-died' });
    expect(workers[0]!.terminate).toHaveBeenCalled();
    jest.useRealTimers();
  });
});
