import { useCallback, useEffect } from 'react';
import { useDesk } from '@/bench/use-session';
import { isWorldFileName, referenceFormatOf } from '@/store';
import { sentenceFor } from '@/ui/words';
import { takeBegunWith } from './begun-with';
import { baseOf, bringReferenceInto, readWorldFiles } from './bring-reference';
import { paintedPages } from './pdf/painted-pages';
import type { WantedPages } from './pdf/pdf-chooser';
import { takePicture, type Incoming } from './take-picture';
import { useDropAndPaste } from './use-drop-and-paste';
import { useOneAtATime, type Work } from './use-one-at-a-time';
import { useOpeners, type Openers } from './use-openers';

export interface BringIn extends Pick<Openers, 'pdf' | 'film' | 'leavePdf' | 'leaveFilm'> {
  /** What is being done now, in words; undefined at rest. */
  readonly doing: string | undefined;
  /** What happened to the last files: refusals and notices, one sentence each. */
  readonly said: readonly string[];
  bring(files: readonly File[]): Promise<void>;
  /** Pictures that were made here: stills, scans, painted pages. */
  take(incoming: AsyncIterable<Incoming> | Iterable<Incoming>): Promise<void>;
  /** Existing geometry, from its bytes. */
  bringReference(name: string, bytes: ArrayBuffer): Promise<void>;
  bringPages(wanted: WantedPages): Promise<void>;
  stop(): void;
  hush(): void;
}

type Pictures = AsyncIterable<Incoming> | Iterable<Incoming>;

/**
 * Brings files into the job, one after the other; dropping and pasting anywhere on the screen does the same. Where all that the job was begun with is refused, nothing was done in it and nothing else is on its way, `onNothing` is told what
 * is to be said.
 */
export function useBringIn(onBrought: () => void, onNothing: (words: string) => void): BringIn {
  const { jobs } = useDesk();
  const openers = useOpeners();
  const { doing, setDoing, said, hush, during, stop } = useOneAtATime();
  const takeAll = useTakeAll(onBrought);
  const bringAll = useBringAll(takeAll, openers);
  const bring = useCallback((files: readonly File[]) => during((work) => bringAll(files, work)), [during, bringAll]);
  useDropAndPaste(bring);
  // What the job was begun with on the first screen comes in first.
  useEffect(() => {
    const files = takeBegunWith(jobs.getState().job.id);
    if (files.length === 0) return;
    void during(async (work) => {
      await bringAll(files, work);
      const isUntouched = jobs.getState().history.entries.length === 0 && work.isLast();
      if (isUntouched && work.sentences.length >= files.length) onNothing(work.sentences.join(' '));
    });
  }, [jobs, during, bringAll, onNothing]);

  const take = (incoming: Pictures) => during((work) => takeAll(incoming, work));
  const bringPages = async (wanted: WantedPages) => {
    const { pdf, hidePdf } = openers;
    if (!pdf) return;
    hidePdf();
    await take(paintedPages(pdf, wanted, setDoing));
    pdf.close();
  };
  const bringReference = (name: string, bytes: ArrayBuffer) =>
    during((work) => bringReferenceInto(jobs, name, bytes, work));
  return { ...openers, doing, said, bring, take, bringReference, bringPages, stop, hush };
}

/** Takes pictures in turn until somebody stops it. */
function useTakeAll(onBrought: () => void) {
  const { jobs, session } = useDesk();
  return useCallback(
    async (incoming: Pictures, work: Work) => {
      if (jobs.getState().readOnly) return void work.sentences.push(sentenceFor('read-only'));
      for await (const one of incoming) {
        const view = await takePicture(one, jobs, work);
        if (view === 'stopped') return;
        if (!view) continue;
        session.chooseView(view.id);
        onBrought();
      }
    },
    [jobs, session, onBrought],
  );
}

/** Brings files in: existing geometry at once, what has to be chosen from when it was, pictures in turn. */
function useBringAll(takeAll: ReturnType<typeof useTakeAll>, { open }: Openers) {
  const { jobs } = useDesk();
  return useCallback(
    async (files: readonly File[], work: Work) => {
      const pictures: Incoming[] = [];
      const worlds = await readWorldFiles(files, work.sentences);
      for (const file of files.filter(({ name }) => !isWorldFileName(name))) {
        if (work.signal.aborted) return;
        if (referenceFormatOf(file.name)) {
          await bringReferenceInto(jobs, file.name, await file.arrayBuffer(), work);
          continue;
        }
        work.onDoing(`Opening ${file.name}`);
        const opened = await open(file);
        if (!opened.ok) work.sentences.push(sentenceFor(opened.code, opened.detail));
        else if (!opened.value) pictures.push({ file, place: worlds.get(baseOf(file.name)) });
      }
      if (pictures.length > 0) await takeAll(pictures, work);
    },
    [jobs, takeAll, open],
  );
}
