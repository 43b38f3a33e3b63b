import { useCallback, useEffect, useRef, useState } from 'react';
import { useDesk } from '@/bench/use-session';
import { isWorldFileName, referenceFormatOf } from '@/store';
import { sentenceFor } from '@/ui/words';
import { takeBegunWith } from './begun-with';
import { baseOf, bringReferenceInto, readWorldFiles } from './bring-reference';
import { paintedPages } from './pdf/painted-pages';
import type { WantedPages } from './pdf/pdf-chooser';
import { takePicture, type Incoming } from './take-picture';
import { useDropAndPaste } from './use-drop-and-paste';
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

/** Brings pictures into the job, one after the other; dropping and pasting anywhere on the screen does the same. */
export function useBringIn(onBrought: () => void): BringIn {
  const { jobs } = useDesk();
  const [said, setSaid] = useState<readonly string[]>([]);
  const openers = useOpeners();
  const { doing, setDoing, take, stop } = useTaking(onBrought, setSaid);
  const bring = useBringing({ take, openers, setDoing, setSaid });
  useDropAndPaste(bring);
  // What the job was begun with on the first screen comes in first.
  useEffect(() => {
    const files = takeBegunWith(jobs.getState().job.id);
    if (files.length > 0) void bring(files);
  }, [jobs, bring]);

  const bringPages = async (wanted: WantedPages) => {
    const { pdf, hidePdf } = openers;
    if (!pdf) return;
    hidePdf();
    await take(paintedPages(pdf, wanted, setDoing));
    pdf.close();
  };
  const bringReference = useCallback(
    async (name: string, bytes: ArrayBuffer) => {
      const sentences: string[] = [];
      await bringReferenceInto(jobs, name, bytes, { sentences, onDoing: setDoing });
      setSaid(sentences);
    },
    [jobs, setDoing],
  );
  return { ...openers, doing, said, bring, take, bringReference, bringPages, stop, hush: () => setSaid([]) };
}

type Pictures = AsyncIterable<Incoming> | Iterable<Incoming>;
type Say = (sentences: readonly string[]) => void;

interface Taking {
  readonly doing: string | undefined;
  setDoing(doing: string | undefined): void;
  /** Takes pictures in turn until somebody stops it; `sentences` gathers what is to be said. */
  take(incoming: Pictures, sentences?: string[]): Promise<void>;
  stop(): void;
}

function useTaking(onBrought: () => void, say: Say): Taking {
  const { jobs, session } = useDesk();
  const [doing, setDoing] = useState<string>();
  const abort = useRef<AbortController>(undefined);
  const take = useCallback(
    async (incoming: Pictures, sentences: string[] = []) => {
      if (abort.current) return;
      if (jobs.getState().readOnly) return say([sentenceFor('read-only')]);
      const { signal } = (abort.current = new AbortController());
      for await (const one of incoming) {
        const view = await takePicture(one, jobs, { sentences, onDoing: setDoing }, signal);
        if (view === 'stopped') break;
        if (!view) continue;
        session.chooseView(view.id);
        onBrought();
      }
      abort.current = undefined;
      setDoing(undefined);
      say(sentences);
    },
    [jobs, session, onBrought, say],
  );
  return { doing, setDoing, take, stop: () => abort.current?.abort() };
}

/** Brings files in: existing geometry at once, what has to be chosen from when it was, pictures in turn. */
function useBringing({
  take,
  openers: { open },
  setDoing,
  setSaid,
}: Pick<Taking, 'take' | 'setDoing'> & { openers: Openers; setSaid: Say }): BringIn['bring'] {
  const { jobs } = useDesk();
  return useCallback(
    async (files: readonly File[]) => {
      const sentences: string[] = [];
      const pictures: Incoming[] = [];
      const worlds = await readWorldFiles(files, sentences);
      for (const file of files.filter(({ name }) => !isWorldFileName(name))) {
        if (referenceFormatOf(file.name)) {
          await bringReferenceInto(jobs, file.name, await file.arrayBuffer(), { sentences, onDoing: setDoing });
          continue;
        }
        setDoing(`Opening ${file.name}`);
        const opened = await open(file);
        setDoing(undefined);
        if (!opened.ok) sentences.push(sentenceFor(opened.code, opened.detail));
        else if (!opened.value) pictures.push({ file, place: worlds.get(baseOf(file.name)) });
      }
      if (pictures.length > 0) await take(pictures, sentences);
      else if (sentences.length > 0) setSaid(sentences);
    },
    [jobs, take, open, setDoing, setSaid],
  );
}
