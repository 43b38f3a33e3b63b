import { useCallback, useEffect, useRef, useState } from 'react';
import { useDesk } from '@/bench/use-session';
import { placedView, type MapPlace } from '@/core/derive';
import { addPlacedSheet, addSheet } from '@/core/job';
import { bringInPicture, isWorldFileName, referenceFormatOf, repository, type BringInOptions } from '@/store';
import { sentenceFor } from '@/ui/words';
import { baseOf, bringReferenceInto, readWorldFiles } from './bring-reference';
import { isPdf, openPdf, type OpenPdf } from './pdf/pdf-document';

export interface BringIn {
  /** What is being done now, in words; undefined at rest. */
  readonly doing: string | undefined;
  /** What happened to the last files: refusals and notices, one sentence each. */
  readonly said: readonly string[];
  /** A PDF whose pages are to be chosen. */
  readonly pdf: OpenPdf | undefined;
  bring(files: readonly File[]): Promise<void>;
  /** Pictures that were made here: stills, scans, painted pages. */
  take(incoming: AsyncIterable<Incoming> | Iterable<Incoming>): Promise<void>;
  /** Existing geometry, from its bytes. */
  bringReference(name: string, bytes: ArrayBuffer): Promise<void>;
  bringPages(pages: readonly number[], dpi: number): Promise<void>;
  leavePdf(): void;
  stop(): void;
  hush(): void;
}

const DOING: Readonly<Record<string, string>> = { decoding: 'Decoding', packing: 'Storing', storing: 'Storing' };

/** A file on its way in; what is known of it besides its own tags. */
export interface Incoming {
  readonly file: Pick<File, 'name' | 'arrayBuffer'>;
  readonly told?: BringInOptions['told'];
  /** Where it lies on a map. */
  readonly place?: MapPlace | undefined;
}

/** Brings pictures into the job, one after the other; dropping and pasting anywhere on the screen does the same. */
export function useBringIn(onBrought: () => void): BringIn {
  const { jobs, session } = useDesk();
  const [doing, setDoing] = useState<string>();
  const [said, setSaid] = useState<readonly string[]>([]);
  const [pdf, setPdf] = useState<OpenPdf>();
  const abort = useRef<AbortController>(undefined);

  /** Takes files in turn until somebody stops it; `sentences` gathers what is to be said. */
  const take = useCallback(async (incoming: AsyncIterable<Incoming> | Iterable<Incoming>, sentences: string[]) => {
    if (abort.current) return;
    if (jobs.getState().readOnly) return setSaid([sentenceFor('read-only')]);
    const stop = new AbortController();
    abort.current = stop;
    for await (const { file, told, place } of incoming) {
      setDoing(`Bringing in ${file.name}`);
      const outcome = await bringInPicture(file, repository.pictures, { signal: stop.signal, ...(told ? { told } : {}), onProgress: (_, word) => setDoing(`${DOING[word] ?? 'Working on'} ${file.name}`) });
      if (outcome.kind === 'refused') sentences.push(sentenceFor(outcome.code, outcome.detail));
      if (outcome.kind === 'cancelled' || stop.signal.aborted) break;
      if (outcome.kind !== 'done') continue;
      for (const { sheet, view, notices } of outcome.pages) {
        sentences.push(...notices.map((code) => `${sheet.name}: ${sentenceFor(code)}`));
        const placed = place && placedView(view, sheet, place, jobs.getState().job.site);
        if (placed && !placed.ok) sentences.push(`${sheet.name}: ${sentenceFor(placed.code, placed.detail)}`);
        jobs.getState().run(placed?.ok ? addPlacedSheet(sheet, placed.value.view, placed.value.site) : addSheet(sheet, view));
      }
      session.chooseView(outcome.pages[0]!.view.id);
      onBrought();
    }
    abort.current = undefined;
    setDoing(undefined);
    setSaid(sentences);
  }, [jobs, session, onBrought]);

  const addReferenceFrom = useCallback((name: string, bytes: ArrayBuffer, sentences: string[]) => bringReferenceInto(jobs, name, bytes, { sentences, onDoing: setDoing }), [jobs]);

  const bring = useCallback(async (files: readonly File[]) => {
    const sentences: string[] = [];
    const pictures: Incoming[] = [];
    const worlds = await readWorldFiles(files, sentences);
    for (const file of files.filter(({ name }) => !isWorldFileName(name))) {
      if (referenceFormatOf(file.name)) {
        await addReferenceFrom(file.name, await file.arrayBuffer(), sentences);
        continue;
      }
      const start = await file.slice(0, 1024).arrayBuffer().catch(() => new ArrayBuffer(0));
      if (!isPdf(new Uint8Array(start))) pictures.push({ file, place: worlds.get(baseOf(file.name)) });
      else {
        setDoing(`Opening ${file.name}`);
        const opened = await openPdf(file.name, await file.arrayBuffer());
        setDoing(undefined);
        if (opened.ok) setPdf(opened.value);
        else sentences.push(sentenceFor(opened.code, opened.detail));
      }
    }
    if (pictures.length > 0) await take(pictures, sentences);
    else if (sentences.length > 0) setSaid(sentences);
  }, [take, addReferenceFrom]);

  const leavePdf = () => {
    pdf?.close();
    setPdf(undefined);
  };
  const bringPages = async (pages: readonly number[], dpi: number) => {
    if (!pdf) return;
    setPdf(undefined);
    await take(paintedPages(pdf, pages, dpi, setDoing), []);
    pdf.close();
  };

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

  const takeMade = useCallback((incoming: AsyncIterable<Incoming> | Iterable<Incoming>) => take(incoming, []), [take]);
  const bringReference = useCallback(async (name: string, bytes: ArrayBuffer) => {
    const sentences: string[] = [];
    await addReferenceFrom(name, bytes, sentences);
    setSaid(sentences);
  }, [addReferenceFrom]);

  return { doing, said, pdf, bring, take: takeMade, bringReference, bringPages, leavePdf, stop: () => abort.current?.abort(), hush: () => setSaid([]) };
}

/** Pages of a PDF as picture files, painted when their turn comes. */
async function* paintedPages(pdf: OpenPdf, pages: readonly number[], dpi: number, onDoing: (words: string) => void): AsyncGenerator<Incoming> {
  const base = pdf.name.replace(/\.pdf$/i, '');
  for (const page of pages) {
    onDoing(`Painting page ${page} of ${pdf.name}`);
    const { makeup } = await pdf.facts(page);
    const canvas = await pdf.paint(page, dpi);
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
    canvas.width = 0;
    const name = pdf.pages > 1 ? `${base}, page ${page}.png` : `${base}.png`;
    yield { file: { name, arrayBuffer: async () => (blob ? blob.arrayBuffer() : new ArrayBuffer(0)) }, told: { dpi, kind: makeup === 'picture' ? 'drawing' : 'scan' } };
  }
}
