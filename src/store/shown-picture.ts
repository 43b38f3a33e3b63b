import { type CleaningStep, type Sheet, type View } from '@/core/job';
import { pictureKey } from '@/core/pictures';
import type { Cleaning } from '@/core/raster';
import { pictureWorker } from '@/workers';
import { openPicture } from './picture-at-hand';
import type { JobRepository } from './repository';

/** A view's picture as its cleaning leaves it: under which name the picture worker keeps it, and how it is made. */
export interface ShownPicture {
  readonly key: string;
  readonly source: string;
  readonly steps: readonly Cleaning[];
}

/** Steps that are switched on, without what only the job needs to know. */
export function activeSteps(cleaning: readonly CleaningStep[] | undefined): Cleaning[] {
  return (cleaning ?? [])
    .filter(({ on }) => on)
    .flatMap((step): Cleaning[] => {
      if (step.kind === 'even') return [{ kind: 'even' }];
      if (step.kind === 'specks') return [{ kind: 'specks', size: step.size }];
      return step.strokes.length > 0 ? [{ kind: step.kind, strokes: step.strokes }] : [];
    });
}

export function shownPicture({ cleaning }: Pick<View, 'cleaning'>, sheet: Sheet): ShownPicture {
  const [source, steps] = [pictureKey(sheet), activeSteps(cleaning)];
  return { source, steps, key: steps.length === 0 ? source : `${source}~${shortHash(JSON.stringify(steps))}` };
}

/** FNV-1a, twice with different seeds: names of a few cleanings on one device, nothing that anybody attacks. */
function shortHash(text: string): string {
  return [0x811c9dc5, 0x9747b28c]
    .map((seed) => {
      let hash = seed;
      for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
      return (hash >>> 0).toString(16);
    })
    .join('');
}

/** Somebody who waits for a picture: hears how far it is, and may stop waiting. */
interface Waiting {
  readonly onProgress?: (done: number) => void;
  readonly signal?: AbortSignal;
}

/** What is being made: one cleaning for all who wait for it. */
const making = new Map<
  string,
  { readonly there: Promise<boolean>; readonly waiting: Set<Waiting>; readonly stop: AbortController }
>();

/** Makes sure that the picture worker holds a picture as it is shown; false when it cannot be had. When nobody waits for it any more, its cleaning stops. */
export function openShown(picture: ShownPicture, repository: JobRepository, waits: Waiting = {}): Promise<boolean> {
  if (picture.steps.length === 0) return openPicture(picture.key, repository);
  const known = making.get(picture.key) ?? startMaking(picture, repository);
  known.waiting.add(waits);
  waits.signal?.addEventListener('abort', () => {
    known.waiting.delete(waits);
    if (known.waiting.size > 0) return;
    if (making.get(picture.key) === known) making.delete(picture.key);
    known.stop.abort();
  });
  return known.there;
}

function startMaking(picture: ShownPicture, repository: JobRepository) {
  const [waiting, stop] = [new Set<Waiting>(), new AbortController()];
  const tell = (done: number) => waiting.forEach(({ onProgress }) => onProgress?.(done));
  const started = {
    waiting,
    stop,
    there: make(picture, repository, tell, stop.signal).finally(
      () => making.get(picture.key) === started && making.delete(picture.key),
    ),
  };
  making.set(picture.key, started);
  return started;
}

async function make(
  { key, source, steps }: ShownPicture,
  repository: JobRepository,
  onProgress: (done: number) => void,
  signal: AbortSignal,
): Promise<boolean> {
  const held = await pictureWorker.call('hasPicture', { hash: key });
  if (held.kind === 'done' && held.value) return true;
  if (!(await openPicture(source, repository))) return false;
  const made = await pictureWorker.call('clean', { hash: source, steps, as: key }, { onProgress, signal });
  return made.kind === 'done' && made.value;
}
