import type { Incoming } from '../take-picture';
import type { WantedPages } from './pdf-chooser';
import type { OpenPdf } from './pdf-document';

/** A page is painted to half a pixel: of a sheet of paper at 150 dots an inch that is less than this share. */
const PAINTED = 0.0005;

/** Pages of a PDF as picture files, painted when their turn comes. */
export async function* paintedPages(
  pdf: OpenPdf,
  { pages, dpi, part, lines }: WantedPages,
  onDoing: (words: string) => void,
): AsyncGenerator<Incoming> {
  const base = pdf.name.replace(/\.pdf$/i, '');
  for (const page of pages) {
    onDoing(`Painting page ${page} of ${pdf.name}`);
    const { makeup } = await pdf.facts(page);
    const canvas = await pdf.paint(page, dpi, part);
    const drawn = lines ? await pdf.lines(page).catch(() => undefined) : undefined;
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
    canvas.width = 0;
    const name = pdf.pages > 1 ? `${base}, page ${page}.png` : `${base}.png`;
    yield {
      file: { name, arrayBuffer: async () => (blob ? blob.arrayBuffer() : new ArrayBuffer(0)) },
      told: { dpi, kind: makeup === 'picture' ? 'drawing' : 'scan', ...(drawn ? { scaleError: PAINTED } : {}) },
      lines: drawn,
    };
  }
}
