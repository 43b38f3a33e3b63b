import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import { done, refused, type Result } from '@/core/basics';
import { MAX_MEGAPIXELS } from '@/core/pictures';
import { linesOfPage } from './pdf-lines';
import { loadPdfLibrary, PDF_FILES } from './pdf-library';
import type { PagePart } from './page-part';

/** Units of a PDF page are points of 1/72 in. */
const POINTS_PER_INCH = 72;
const MM_PER_POINT = 25.4 / POINTS_PER_INCH;

/** What a page is made of, as far as it matters here. */
export type PageMakeup = 'lines' | 'picture' | 'both' | 'text';

export interface PdfPageFacts {
  /** Size of the page as it is read, mm. */
  readonly width: number;
  readonly height: number;
  readonly makeup: PageMakeup;
}

/** A PDF that is open: its pages are looked at and made into pictures one by one. */
export interface OpenPdf {
  readonly name: string;
  readonly pages: number;
  facts(page: number): Promise<PdfPageFacts>;
  /** A page, or a part of it, at a resolution, as a canvas. */
  paint(page: number, dpi: number, part?: PagePart): Promise<HTMLCanvasElement>;
  /** Its vector lines as an SVG of paper size; undefined when it has none. */
  lines(page: number): Promise<string | undefined>;
  close(): void;
}

export const isPdf = (start: Uint8Array) => new TextDecoder('latin1').decode(start.subarray(0, 1024)).includes('%PDF-');

/** Opens a PDF. Refused when it is locked with a password, damaged, empty, or the library is not there. */
export async function openPdf(name: string, bytes: ArrayBuffer): Promise<Result<OpenPdf>> {
  const library = await loadPdfLibrary().catch(() => undefined);
  if (!library) return refused('pdf-not-there', { name });
  try {
    const document = await library.getDocument({
      data: new Uint8Array(bytes),
      ...PDF_FILES,
      isEvalSupported: false,
      stopAtErrors: false,
    }).promise;
    if (document.numPages === 0) return refused('pdf-damaged', { name });
    return done(pagesOf(name, document, library.OPS));
  } catch (problem) {
    const kind = (problem as { name?: string }).name;
    return refused(kind === 'PasswordException' ? 'pdf-locked' : 'pdf-damaged', { name });
  }
}

function pagesOf(name: string, document: PDFDocumentProxy, operators: Readonly<Record<string, number>>): OpenPdf {
  return {
    name,
    pages: document.numPages,
    async facts(number) {
      const page = await document.getPage(number);
      const { width, height } = page.getViewport({ scale: 1 });
      return { width: width * MM_PER_POINT, height: height * MM_PER_POINT, makeup: await makeupOf(page, operators) };
    },
    async lines(number) {
      return linesOfPage(await document.getPage(number), operators);
    },
    async paint(number, dpi, part = { x: 0, y: 0, width: 1, height: 1 }) {
      const page = await document.getPage(number);
      const scale = dpi / POINTS_PER_INCH;
      const whole = page.getViewport({ scale });
      const viewport = page.getViewport({
        scale,
        offsetX: -Math.round(part.x * whole.width),
        offsetY: -Math.round(part.y * whole.height),
      });
      const canvas = window.document.createElement('canvas');
      Object.assign(canvas, {
        width: Math.round(part.width * whole.width),
        height: Math.round(part.height * whole.height),
      });
      await page.render({ canvas, viewport, background: 'white' }).promise;
      page.cleanup();
      return canvas;
    },
    close: () => void document.loadingTask.destroy(),
  };
}

/** As few strokes as a frame around a picture do not make a drawing. */
const FEW_PATHS = 8;

async function makeupOf(page: PDFPageProxy, operators: Readonly<Record<string, number>>): Promise<PageMakeup> {
  const { fnArray } = await page.getOperatorList();
  const count = (...names: readonly string[]) =>
    fnArray.filter((operator) => names.some((name) => operators[name] === operator)).length;
  const pictures = count(
    'paintImageXObject',
    'paintInlineImageXObject',
    'paintImageMaskXObject',
    'paintImageXObjectRepeat',
  );
  const paths = count('constructPath');
  if (pictures > 0) return paths > FEW_PATHS ? 'both' : 'picture';
  return paths > 0 ? 'lines' : 'text';
}

/** Pixels that a page has at a resolution, in millions. */
export function megapixelsAt(
  { width, height }: PdfPageFacts,
  dpi: number,
  part: Pick<PagePart, 'width' | 'height'> = { width: 1, height: 1 },
): number {
  return ((width / 25.4) * dpi * part.width * (height / 25.4) * dpi * part.height) / 1e6;
}

export const isTooFine = (facts: PdfPageFacts, dpi: number, part?: PagePart) =>
  megapixelsAt(facts, dpi, part) > MAX_MEGAPIXELS;
