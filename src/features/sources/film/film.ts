import { done, refused, type Result } from '@/core/basics';

/** A film that is open in the browser. Times in seconds. */
export interface OpenFilm {
  readonly name: string;
  readonly duration: number;
  readonly width: number;
  readonly height: number;
  /** The element that shows it; whoever opened the film puts it on the page and closes it. */
  readonly element: HTMLVideoElement;
  /** How long a frame lasts. */
  readonly frame: number;
  /** Goes to a time, and waits until that frame stands; false when it does not come. */
  goTo(time: number): Promise<boolean>;
  /** What stands now, as wide as wished or full size. */
  still(width?: number): HTMLCanvasElement;
  close(): void;
}

export const isFilm = ({ type, name }: Pick<File, 'type' | 'name'>) =>
  type.startsWith('video/') || /\.(mp4|webm|m4v|mov)$/i.test(name);

const OPEN_MS = 8000;
const SEEK_MS = 4000;
const USUAL_FRAME = 1 / 30;

/** Resolves with the first of several events, or undefined after a while. */
function next(element: HTMLElement, names: readonly string[], wait: number): Promise<string | undefined> {
  return new Promise((resolve) => {
    const stop = new AbortController();
    const end = (name: string | undefined) => (stop.abort(), clearTimeout(timer), resolve(name));
    const timer = setTimeout(() => end(undefined), wait);
    for (const name of names) element.addEventListener(name, () => end(name), { signal: stop.signal });
  });
}

/** Opens a film. Refused when the browser cannot play it, it has no picture, or it is empty. */
export async function openFilm(file: File): Promise<Result<OpenFilm>> {
  const element = document.createElement('video');
  const address = URL.createObjectURL(file);
  Object.assign(element, { muted: true, playsInline: true, preload: 'auto', src: address });
  const close = () => {
    element.removeAttribute('src');
    element.load();
    URL.revokeObjectURL(address);
  };
  const refuse = (code: string) => (close(), refused(code, { name: file.name }));
  if ((await next(element, ['loadeddata', 'error'], OPEN_MS)) !== 'loadeddata')
    return refuse(element.readyState >= 1 && element.videoWidth === 0 ? 'film-without-picture' : 'film-not-played');
  if (element.videoWidth === 0) return refuse('film-without-picture');
  const duration = await durationOf(element);
  if (!(duration > 0)) return refuse('film-not-played');
  const goTo = async (time: number) => {
    const wanted = Math.min(Math.max(0, time), Math.max(0, duration - 1e-3));
    if (Math.abs(element.currentTime - wanted) < 1e-6 && !element.seeking) return true;
    const arrived = next(element, ['seeked', 'error'], SEEK_MS);
    element.currentTime = wanted;
    return (await arrived) === 'seeked';
  };
  const frame = await frameOf(element, goTo);
  await goTo(0);
  return done({
    name: file.name,
    duration,
    width: element.videoWidth,
    height: element.videoHeight,
    element,
    frame,
    goTo,
    still: (width) => stillOf(element, width),
    close,
  });
}

/** A film that was recorded in a browser says its length only after somebody went to its end. */
async function durationOf(element: HTMLVideoElement): Promise<number> {
  if (Number.isFinite(element.duration)) return element.duration;
  const found = next(element, ['durationchange', 'seeked'], SEEK_MS);
  element.currentTime = 1e7;
  await found;
  return Number.isFinite(element.duration) ? element.duration : element.currentTime;
}

/** Time from one frame to the next, as the browser tells it while it plays a little; the usual one where it does not. */
async function frameOf(element: HTMLVideoElement, goTo: (time: number) => Promise<boolean>): Promise<number> {
  if (!('requestVideoFrameCallback' in element) || !(await goTo(0))) return USUAL_FRAME;
  const times: number[] = [];
  const heard = new Promise<void>((resolve) => {
    const hear = (_now: number, { mediaTime }: { mediaTime: number }) => {
      times.push(mediaTime);
      if (times.length >= 5) resolve();
      else element.requestVideoFrameCallback(hear);
    };
    element.requestVideoFrameCallback(hear);
    setTimeout(resolve, 600);
  });
  await element.play().catch(() => undefined);
  await heard;
  element.pause();
  const steps = times
    .slice(1)
    .map((time, i) => time - times[i]!)
    .filter((step) => step > 1e-3)
    .sort((a, b) => a - b);
  return steps[0] ?? USUAL_FRAME;
}

function stillOf(element: HTMLVideoElement, width = element.videoWidth): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  Object.assign(canvas, { width, height: Math.round((width * element.videoHeight) / element.videoWidth) });
  canvas.getContext('2d', { willReadFrequently: true })!.drawImage(element, 0, 0, canvas.width, canvas.height);
  return canvas;
}

/** A still at full size, as a picture file. */
export async function pictureOf(canvas: HTMLCanvasElement, name: string): Promise<File | undefined> {
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  canvas.width = 0;
  return blob ? new File([blob], name, { type: 'image/png' }) : undefined;
}
