import { useEffect, useState, type RefObject } from 'react';
import type { FoldedView } from '@/core/derive';
import {
  add,
  applied,
  boxAround,
  composed,
  distance,
  scale,
  subtract,
  type Affine,
  type Box,
  type Vec,
} from '@/core/geometry';

/** Where one looks: how much closer than all of it, and how far moved by the hand, CSS px. */
export interface Closeness {
  readonly zoom: number;
  readonly by: Vec;
}

export const ALL_OF_IT: Closeness = { zoom: 1, by: [0, 0] };

/** On each side, and for the ring below. CSS px. */
const MARGIN = { side: 28, top: 34, bottom: 76 };

/** What the views take up as one looks at them. mm, y up. */
export const boundsOfFolded = (views: readonly FoldedView[]): Box =>
  boxAround(views.flatMap(({ rim, look }) => rim.map((at) => applied(look, at))));

/** From what is looked at to the screen: all of it in the free part, closer as one wants. CSS px, y down. */
export function onScreen({ min, max }: Box, [width, height]: Vec, { zoom, by }: Closeness): Affine {
  const [wide, high] = [Math.max(1e-6, max[0] - min[0]), Math.max(1e-6, max[1] - min[1])];
  const room: Vec = [Math.max(60, width - 2 * MARGIN.side), Math.max(60, height - MARGIN.top - MARGIN.bottom)];
  const perMm = zoom * Math.min(room[0] / wide, room[1] / high);
  const middle: Vec = [MARGIN.side + room[0] / 2 + by[0], MARGIN.top + room[1] / 2 + by[1]];
  return [
    perMm,
    0,
    0,
    -perMm,
    middle[0] - (perMm * (min[0] + max[0])) / 2,
    middle[1] + (perMm * (min[1] + max[1])) / 2,
  ];
}

export const matrixOf = (map: Affine): string => `matrix(${map.map((value) => value.toFixed(6)).join(' ')})`;
export const cssMatrixOf = (map: Affine): string => `matrix(${map.map((value) => value.toFixed(6)).join(', ')})`;

/** From pixels of a squared-up picture to the screen. */
export function pictureOnScreen(
  { corner, perMm }: { readonly corner: Vec; readonly perMm: number },
  onto: Affine,
): Affine {
  return composed(onto, [1 / perMm, 0, 0, -1 / perMm, corner[0], corner[1]]);
}

const ZOOMS = [0.5, 12] as const;

const closer = ({ zoom, by }: Closeness, factor: number, about: Vec): Closeness => {
  const next = Math.min(ZOOMS[1], Math.max(ZOOMS[0], zoom * factor));
  const share = next / zoom;
  return { zoom: next, by: [about[0] + (by[0] - about[0]) * share, about[1] + (by[1] - about[1]) * share] };
};

/** Fingers on a surface, or the mouse that is held down: where they are from its middle, CSS px. */
class Fingers {
  private readonly at = new Map<number, Vec>();

  has = (id: number): boolean => this.at.has(id);
  lift = (id: number): void => void this.at.delete(id);

  /** How what lies under them goes along when one of them is put down or moves. */
  put(id: number, place: Vec): (now: Closeness) => Closeness {
    const [before, wide] = [this.middle(), this.spread()];
    this.at.set(id, place);
    const [after, wider] = [this.middle(), this.spread()];
    return (now) => {
      const moved: Closeness = { ...now, by: add(now.by, subtract(after, before)) };
      return wide && wider ? closer(moved, wider / wide, after) : moved;
    };
  }

  private middle(): Vec {
    const all = [...this.at.values()];
    return all.length === 0 ? [0, 0] : scale(all.reduce(add), 1 / all.length);
  }

  private spread(): number | undefined {
    const [a, b] = [...this.at.values()];
    return a && b ? distance(a, b) : undefined;
  }
}

/** What has a meaning of its own under the hand. */
const OWN = 'button,[role=button],[role=slider]';

/** Fingers, mouse and wheel move what is looked at and bring it closer. */
export function useCloseness(surface: RefObject<HTMLDivElement | null>) {
  const [closeness, setCloseness] = useState(ALL_OF_IT);
  useEffect(() => {
    const element = surface.current!;
    const stop = new AbortController();
    const fingers = new Fingers();
    const fromMiddle = ({ clientX, clientY }: { clientX: number; clientY: number }): Vec => {
      const { left, top, width, height } = element.getBoundingClientRect();
      return [clientX - left - width / 2, clientY - top - height / 2];
    };
    const on = <K extends keyof HTMLElementEventMap>(name: K, does: (event: HTMLElementEventMap[K]) => void) =>
      element.addEventListener(name, does, { signal: stop.signal, passive: false });
    on('pointerdown', (event) => {
      if ((event.target as Element).closest(OWN)) return;
      element.setPointerCapture(event.pointerId);
      fingers.put(event.pointerId, fromMiddle(event));
    });
    on('pointermove', (event) => {
      if (fingers.has(event.pointerId)) setCloseness(fingers.put(event.pointerId, fromMiddle(event)));
    });
    on('pointerup', (event) => fingers.lift(event.pointerId));
    on('pointercancel', (event) => fingers.lift(event.pointerId));
    on('wheel', (event) => {
      event.preventDefault();
      const about = fromMiddle(event);
      setCloseness((now) => closer(now, Math.exp(-event.deltaY * 0.0016), about));
    });
    return () => stop.abort();
  }, [surface]);
  return {
    closeness,
    comeCloser: (factor: number) => setCloseness((now) => closer(now, factor, [0, 0])),
    seeAll: () => setCloseness(ALL_OF_IT),
  };
}
