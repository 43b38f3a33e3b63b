import type { StoreApi } from 'zustand';
import type { Box, Vec } from '@/core/geometry';
import {
  followed,
  goneTo,
  inRoom,
  keptInSight,
  pannedBy,
  shownWhole,
  zoomedAbout,
  type Look,
  type LookScene,
} from './look';
import type { SessionState } from './session-state';
import { toScreen, type Room } from './viewport';

/** As much again around what is gone to, on each side. */
const AROUND_FOUND = 0.35;

/** Where one looks in a sitting: moved by the hand, by what is asked for, and by what comes to lie over the bench. */
export class Framing {
  private rest: Omit<Look, 'viewport'> = { isWhole: true };
  /** The view that was brought whole into sight when it was come to. */
  private shownView: string | undefined;
  private isHeld = false;
  /** What the bench's room became while the picture was held. */
  private roomToCome: Room | undefined;

  constructor(
    private readonly store: StoreApi<SessionState>,
    private readonly findScene: () => LookScene | undefined,
  ) {}

  /** Of the whole bench, and how much of its sides lies under something. The picture follows, but not under a hand that holds it. */
  setRoom(room: Room): void {
    const { viewport, viewId } = this.store.getState();
    const isFirst = this.shownView !== viewId;
    const scene = isFirst || !this.isHeld ? this.findScene() : undefined;
    this.roomToCome = this.isHeld && !isFirst ? room : undefined;
    if (!scene || isFirst)
      this.store.setState({
        viewport: { ...viewport, ...room, ...(this.roomToCome ? { insets: viewport.insets } : {}) },
      });
    if (isFirst) this.showAll();
    else if (scene) this.go(inRoom(this.look(), room, scene));
  }

  /** Whether a finger or a mouse button is down on the bench. */
  setHeld(isHeld: boolean): void {
    this.isHeld = isHeld;
    if (!isHeld && this.roomToCome) this.setRoom(this.roomToCome);
  }

  pan(by: Vec): void {
    const { nudging, patch } = this.store.getState();
    this.take(pannedBy(this.look(), by), { slidFrom: undefined, patch: nudging ? patch : undefined });
  }

  zoom(about: Vec, factor: number): void {
    this.take(zoomedAbout(this.look(), about, factor), { slidFrom: undefined, patch: undefined, nudging: false });
  }

  /** Brings the whole picture into sight. */
  showAll(): void {
    const { viewport, viewId } = this.store.getState();
    const scene = this.findScene();
    if (!scene || viewport.width === 0) return;
    const isSame = this.shownView === viewId;
    this.shownView = viewId;
    this.go(shownWhole(this.look(), scene), isSame);
    this.store.setState({ patch: undefined, nudging: false });
  }

  /** Brings a box of the bench into sight. */
  goTo(box: Box): void {
    this.go(goneTo(this.look(), box, AROUND_FOUND));
  }

  /** Goes after a box of the bench that was moved out of sight. */
  follow(box: Box): void {
    this.go(followed(this.look(), box));
  }

  /** Brings what is worked on into sight where it is not. */
  keep(): void {
    const scene = this.findScene();
    if (scene && !this.isHeld) this.go(keptInSight(this.look(), scene));
  }

  private look(): Look {
    return { ...this.rest, viewport: this.store.getState().viewport };
  }

  private take({ viewport, ...rest }: Look, change: Partial<SessionState>): void {
    this.rest = rest;
    this.store.setState({ viewport, ...change });
  }

  /** Likewise, of its own accord: it is shown where the picture went, and the magnified patch goes along. */
  private go(look: Look, isSeen = true): void {
    const { viewport, patch, aim } = this.store.getState();
    if (look.viewport === viewport) return;
    this.take(look, {
      slidFrom: isSeen ? viewport : undefined,
      patch: patch && aim && toScreen(look.viewport, aim.sheet),
    });
  }
}
