import { useCallback, useRef, useState } from 'react';

/** What is at work: where it says what it does and what came of it, and whether somebody stopped it. */
export interface Work {
  readonly signal: AbortSignal;
  /** Gathers what is to be said when it is through. */
  readonly sentences: string[];
  /** Whether nothing waits behind it. */
  isLast(): boolean;
  onDoing(words: string | undefined): void;
}

export interface OneAtATime {
  /** What is being done now, in words; undefined at rest. */
  readonly doing: string | undefined;
  setDoing(doing: string | undefined): void;
  /** What came of the last, one sentence each. */
  readonly said: readonly string[];
  hush(): void;
  /** Does a work when those before it are through. */
  during(work: (at: Work) => Promise<void>): Promise<void>;
  /** Stops what is at work, and all that waits for it. */
  stop(): void;
}

/** Long works that change one thing: each waits for those before it, and any of them can be stopped. */
export function useOneAtATime(): OneAtATime {
  const [doing, setDoing] = useState<string>();
  const [said, setSaid] = useState<readonly string[]>([]);
  const last = useRef(Promise.resolve());
  const waiting = useRef(new Set<AbortController>());
  const during = useCallback((work: (at: Work) => Promise<void>) => {
    const stop = new AbortController();
    waiting.current.add(stop);
    const next = async () => {
      const sentences: string[] = [];
      try {
        if (!stop.signal.aborted) {
          const isLast = () => waiting.current.size === 1;
          await work({ signal: stop.signal, sentences, isLast, onDoing: setDoing });
        }
      } finally {
        waiting.current.delete(stop);
        setDoing(undefined);
        if (sentences.length > 0) setSaid(sentences);
      }
    };
    // One that broke does not hold up those behind it.
    return (last.current = last.current.then(next, next));
  }, []);
  const stop = useCallback(() => waiting.current.forEach((one) => one.abort()), []);
  return { doing, setDoing, said, hush: () => setSaid([]), during, stop };
}
