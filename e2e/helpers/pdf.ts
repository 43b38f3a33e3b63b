import type { Desk } from './desk';

const POINTS_PER_MM = 72 / 25.4;

/** A page of paper: its size, and a content stream in points. */
export interface PdfPage {
  readonly mm: readonly [number, number];
  readonly content: string;
}

/** A PDF written by hand (ISO 32000-1, section 7.5), so that what is on it is known to the last digit. */
export function pdfOf(pages: readonly PdfPage[]): Buffer {
  const kids = pages.map((_, i) => `${3 + 2 * i} 0 R`).join(' ');
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    `<< /Type /Pages /Kids [${kids}] /Count ${pages.length} >>`,
    ...pages.flatMap(({ mm: [width, height], content }, i) => [
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 ${width * POINTS_PER_MM} ${height * POINTS_PER_MM}] /Contents ${4 + 2 * i} 0 R /Resources << >> >>`,
      `<< /Length ${content.length} >>\nstream\n${content}\nendstream`,
    ]),
  ];
  let text = '%PDF-1.4\n';
  const offsets = objects.map((object, i) => {
    const at = text.length;
    text += `${i + 1} 0 obj\n${object}\nendobj\n`;
    return at;
  });
  const table = offsets.map((at) => `${String(at).padStart(10, '0')} 00000 n \n`).join('');
  return Buffer.from(
    `${text}xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${table}trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${text.length}\n%%EOF\n`,
  );
}

/** A stroke between two places of the paper, mm from its lower left corner. */
export function stroke([ax, ay]: readonly [number, number], [bx, by]: readonly [number, number], thick = 0.35): string {
  const [x0, y0, x1, y1] = [ax, ay, bx, by].map((value) => (value * POINTS_PER_MM).toFixed(4));
  return `${(thick * POINTS_PER_MM).toFixed(3)} w ${x0} ${y0} m ${x1} ${y1} l S`;
}

/** Brings a page of the demo's PDF into a new job, at 150 dots an inch. */
export async function bringPage(desk: Desk, number: number): Promise<void> {
  const { page } = desk;
  await page.goto('/');
  await desk.choose('new-job');
  await page.getByTestId('choose-pictures').waitFor();
  await page.locator('input[type=file]').first().setInputFiles('public/demo/bench.pdf');
  await desk.choose(`pdf-page-${number}`);
  await page.getByRole('radio', { name: '150 dots an inch' }).click();
  await desk.choose('pdf-bring');
}
