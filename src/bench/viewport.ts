import { mix, type Box, type Vec } from '@/core/geometry';
import { layingUnder, type Laid } from './laying';

/** How much of the bench lies under cards, guides or banners, from its upper, its lower and its right edge. CSS px. */
export interface Insets {
  readonly top: number;
  readonly bottom: number;
  readonly right: number;
}

export const NO_INSETS: Insets = { top: 0, bottom: 0, right: 0 };

/** What part of the bench is shown: screen = (bench − centre) · zoom + middle of the screen's free part. CSS pixels, double precision. */
export interface Viewport {
  readonly width: number;
  readonly height: number;
  /** All of it is free when absent. */
  readonly insets?: Insets | undefined;
  /** CSS pixels per bench pixel. */
  readonly zoom: number;
  /** The bench place in the middle of the free part. */
  readonly centre: Vec;
  /** How the picture lies on the bench; as it was taken when absent. */
  readonly laid?: Laid | undefined;
}

/** How large the bench is, and how much of it is free. */
export type Room = Pick<Viewport, 'width' | 'height' | 'insets'>;

export const MIN_ZOOM = 0.005;
export const MAX_ZOOM = 60;

/** What is left at the least, however much lies over the bench. CSS px. */
const LEAST_FREE = 80;

/** The part of the screen over which nothing lies. CSS px. */
export function freePart({ width, height, insets }: Viewport): Box {
  const { top, bottom, right } = insets ?? NO_INSETS;
  const y = Math.max(0, Math.min(top, height - LEAST_FREE));
  return { min: [0, y], max: [Math.max(LEAST_FREE, width - right), Math.max(y + LEAST_FREE, height - bottom)] };
}

/** The middle of the free part: keys and buttons that come closer do so about it. CSS px. */
export function middleOfBench(viewport: Viewport): Vec {
  const { min, max } = freePart(viewport);
  return mix(min, max, 0.5);
}

export function fromBench(viewport: Viewport, [x, y]: Vec): Vec {
  const { zoom, centre } = viewport;
  const [mx, my] = middleOfBench(viewport);
  return [(x - centre[0]) * zoom + mx, (y - centre[1]) * zoom + my];
}

export function toBench(viewport: Viewport, [x, y]: Vec): Vec {
  const { zoom, centre } = viewport;
  const [mx, my] = middleOfBench(viewport);
  return [(x - mx) / zoom + centre[0], (y - my) / zoom + centre[1]];
}

/** Where a place of the sheet is shown. */
export function toScreen(viewport: Viewport, sheet: Vec): Vec {
  return fromBench(viewport, layingUnder(viewport)?.toBench(sheet) ?? sheet);
}

export function sheetUnder(viewport: Viewport, screen: Vec): Vec {
  const bench = toBench(viewport, screen);
  return layingUnder(viewport)?.toSheet(bench) ?? bench;
}

export function panBy(viewport: Viewport, [dx, dy]: Vec): Viewport {
  const { centre, zoom } = viewport;
  return { ...viewport, centre: [centre[0] - dx / zoom, centre[1] - dy / zoom] };
}

/** Zooms by a factor so that what lies under `screen` stays there. */
export function zoomAbout(viewport: Viewport, screen: Vec, factor: number): Viewport {
  const zoom = withinLimits(viewport.zoom * factor);
  const fixed = toBench(viewport, screen);
  const [mx, my] = middleOfBench(viewport);
  return { ...viewport, zoom, centre: [fixed[0] - (screen[0] - mx) / zoom, fixed[1] - (screen[1] - my) / zoom] };
}

const withinLimits = (zoom: number) => Math.min(MAX_ZOOM, Math.max(MIN_ZOOM, zoom));

/** Shows a box of the bench in the free part of the screen, with a margin around it. */
export function zoomTo(viewport: Viewport, { min, max }: Box, margin = 0.06): Viewport {
  const free = freePart(viewport);
  const fits = [0, 1].map((axis) => (free.max[axis]! - free.min[axis]!) / Math.max(1e-6, max[axis]! - min[axis]!));
  return { ...viewport, zoom: withinLimits(Math.min(...fits) * (1 - 2 * margin)), centre: mix(min, max, 0.5) };
}
