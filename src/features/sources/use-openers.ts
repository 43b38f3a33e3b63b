import { useCallback, useState } from 'react';
import { done, type Result } from '@/core/basics';
import { isFilm, openFilm, type OpenFilm } from './film/film';
import { isPdf, openPdf, type OpenPdf } from './pdf/pdf-document';

export interface Openers {
  /** A PDF whose pages, a film whose stills are to be chosen. */
  readonly pdf: OpenPdf | undefined;
  readonly film: OpenFilm | undefined;
  /** Opens what has to be chosen from; false where a file is a picture by itself, refused where it cannot be opened. */
  open(file: File): Promise<Result<boolean>>;
  /** Hides the choice; the PDF stays open until its pages are painted. */
  hidePdf(): void;
  leavePdf(): void;
  leaveFilm(): void;
}

/** Files that pictures are chosen from before any comes in. */
export function useOpeners(): Openers {
  const [pdf, setPdf] = useState<OpenPdf>();
  const [film, setFilm] = useState<OpenFilm>();
  const open = useCallback(async (file: File): Promise<Result<boolean>> => {
    if (isFilm(file)) {
      const opened = await openFilm(file);
      if (!opened.ok) return opened;
      setFilm(opened.value);
      return done(true);
    }
    const start = await file
      .slice(0, 1024)
      .arrayBuffer()
      .catch(() => new ArrayBuffer(0));
    if (!isPdf(new Uint8Array(start))) return done(false);
    const opened = await openPdf(file.name, await file.arrayBuffer());
    if (!opened.ok) return opened;
    setPdf(opened.value);
    return done(true);
  }, []);
  return {
    pdf,
    film,
    open,
    hidePdf: () => setPdf(undefined),
    leavePdf: () => (pdf?.close(), setPdf(undefined)),
    leaveFilm: () => (film?.close(), setFilm(undefined)),
  };
}
