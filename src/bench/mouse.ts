import { distance, subtract, type Vec } from '@/core/geometry';
import type { Session } from './session';
import { holdsSomething, toolOf } from './tools';
import { sheetUnder } from './viewport';

/** Where on the bench an event is, CSS px. */
export type PlaceOf = (event: { readonly clientX: number; readonly clientY: number }) => Vec;

interface Drag {
  readonly kind: 'press' | 'pan' | 'grab';
  readonly from: Vec;
  readonly last: Vec;
}

const CLICK_SLACK = 4;
/** How near a handle or node has to be for a mouse to take hold of it. CSS px. */
const GRAB = 9;

const hasMoved = ({ from, last }: Drag): boolean => distance(from, last) > CLICK_SLACK;

/** Mouse and pen: a click sets; a drag takes hold of a node or handle, else it moves the sheet. The middle button always moves the sheet. */
export class Mouse {
  private drag: Drag | undefined;

  constructor(
    private readonly element: HTMLElement,
    private readonly placeOf: PlaceOf,
    private readonly session: Session,
  ) {}

  down(event: PointerEvent): void {
    const { session, element } = this;
    element.focus({ preventScroll: true });
    element.setPointerCapture(event.pointerId);
    session.framing.setHeld(true);
    const at = this.placeOf(event);
    session.aimAtScreen(at, 'mouse');
    const { aim } = session.getState();
    if (event.button === 1) event.preventDefault();
    if (event.button === 0 && aim && !session.isReadOnly()) session.input({ kind: 'grab', aim, reach: this.reach() });
    this.drag = {
      kind: event.button !== 0 ? 'pan' : holdsSomething(session.getState().tool) ? 'grab' : 'press',
      from: at,
      last: at,
    };
  }

  move(event: PointerEvent): void {
    const { session } = this;
    const at = this.placeOf(event);
    if (this.drag) this.dragTo(at, this.drag);
    if (this.drag?.kind === 'pan') return;
    session.aimAtScreen(at, 'mouse');
    const { aim } = session.getState();
    if (this.drag?.kind === 'grab' && aim && hasMoved(this.drag)) session.input({ kind: 'drag', aim, reach: 0 });
  }

  up(): void {
    const { session, drag } = this;
    this.drag = undefined;
    if (drag) this.letGo(drag);
    session.framing.setHeld(false);
  }

  private letGo(drag: Drag): void {
    const { session } = this;
    const { aim } = session.getState();
    if (drag.kind === 'grab' && hasMoved(drag)) return void (aim && session.input({ kind: 'drop', aim, reach: 0 }));
    if (drag.kind === 'grab') session.input({ kind: 'release' });
    // A tap of the brush was a stroke already.
    const isPainting = drag.kind === 'grab' && toolOf(session.getState().tool).paints === true;
    if (drag.kind !== 'pan' && !isPainting) session.setAtAim();
  }

  private dragTo(at: Vec, drag: Drag): void {
    const kind = drag.kind === 'press' && distance(at, drag.from) > CLICK_SLACK ? 'pan' : drag.kind;
    if (kind === 'pan') this.session.framing.pan(subtract(at, drag.last));
    this.drag = { ...drag, kind, last: at };
  }

  /** As far as a mouse reaches, on the view plane. */
  private reach(): number {
    const { viewport } = this.session.getState();
    const fitted = this.session.findFitted();
    const [a, b] = [sheetUnder(viewport, [0, 0]), sheetUnder(viewport, [GRAB, 0])].map(
      (p) => fitted?.placing.toPlane(p) ?? p,
    ) as [Vec, Vec];
    return distance(a, b);
  }
}
