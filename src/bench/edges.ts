import type { Vec } from '@/core/geometry';
import {
  createPyramid,
  findCornerNear,
  findEdgeNear,
  type FoundCorner,
  type FoundEdge,
  type Pyramid,
} from '@/core/raster';
import { pictureWorker, type PictureWindow, type SidesRequest } from '@/workers';

/** Half the side of the part of the picture that is kept at hand around the aim, px. */
const HALF = 176;
/** What a search reads beyond its reach, px. */
const MARGIN = 24;
/** No edge and no corner is looked for farther away than this, px: at low zoom the hand decides. */
const FARTHEST_EDGE = 26;
const FARTHEST_CORNER = 60;
/** A point that is set waits for its part of the picture no longer than this, ms. */
const PATIENCE = 600;

/** Places found on the rim or the sides of a thing: the edge passes just there, whichever point of the thing that is. */
export type Found = readonly { readonly at: Vec; readonly sigma: number }[];

const asFound = (edges: readonly FoundEdge[] | undefined): Found | undefined =>
  edges?.map(({ at, sigma }) => ({ at, sigma }));

/** Looks for edges of one picture: at once near the aim, from a part of it that is kept at hand, and in the worker around a place. */
export class PictureEdges {
  private near: { readonly window: PictureWindow; readonly pyramid: Pyramid } | undefined;
  private asked: Vec | undefined;
  private fetching: Promise<void> | undefined;
  private straights: Promise<readonly Found[]> | undefined;
  private turn = 0;

  /** `onReady` is called when a part that was asked for has come. */
  constructor(
    readonly hash: string,
    private readonly reopen: () => Promise<boolean>,
    private readonly onReady: () => void,
  ) {}

  /** The edge nearest to a place. Undefined as well while that part of the picture is on its way. */
  find(sheet: Vec, reach: number, hand: number): FoundEdge | undefined {
    return this.findWith(
      ({ levels }, near, within) => findEdgeNear(levels[0]!, near, within, hand),
      sheet,
      Math.min(reach, FARTHEST_EDGE),
    );
  }

  /** The corner nearest to a place; as `find`. */
  findCorner(sheet: Vec, reach: number, hand: number): FoundCorner | undefined {
    return this.findWith(
      (picture, near, within) => findCornerNear(picture, near, within, hand),
      sheet,
      Math.min(reach, FARTHEST_CORNER),
    );
  }

  /** Undefined when the part of the picture around a place is at hand; else comes true when it is, or is not likely to be soon. */
  coming(sheet: Vec): Promise<unknown> | undefined {
    if (this.covers(sheet, FARTHEST_CORNER + MARGIN)) return undefined;
    return Promise.race([this.fetch(sheet), new Promise((resolve) => setTimeout(resolve, PATIENCE))]);
  }

  private findWith<T extends { readonly at: Vec }>(
    find: (picture: Pyramid, near: Vec, reach: number) => T | undefined,
    sheet: Vec,
    reach: number,
  ): T | undefined {
    if (!this.near || !this.covers(sheet, reach + MARGIN)) {
      void this.fetch(sheet);
      return undefined;
    }
    const {
      window: { x, y },
      pyramid,
    } = this.near;
    const found = find(pyramid, [sheet[0] - x, sheet[1] - y], reach);
    return found && { ...found, at: [found.at[0] + x, found.at[1] + y] };
  }

  async findRim(near: Vec): Promise<Found | undefined> {
    return asFound((await this.ask('rim', { near }))?.edges);
  }

  /** Places along the straight edge that passes a place. */
  async findStraight(near: Vec): Promise<Found | undefined> {
    return asFound(await this.ask('straight', { near }));
  }

  /** The next straight edge of the whole picture that is not known yet, round and round; undefined when there is none. */
  async findNextStraight(isKnown: (along: Found) => boolean): Promise<Found | undefined> {
    this.straights ??= this.listStraights();
    const all = await this.straights;
    const ahead = [...all.slice(this.turn), ...all.slice(0, this.turn)];
    const next = ahead.find((along) => !isKnown(along));
    if (next) this.turn = (all.indexOf(next) + 1) % all.length;
    return next;
  }

  private async listStraights(): Promise<readonly Found[]> {
    if (!(await this.reopen())) return [];
    const outcome = await pictureWorker.call('straights', { hash: this.hash });
    return outcome.kind === 'done' ? outcome.value.map((edges) => asFound(edges)!) : [];
  }

  /** `known`: what is known of the thing, and of the camera. */
  async findSides(near: Vec, known: Pick<SidesRequest, 'proportion' | 'focal35mm'>): Promise<Found | undefined> {
    return asFound((await this.ask('sides', { near, ...known }))?.flat());
  }

  private async ask<K extends 'rim' | 'sides' | 'straight'>(operation: K, around: Omit<SidesRequest, 'hash'>) {
    if (!(await this.reopen())) return undefined;
    const outcome = await pictureWorker.call(operation, { hash: this.hash, ...around });
    return outcome.kind === 'done' ? outcome.value : undefined;
  }

  private covers([x, y]: Vec, reach: number): boolean {
    const { near } = this;
    // Where the picture ends, the part at hand ends too, and that is all there is.
    return (
      near !== undefined && Math.abs(x - this.asked![0]) + reach <= HALF && Math.abs(y - this.asked![1]) + reach <= HALF
    );
  }

  private fetch(sheet: Vec): Promise<void> {
    if (this.fetching && this.asked && Math.hypot(sheet[0] - this.asked[0], sheet[1] - this.asked[1]) < HALF / 4)
      return this.fetching;
    this.asked = [Math.round(sheet[0]), Math.round(sheet[1])];
    this.near = undefined;
    this.fetching = this.fetchAround(this.asked);
    return this.fetching;
  }

  private async fetchAround(asked: Vec): Promise<void> {
    if (!(await this.reopen())) return;
    const outcome = await pictureWorker.call('colours', {
      hash: this.hash,
      x: asked[0] - HALF,
      y: asked[1] - HALF,
      width: 2 * HALF,
      height: 2 * HALF,
    });
    if (this.asked !== asked || outcome.kind !== 'done' || !outcome.value) return;
    this.near = { window: outcome.value, pyramid: createPyramid(outcome.value) };
    this.onReady();
  }
}
