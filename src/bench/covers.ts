import type { Insets, Room } from './viewport';

/** Of the bench's width: what is narrower leaves room beside it. */
const ACROSS = 0.6;

/** Watches the bench and what lies over its upper and lower edge, and tells how much room that leaves. */
export class Covers {
  private readonly over = new Map<Element, keyof Insets>();
  private bench: Element | undefined;
  private observer: ResizeObserver | undefined;
  private said: string | undefined;

  constructor(private readonly tell: (room: Room) => void) {}

  /** Returns how to let go of it. */
  watchBench(bench: Element): () => void {
    this.bench = bench;
    return this.watch(bench);
  }

  /** Something that lies over one of the bench's edges; returns how to let go of it. */
  watchOver(element: Element, side: keyof Insets): () => void {
    this.over.set(element, side);
    const stop = this.watch(element);
    return () => {
      this.over.delete(element);
      stop();
      this.measure();
    };
  }

  private watch(element: Element): () => void {
    this.observer ??= new ResizeObserver(() => this.measure());
    this.observer.observe(element);
    return () => this.observer?.unobserve(element);
  }

  private measure(): void {
    if (!this.bench?.isConnected) return;
    const bench = this.bench.getBoundingClientRect();
    const insets = { top: 0, bottom: 0 };
    for (const [element, side] of this.over) {
      const box = element.getBoundingClientRect();
      if (box.width < bench.width * ACROSS) continue;
      insets[side] = Math.max(insets[side], side === 'top' ? box.bottom - bench.top : bench.bottom - box.top);
    }
    const room: Room = { width: this.bench.clientWidth, height: this.bench.clientHeight, insets };
    // Things come and go without taking room.
    const said = JSON.stringify(room);
    if (said === this.said) return;
    this.said = said;
    this.tell(room);
  }
}
