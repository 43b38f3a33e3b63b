import { useCallback, useEffect, useRef, useState } from 'react';
import { useDesk } from '@/bench/use-session';
import { placedView, type MapPlace } from '@/core/derive';
import { addPlacedSheet, addSheet, type Sheet, type View } from '@/core/job';
import { resolutionEvidence } from '@/features/calibrate/resolution';
import { bringInPicture, isWorldFileName, newId, referenceFormatOf, repository, type BringInOptions } from '@/store';
import { sentenceFor } from '@/ui/words';
import { baseOf, bringReferenceInto, readWorldFiles } from './bring-reference';
import type { WantedPages } from './pdf/pdf-chooser';
import type { OpenPdf } from './pdf/pdf-document';
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

const DOING: Readonly<Record<string, string>> = { decoding: 'Decoding', packing: 'Storing', storing: 'Storing' };

/** A file on its way in; what is known of it besides its own tags. */
export interface Incoming {
  readonly file: Pick<File, 'name' | 'arrayBuffer'>;
  readonly told?: BringInOptions['told'];
  /** Where it lies on a map. */
  readonly place?: MapPlace | undefined;
  /** Vector lines of the page it was painted from, as an SVG of the same size. */
  readonly lines?: string | undefined;
}

/** Brings pictures into the job, one after the other; dropping and pasting anywhere on the screen does the same. */
export function useBringIn(onBrought: () => void): BringIn {
  const { jobs, session } = useDesk();
  const [doing, setDoing] = useState<string>();
  const [said, setSaid] = useState<readonly string[]>([]);
  const openers = useOpeners();
  const { open } = openers;
  const abort = useRef<AbortController>(undefined);

  /** Takes files in turn until somebody stops it; `sentences` gathers what is to be said. */
  const take = useCallback(async (incoming: AsyncIterable<Incoming> | Iterable<Incoming>, sentences: string[]) => {
    if (abort.current) return;
    if (jobs.getState().readOnly) return setSaid([sentenceFor('read-only')]);
    const stop = new AbortController();
    abort.current = stop;
    for await (const { file, told, place, lines } of incoming) {
      setDoing(`Bringing in ${file.name}`);
      const outcome = await bringInPicture(file, repository.pictures, { signal: stop.signal, ...(told ? { told } : {}), onProgress: (_, word) => setDoing(`${DOING[word] ?? 'Working on'} ${file.name}`) });
      if (outcome.kind === 'refused') sentences.push(sentenceFor(outcome.code, outcome.detail));
      if (outcome.kind === 'cancelled' || stop.signal.aborted) break;
      if (outcome.kind !== 'done') continue;
      for (const { sheet, view: bare, notices } of outcome.pages) {
        const view = { ...scaledByScanner(bare, sheet, told), ...(lines ? { plane: sheet.id } : {}) };
        sentences.push(...notices.map((code) => `${sheet.name}: ${sentenceFor(code)}`));
        const placed = place && placedView(view, sheet, place, jobs.getState().job.site);
        if (placed && !placed.ok) sentences.push(`${sheet.name}: ${sentenceFor(placed.code, placed.detail)}`);
        jobs.getState().run(placed?.ok ? addPlacedSheet(sheet, placed.value.view, placed.value.site) : addSheet(sheet, view));
      }
      const first = outcome.pages[0]!;
      if (lines) await bringReferenceInto(jobs, `${first.sheet.name}, lines.svg`, new TextEncoder().encode(lines).buffer as ArrayBuffer, { sentences, onDoing: setDoing }, first.sheet.id);
      session.chooseView(first.view.id);
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
      setDoing(`Opening ${file.name}`);
      const opened = await open(file);
      setDoing(undefined);
      if (!opened.ok) sentences.push(sentenceFor(opened.code, opened.detail));
      else if (!opened.value) pictures.push({ file, place: worlds.get(baseOf(file.name)) });
    }
    if (pictures.length > 0) await take(pictures, sentences);
    else if (sentences.length > 0) setSaid(sentences);
  }, [take, open, addReferenceFrom]);

  const bringPages = async (wanted: WantedPages) => {
    const { pdf, hidePdf } = openers;
    if (!pdf) return;
    hidePdf();
    await take(paintedPages(pdf, wanted, setDoing), []);
    pdf.close();
  };

  useDropAndPaste(bring);

  const takeMade = useCallback((incoming: AsyncIterable<Incoming> | Iterable<Incoming>) => take(incoming, []), [take]);
  const bringReference = useCallback(async (name: string, bytes: ArrayBuffer) => {
    const sentences: string[] = [];
    await addReferenceFrom(name, bytes, sentences);
    setSaid(sentences);
  }, [addReferenceFrom]);

  return { ...openers, doing, said, bring, take: takeMade, bringReference, bringPages, stop: () => abort.current?.abort(), hush: () => setSaid([]) };
}

/** What is dropped or pasted anywhere on the screen comes in. */
function useDropAndPaste(bring: BringIn['bring']): void {
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
}

/** A picture whose resolution a device answers for is to scale when it arrives. Limits count as half their width over the root of three. */
function scaledByScanner(view: View, sheet: Sheet, told: BringInOptions['told']): View {
  if (told?.scaleError === undefined || told.dpi === undefined) return view;
  const { evidence, points } = resolutionEvidence(sheet, told.dpi, 1, newId, told.scaleError / Math.sqrt(3));
  return { ...view, evidence: [evidence], points, locked: true };
}

/** A page is painted to half a pixel: of a sheet of paper at 150 dots an inch that is less than this share. */
const PAINTED = 0.0005;

/** Pages of a PDF as picture files, painted when their turn comes. */
async function* paintedPages(pdf: OpenPdf, { pages, dpi, part, lines }: WantedPages, onDoing: (words: string) => void): AsyncGenerator<Incoming> {
  const base = pdf.name.replace(/\.pdf$/i, '');
  for (const page of pages) {
    onDoing(`Painting page ${page} of ${pdf.name}`);
    const { makeup } = await pdf.facts(page);
    const canvas = await pdf.paint(page, dpi, part);
    const drawn = lines ? await pdf.lines(page).catch(() => undefined) : undefined;
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
    canvas.width = 0;
    const name = pdf.pages > 1 ? `${base}, page ${page}.png` : `${base}.png`;
    yield { file: { name, arrayBuffer: async () => (blob ? blob.arrayBuffer() : new ArrayBuffer(0)) }, told: { dpi, kind: makeup === 'picture' ? 'drawing' : 'scan', ...(drawn ? { scaleError: PAINTED } : {}) }, lines: drawn };
  }
}
