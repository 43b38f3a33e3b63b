import type { Vec } from '@/core/geometry';

/** What part of the sheet is shown: screen = (sheet − centre) · zoom + middle of the bench. CSS pixels, double precision. */
export interface Viewport {
  readonly width: number;
  readonly height: number;
  /** CSS pixels per sheet pixel. */
  readonly zoom: number;
  /** The sheet place in the middle of the bench. */
  readonly centre: Vec;
}

export const MIN_ZOOM = 0.005;
export const MAX_ZOOM = 60;

export function toScreen({ width, height, zoom, centre }: Viewport, [x, y]: Vec): Vec {
  return [(x - centre[0]) * zoom + width / 2, (y - centre[1]) * zoom + height / 2];
}

export function toSheet({ width, height, zoom, centre }: Viewport, [x, y]: Vec): Vec {
  return [(x - width / 2) / zoom + centre[0], (y - height / 2) / zoom + centre[1]];
}

export function panBy(viewport: Viewport, [dx, dy]: Vec): Viewport {
  const { centre, zoom } = viewport;
  return { ...viewport, centre: [centre[0] - dx / zoom, centre[1] - dy / zoom] };
}

/** Zooms by a factor so that what lies under `screen` stays there. */
export function zoomAbout(viewport: Viewport, screen: Vec, factor: number): Viewport {
  const zoom = Math.min(MAX_ZOOM, Math.max(MIN_ZOOM, viewport.zoom * factor));
  const fixed = toSheet(viewport, screen);
  const { width, height } = viewport;
  return { ...viewport, zoom, centre: [fixed[0] - (screen[0] - width / 2) / zoom, fixed[1] - (screen[1] - height / 2) / zoom] };
}

/** Shows a box of the sheet with a margin around it. */
export function zoomTo(viewport: Viewport, min: Vec, max: Vec, margin = 0.06): Viewport {
  const [w, h] = [Math.max(1e-6, max[0] - min[0]), Math.max(1e-6, max[1] - min[1])];
  const fit = Math.min(viewport.width / w, viewport.height / h) * (1 - 2 * margin);
  const zoom = Math.min(MAX_ZOOM, Math.max(MIN_ZOOM, fit));
  return { ...viewport, zoom, centre: [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2] };
}

/** Keeps the place in the middle when the bench changes its size. */
export function resized(viewport: Viewport, width: number, height: number): Viewport {
  return { ...viewport, width, height };
}
