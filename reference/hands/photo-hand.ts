import { createDarkroom } from '../../demo/generator/render';
import { aimAt } from '../../src/bench/aim';
import type { Hand } from '../../src/core/calibrate';
import { unscaledFit } from '../../src/core/calibrate';
import type { Vec } from '../../src/core/geometry';
import type { PictureEdge } from '../../src/core/outline';
import {
  colourPictureFrom,
  createPyramid,
  findCornerNear,
  findEdgeNear,
  findRim,
  type Pyramid,
} from '../../src/core/raster';
import { sceneOf } from './plate';
import type { World } from './world';

/** How somebody points: with what, at what zoom of the picture, how far off (CSS px, one sigma), and whether the picture may catch the aim. */
export interface HandKind extends Hand {
  readonly zoom: number;
  readonly off: number;
  readonly snapping: boolean;
}

/** Mouse and finger as the app assumes them, a finger that only taps, and a mouse with nothing to catch it, close up. */
export const HANDS: Readonly<Record<string, HandKind>> = {
  mouse: { pointer: 'mouse', zoom: 0.5, off: 0.8, snapping: true },
  'finger, aimed': { pointer: 'touch', unaided: 0.03, zoom: 0.25, off: 0.32, snapping: true },
  'finger, tapped': { pointer: 'touch', unaided: 1, zoom: 0.4, off: 1.6, snapping: true },
  'mouse, nothing caught': { pointer: 'mouse', zoom: 1.2, off: 0.8, snapping: false },
};

export interface Pointed {
  readonly at: Vec;
  readonly sigma: number;
  readonly edge?: PictureEdge | undefined;
}

/** Half of what is developed around a place that somebody points at. px */
const AROUND = 54;

/** A photograph of which only those parts are developed that somebody looks at. */
export class Photograph {
  private readonly develop: ReturnType<typeof createDarkroom>;
  private readonly windows = new Map<
    string,
    { readonly pyramid: Pyramid; readonly left: number; readonly top: number }
  >();
  /** Rims by the place of the tap: whoever taps there finds the same. */
  private readonly rims = new Map<string, readonly Pointed[] | undefined>();

  constructor(readonly world: World) {
    this.develop = createDarkroom(sceneOf(world));
  }

  private around([x, y]: Vec, half: number) {
    const [left, top] = [Math.round(x) - half, Math.round(y) - half];
    const name = `${left} ${top} ${half}`;
    const known = this.windows.get(name);
    if (known) return known;
    const { width, height, data } = this.develop(
      left,
      top,
      2 * half,
      2 * half,
      1 + ((left * 7919 + top * 104729) >>> 0),
    );
    const window = { pyramid: createPyramid(colourPictureFrom(width, height, data)), left, top };
    this.windows.set(name, window);
    return window;
  }

  /** Somebody points at what is seen at a place, as the app takes it. */
  point(at: Vec, hand: HandKind): Pointed {
    const { random, picture } = this.world;
    const { pyramid, left, top } = this.around(at, AROUND);
    const found = <T extends { readonly at: Vec }>(it: T | undefined): T | undefined =>
      it && { ...it, at: [it.at[0] + left, it.at[1] + top] };
    const aimed: Vec = [
      at[0] + (hand.off / hand.zoom) * random.normal(),
      at[1] + (hand.off / hand.zoom) * random.normal(),
    ];
    const { sheet, sigma, edge } = aimAt(aimed, {
      ...hand,
      fit: unscaledFit({ picture, datum: { origin: [0, picture.height], direction: 0 } }),
      search: () => [],
      findEdge: (near, reach, off) =>
        found(findEdgeNear(pyramid.levels[0]!, [near[0] - left, near[1] - top], Math.min(reach, 26), off)),
      findCorner: (near, reach, off) => found(findCornerNear(pyramid, [near[0] - left, near[1] - top], reach, off)),
    });
    return { at: sheet, sigma, ...(edge ? { edge } : {}) };
  }

  /** The rim of a hole around a place, by one tap in it; `size` px across. */
  rim(at: Vec, size: number): readonly Pointed[] | undefined {
    const name = at.join(' ');
    if (!this.rims.has(name)) this.rims.set(name, this.findRim(at, size));
    return this.rims.get(name);
  }

  private findRim(at: Vec, size: number): readonly Pointed[] | undefined {
    const { pyramid, left, top } = this.around(at, Math.round(0.75 * size + 24));
    return findRim(pyramid, [at[0] - left, at[1] - top])?.edges.map((edge) => ({
      at: [edge.at[0] + left, edge.at[1] + top],
      sigma: edge.sigma,
    }));
  }
}
