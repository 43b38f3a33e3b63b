import { tiltOf, type ShootingWay, type Tilt } from './tilt';

/** A live picture, from the device's camera or simulated. */
export interface LivePicture {
  readonly simulated: boolean;
  readonly source: CanvasImageSource & { readonly width?: number };
  size(): readonly [number, number];
  /** The focal length, as on 35 mm film, where it is known. mm */
  readonly focal35mm?: number;
  /** Everything that has to be put on the page. */
  readonly element: HTMLElement;
  close(): void;
}

/** The camera at the back, at its best; the simulated one where there is none or it is not allowed. */
export async function openCamera(): Promise<LivePicture> {
  const stream = await navigator.mediaDevices
    ?.getUserMedia({ video: { facingMode: 'environment', width: { ideal: 4096 }, height: { ideal: 3072 } } })
    .catch(() => undefined);
  if (!stream) return simulatedCamera();
  const element = document.createElement('video');
  Object.assign(element, { muted: true, playsInline: true, autoplay: true, srcObject: stream });
  await element.play().catch(() => undefined);
  return {
    simulated: false,
    element,
    source: element,
    size: () => [element.videoWidth, element.videoHeight],
    close: () => stream.getTracks().forEach((track) => track.stop()),
  };
}

const SIMULATED: readonly [number, number] = [1600, 1200];
/** The photo's own, a little longer because its rim is cut off. mm */
const SIMULATED_FOCAL = (52 * 1640) / 1600;

/** The demo's photo of the blade, held by a hand that is not quite still. */
async function simulatedCamera(): Promise<LivePicture> {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = SIMULATED;
  const picture = new Image();
  picture.src = '/demo/blade.jpg';
  await picture.decode().catch(() => undefined);
  let frame = 0;
  const draw = (now: number) => {
    const context = canvas.getContext('2d')!;
    const [dx, dy] = [8 * Math.sin(now / 900), 6 * Math.sin(now / 1300)];
    context.fillStyle = '#888';
    context.fillRect(0, 0, canvas.width, canvas.height);
    if (picture.naturalWidth > 0) context.drawImage(picture, dx - 20, dy - 20, canvas.width + 40, canvas.height + 40);
    frame = requestAnimationFrame(draw);
  };
  draw(0);
  return {
    simulated: true,
    focal35mm: SIMULATED_FOCAL,
    element: canvas,
    source: canvas,
    size: () => SIMULATED,
    close: () => cancelAnimationFrame(frame),
  };
}

/** Tells how the device is held, as often as it says so; a simulated hand where it has no sensors. Returns how to stop. */
export function watchTilt(way: ShootingWay, onTilt: (tilt: Tilt, simulated: boolean) => void): () => void {
  let heard = false;
  const angle = () => window.screen.orientation?.angle ?? 0;
  const hear = ({ beta, gamma }: DeviceOrientationEvent) => {
    if (beta === null || gamma === null) return;
    heard = true;
    onTilt(tiltOf({ beta, gamma }, angle(), way), false);
  };
  window.addEventListener('deviceorientation', hear);
  const timer = setInterval(() => {
    if (!heard) onTilt({ across: 2.4 * Math.sin(Date.now() / 1700), up: 1.8 * Math.sin(Date.now() / 2300) }, true);
  }, 200);
  return () => {
    window.removeEventListener('deviceorientation', hear);
    clearInterval(timer);
  };
}
