import { useCallback, useEffect, useRef, useState } from 'react';
import { useDesk } from '@/bench/use-session';
import { addSheet } from '@/core/job';
import { bringInPicture, repository } from '@/store';
import { sentenceFor } from '@/ui/words';

export interface BringIn {
  /** What is being done now, in words; undefined at rest. */
  readonly doing: string | undefined;
  /** What happened to the last files: refusals and notices, one sentence each. */
  readonly said: readonly string[];
  bring(files: readonly File[]): Promise<void>;
  stop(): void;
  hush(): void;
}

const DOING: Readonly<Record<string, string>> = { decoding: 'Decoding', packing: 'Storing', storing: 'Storing' };

/** Brings pictures into the job, one after the other; dropping and pasting anywhere on the screen does the same. */
export function useBringIn(onBrought: () => void): BringIn {
  const { jobs, session } = useDesk();
  const [doing, setDoing] = useState<string>();
  const [said, setSaid] = useState<readonly string[]>([]);
  const abort = useRef<AbortController>(undefined);

  const bring = useCallback(async (files: readonly File[]) => {
    if (files.length === 0 || abort.current) return;
    if (jobs.getState().readOnly) return setSaid([sentenceFor('read-only')]);
    const stop = new AbortController();
    abort.current = stop;
    const sentences: string[] = [];
    for (const file of files) {
      setDoing(`Bringing in ${file.name}`);
      const outcome = await bringInPicture(file, repository.pictures, { signal: stop.signal, onProgress: (_, word) => setDoing(`${DOING[word] ?? 'Working on'} ${file.name}`) });
      if (outcome.kind === 'refused') sentences.push(sentenceFor(outcome.code, outcome.detail));
      if (outcome.kind === 'cancelled') break;
      if (outcome.kind !== 'done') continue;
      for (const { sheet, view, notices } of outcome.pages) {
        sentences.push(...notices.map((code) => `${sheet.name}: ${sentenceFor(code)}`));
        jobs.getState().run(addSheet(sheet, view));
      }
      session.chooseView(outcome.pages[0]!.view.id);
      onBrought();
    }
    abort.current = undefined;
    setDoing(undefined);
    setSaid(sentences);
  }, [jobs, session, onBrought]);

  useEffect(() => {
    const stop = new AbortController();
    const options = { signal: stop.signal };
    window.addEventListener('dragover', (event) => event.preventDefault(), options);
    window.addEventListener('drop', (event) => {
      event.preventDefault();
      void bring([...(event.dataTransfer?.files ?? [])]);
    }, options);
    window.addEventListener('paste', (event) => void bring([...(event.clipboardData?.files ?? [])]), options);
    return () => stop.abort();
  }, [bring]);

  return { doing, said, bring, stop: () => abort.current?.abort(), hush: () => setSaid([]) };
}
