import type * as PdfJs from 'pdfjs-dist';

type Library = typeof PdfJs;
const FOLDER = '/vendor/pdf/';
let loading: Promise<Library> | undefined;

/** The PDF library, fetched as a file of its own when a PDF is first chosen. Rejects when it cannot be fetched. */
export function loadPdfLibrary(): Promise<Library> {
  loading ??= new Promise<Library>((resolve, reject) => {
    const script = document.createElement('script');
    script.type = 'module';
    script.src = `${FOLDER}pdf.min.mjs`;
    script.onload = () => {
      const library = (globalThis as unknown as { pdfjsLib: Library }).pdfjsLib;
      library.GlobalWorkerOptions.workerSrc = `${FOLDER}pdf.worker.min.mjs`;
      resolve(library);
    };
    script.onerror = () => {
      script.remove();
      loading = undefined;
      reject(new Error('pdf library'));
    };
    document.head.append(script);
  });
  return loading;
}

/** Where the library finds fonts and decoders that a document leaves out. */
export const PDF_FILES = {
  cMapUrl: `${FOLDER}cmaps/`,
  cMapPacked: true,
  standardFontDataUrl: `${FOLDER}standard_fonts/`,
  wasmUrl: `${FOLDER}wasm/`,
} as const;
