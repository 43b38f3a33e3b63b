import type { Vec } from '@/core/geometry';
import type { Laying } from './laying';

/** What part of the bench is shown: screen = (bench − centre) · zoom + middle of the screen. CSS pixels, double precision. */
export interface Viewport {
  readonly width: number;
  readonly height: number;
  /** CSS pixels per bench pixel. */
  readonly zoom: number;
  /** The bench place in the middle of the screen. */
  readonly centre: Vec;
  /** How the picture lies on the bench; as it was taken when absent. */
  readonly laying?: Laying | undefined;
}

export const MIN_ZOOM = 0.005;
export const MAX_ZOOM = 60;

export function fromBench({ width, height, zoom, centre }: Viewport, [x, y]: Vec): Vec {
  return [(x - centre[0]) * zoom + width / 2, (y - centre[1]) * zoom + height / 2];
}

export function toBench({ width, height, zoom, centre }: Viewport, [x, y]: Vec): Vec {
  return [(x - width / 2) / zoom + centre[0], (y - height / 2) / zoom + centre[1]];
}

/** Where a place of the sheet is shown. */
export function toScreen(viewport: Viewport, sheet: Vec): Vec {
  return fromBench(viewport, viewport.laying?.toBench(sheet) ?? sheet);
}

export function toSheet(viewport: Viewport, screen: Vec): Vec {
  const bench = toBench(viewport, screen);
  return viewport.laying?.toSheet(bench) ?? bench;
}

export function panBy(viewport: Viewport, [dx, dy]: Vec): Viewport {
  const { centre, zoom } = viewport;
  return { ...viewport, centre: [centre[0] - dx / zoom, centre[1] - dy / zoom] };
}

/** Zooms by a factor so that what lies under `screen` stays there. */
export function zoomAbout(viewport: Viewport, screen: Vec, factor: number): Viewport {
  const zoom = Math.min(MAX_ZOOM, Math.max(MIN_ZOOM, viewport.zoom * factor));
  const fixed = toBench(viewport, screen);
  const { width, height } = viewport;
  return { ...viewport, zoom, centre: [fixed[0] - (screen[0] - width / 2) / zoom, fixed[1] - (screen[1] - height / 2) / zoom] };
}

/** The least height that is left above cards. CSS px */
const LEAST_HEIGHT = 80;

/** Shows a box of the bench with a margin around it, above what lies under cards: so much of the lower part, CSS px. */
export function zoomTo(viewport: Viewport, min: Vec, max: Vec, margin = 0.06, covered = 0): Viewport {
  const free = Math.max(LEAST_HEIGHT, viewport.height - covered);
  const [w, h] = [Math.max(1e-6, max[0] - min[0]), Math.max(1e-6, max[1] - min[1])];
  const fit = Math.min(viewport.width / w, free / h) * (1 - 2 * margin);
  const zoom = Math.min(MAX_ZOOM, Math.max(MIN_ZOOM, fit));
  return { ...viewport, zoom, centre: [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2 + (viewport.height - free) / 2 / zoom] };
}

/** Keeps the place in the middle when the bench changes its size. */
export function resized(viewport: Viewport, width: number, height: number): Viewport {
  return { ...viewport, width, height };
}
