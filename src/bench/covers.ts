import { NO_INSETS, type Insets, type Room } from './viewport';

/** Of the bench's edge: what takes less of it leaves room beside it. */
const ACROSS = 0.6;

/** Watches the bench and what lies over its edges, and tells how much room that leaves. */
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
    const insets = { ...NO_INSETS };
    for (const [element, side] of this.over)
      insets[side] = Math.max(insets[side], takenBy(element.getBoundingClientRect(), bench, side));
    const room: Room = { width: this.bench.clientWidth, height: this.bench.clientHeight, insets };
    // Things come and go without taking room.
    const said = JSON.stringify(room);
    if (said === this.said) return;
    this.said = said;
    this.tell(room);
  }
}

/** How much something takes of a side of the bench. */
function takenBy(box: DOMRect, bench: DOMRect, side: keyof Insets): number {
  const share = side === 'right' ? box.height / bench.height : box.width / bench.width;
  if (share < ACROSS) return 0;
  return { top: box.bottom - bench.top, bottom: bench.bottom - box.top, right: bench.right - box.left }[side];
}
