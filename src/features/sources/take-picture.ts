import { placedView, type MapPlace } from '@/core/derive';
import { addPlacedSheet, addSheet, type Sheet, type View } from '@/core/job';
import { resolutionEvidence } from '@/core/job';
import { bringInPicture, newId, repository, type BringInOptions, type JobStore } from '@/store';
import { sentenceFor } from '@/ui/words';
import { bringReferenceInto } from './bring-reference';
import type { Work } from './use-one-at-a-time';

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

/** Brings a picture into the job with all its pages: the view of its first, nothing where it was refused, or that it was stopped. */
export async function takePicture(
  incoming: Incoming,
  jobs: JobStore,
  work: Work,
): Promise<View | 'stopped' | undefined> {
  const { file, told, lines } = incoming;
  work.onDoing(`Bringing in ${file.name}`);
  const outcome = await bringInPicture(file, repository.pictures, {
    signal: work.signal,
    ...(told ? { told } : {}),
    onProgress: (_, word) => work.onDoing(`${DOING[word] ?? 'Working on'} ${file.name}`),
  });
  if (outcome.kind === 'refused') work.sentences.push(sentenceFor(outcome.code, outcome.detail));
  if (outcome.kind === 'cancelled' || work.signal.aborted) return 'stopped';
  if (outcome.kind !== 'done') return undefined;
  for (const page of outcome.pages) addPage(page, incoming, jobs, work.sentences);
  const { sheet, view } = outcome.pages[0]!;
  if (lines)
    await bringReferenceInto(
      jobs,
      `${sheet.name}, lines.svg`,
      new TextEncoder().encode(lines).buffer as ArrayBuffer,
      work,
      sheet.id,
    );
  return view;
}

interface Page {
  readonly sheet: Sheet;
  readonly view: View;
  readonly notices: readonly string[];
}

function addPage(
  { sheet, view: bare, notices }: Page,
  { told, place, lines }: Incoming,
  jobs: JobStore,
  sentences: string[],
): void {
  const view = scaledByScanner(bare, sheet, told);
  sentences.push(...notices.map((code) => `${sheet.name}: ${sentenceFor(code)}`));
  const placed = place && placedView(view, sheet, place, jobs.getState().job.site);
  if (placed && !placed.ok) sentences.push(`${sheet.name}: ${sentenceFor(placed.code, placed.detail)}`);
  jobs
    .getState()
    .run(
      placed?.ok
        ? addPlacedSheet(sheet, placed.value.view, placed.value.site)
        : addSheet(sheet, view, lines ? sheet.id : undefined),
    );
}

/** A picture whose resolution a device answers for is to scale when it arrives. Limits count as half their width over the root of three. */
function scaledByScanner(view: View, sheet: Sheet, told: BringInOptions['told']): View {
  if (told?.scaleError === undefined || told.dpi === undefined) return view;
  const { evidence, points } = resolutionEvidence(sheet, told.dpi, 1, newId, told.scaleError / Math.sqrt(3));
  return { ...view, evidence: [evidence], points };
}
