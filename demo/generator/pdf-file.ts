const POINTS = 72 / 25.4;

/** A page of paper, mm: strokes from its lower left corner, or a picture that fills it. */
export type PdfPage = { readonly paper: readonly [number, number] } & (
  | {
      readonly strokes: readonly {
        readonly from: readonly [number, number];
        readonly to: readonly [number, number];
        readonly mm: number;
      }[];
    }
  | { readonly jpeg: Uint8Array; readonly pixels: readonly [number, number] }
);

/** A PDF of such pages (ISO 32000-1, sections 7.5 and 8.9). */
export function encodePdf(pages: readonly PdfPage[]): Uint8Array {
  const parts: Buffer[] = [Buffer.from('%PDF-1.4\n')];
  const offsets: number[] = [];
  const put = (...content: (string | Uint8Array)[]) => {
    offsets.push(parts.reduce((sum, part) => sum + part.length, 0));
    parts.push(
      Buffer.from(`${offsets.length} 0 obj\n`),
      ...content.map((piece) => Buffer.from(piece as string)),
      Buffer.from('\nendobj\n'),
    );
  };
  const first = 3;
  put('<< /Type /Catalog /Pages 2 0 R >>');
  put(`<< /Type /Pages /Kids [${pages.map((_, i) => `${first + 3 * i} 0 R`).join(' ')}] /Count ${pages.length} >>`);
  pages.forEach((page, i) => {
    const [w, h] = page.paper.map((mm) => Number((mm * POINTS).toFixed(4)));
    const content = 'strokes' in page ? strokesOf(page.strokes) : `q ${w} 0 0 ${h} 0 0 cm /Picture Do Q`;
    put(
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 ${w} ${h}] /Contents ${first + 3 * i + 1} 0 R /Resources << ${'jpeg' in page ? `/XObject << /Picture ${first + 3 * i + 2} 0 R >>` : ''} >> >>`,
    );
    put(`<< /Length ${content.length} >>\nstream\n${content}\nendstream`);
    if ('jpeg' in page)
      put(
        `<< /Type /XObject /Subtype /Image /Width ${page.pixels[0]} /Height ${page.pixels[1]} /ColorSpace /DeviceRGB /BitsPerComponent 8 /Filter /DCTDecode /Length ${page.jpeg.length} >>\nstream\n`,
        page.jpeg,
        '\nendstream',
      );
    else put('null');
  });
  const table = offsets.map((at) => `${String(at).padStart(10, '0')} 00000 n \n`).join('');
  const start = parts.reduce((sum, part) => sum + part.length, 0);
  parts.push(
    Buffer.from(
      `xref\n0 ${offsets.length + 1}\n0000000000 65535 f \n${table}trailer\n<< /Size ${offsets.length + 1} /Root 1 0 R >>\nstartxref\n${start}\n%%EOF\n`,
    ),
  );
  return Buffer.concat(parts);
}

function strokesOf(strokes: Extract<PdfPage, { strokes: unknown }>['strokes']): string {
  const points = (values: readonly number[]) => values.map((mm) => (mm * POINTS).toFixed(3)).join(' ');
  return [
    '1 J 1 j',
    ...strokes.map(({ from, to, mm }) => `${points([mm])} w ${points(from)} m ${points(to)} l S`),
  ].join('\n');
}
