import { refused, type Result } from '@/core/basics';
import { z } from '@/core/schema';
import { askService, fetchPicture } from '@/store';

const PLACE = '/service/scanner';
const Positive = z.number().positive();
const Scanner = z.object({
  name: z.string(),
  dpi: z.array(Positive).min(1),
  area: z.object({ width: Positive, height: Positive }),
  colours: z.array(z.string()).min(1),
  /** Percent that a length may be off, at the most. */
  scaleError: z.number().min(0).max(5),
  state: z.enum(['ready', 'busy', 'lid-open']),
});
export type Scanner = z.infer<typeof Scanner>;
const Began = z.object({ id: z.string(), seconds: z.number() });
const Progress = z.discriminatedUnion('state', [
  z.object({ state: z.literal('scanning'), share: z.number() }),
  z.object({ state: z.literal('done'), picture: z.string().startsWith('/') }),
  z.object({ state: z.literal('failed'), code: z.string() }),
]);

export const findScanner = () => askService(PLACE, Scanner);

export interface WantedScan {
  readonly dpi: number;
  readonly colour: string;
  readonly area:
    { readonly x: number; readonly y: number; readonly width: number; readonly height: number } | undefined;
}

const LOOK_MS = 250;

/** Scans, and waits until the picture is there. Refused with what the scanner says, or when it is away. */
export async function scanPicture(
  { area, ...wanted }: WantedScan,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<Result<File>> {
  const began = await askService(`${PLACE}/scans`, Began, {
    method: 'POST',
    body: area ? { ...wanted, area } : wanted,
    signal,
  });
  if (!began.ok) return began;
  for (;;) {
    const progress = await askService(`${PLACE}/scans/${began.value.id}`, Progress, { signal });
    if (!progress.ok) return progress;
    if (progress.value.state === 'failed') return refused(progress.value.code);
    if (progress.value.state === 'done')
      return fetchPicture(progress.value.picture, `Scan at ${wanted.dpi}.jpg`, signal);
    onProgress(progress.value.share);
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
    if (signal.aborted) return refused('cancelled');
  }
}
