import type { Vec } from '@/core/geometry';
import { AT_REST, stepGesture, type Gesture, type GestureEffect, type TouchInput } from './gesture';
import type { Session } from './session';
import { middleOfBench } from './viewport';
import { Mouse, type PlaceOf } from './mouse';
import { holdsSomething, toolOf } from './tools';

/** Binds fingers, mouse, pen, wheel and keys of the bench to the session. Returns how to let go of it again. */
export function attachPointing(element: HTMLElement, session: Session): () => void {
  const stop = new AbortController();
  const on = <K extends keyof HTMLElementEventMap>(name: K, handler: (event: HTMLElementEventMap[K]) => void) =>
    element.addEventListener(name, handler, { signal: stop.signal, passive: false });
  const placeOf = (event: { clientX: number; clientY: number }): Vec => {
    const box = element.getBoundingClientRect();
    return [event.clientX - box.left, event.clientY - box.top];
  };
  attachTouch(on, placeOf, session);
  const mouse = new Mouse(element, placeOf, session);
  on('pointerdown', (event) => event.pointerType !== 'touch' && mouse.down(event));
  on('pointermove', (event) => event.pointerType !== 'touch' && mouse.move(event));
  on('pointerup', (event) => event.pointerType !== 'touch' && mouse.up());
  on('wheel', (event) => {
    event.preventDefault();
    session.framing.zoom(placeOf(event), Math.exp(-event.deltaY * (event.deltaMode === 1 ? 0.05 : 0.0016)));
  });
  on('keydown', (event) => {
    if (handleKey(event, session)) event.preventDefault();
  });
  on('contextmenu', (event) => event.preventDefault());
  return () => stop.abort();
}

type On = <K extends keyof HTMLElementEventMap>(name: K, handler: (event: HTMLElementEventMap[K]) => void) => void;
function attachTouch(on: On, placeOf: PlaceOf, session: Session): void {
  let gesture: Gesture = AT_REST;
  const feed = (input: TouchInput) => {
    const [next, effects] = stepGesture(gesture, input);
    gesture = next;
    for (const effect of effects) {
      if (toolOf(session.getState().tool).paints && paintWith(effect, session)) continue;
      if (effect.kind === 'aim') session.aimAtScreen(effect.screen, 'touch', effect.unaided);
      else if (effect.kind === 'set') session.lift(effect.screen, effect.unaided);
      else if (effect.kind === 'drop-aim') session.dropAim();
      else {
        session.framing.pan(effect.by);
        session.framing.zoom(effect.about, effect.factor);
      }
    }
    session.framing.setHeld(gesture.kind !== 'rest');
  };
  const placed = (kind: 'down' | 'move') => (event: PointerEvent) => {
    if (event.pointerType !== 'touch') return;
    event.preventDefault();
    feed({ kind, finger: event.pointerId, at: placeOf(event), time: event.timeStamp });
  };
  on('pointerdown', placed('down'));
  on('pointermove', placed('move'));
  on(
    'pointerup',
    (event) => event.pointerType === 'touch' && feed({ kind: 'up', finger: event.pointerId, time: event.timeStamp }),
  );
  on('pointercancel', (event) => event.pointerType === 'touch' && feed({ kind: 'lost', finger: event.pointerId }));
}

/** With the brush a finger paints from where it is put down to where it is lifted; a second finger takes the stroke back. */
function paintWith(effect: GestureEffect, session: Session): boolean {
  if (effect.kind === 'pan-zoom') return false;
  if (effect.kind === 'drop-aim') {
    session.input({ kind: 'cancel' });
    return false;
  }
  session.aimAtScreen(effect.screen, 'touch', effect.unaided);
  const { aim, tool } = session.getState();
  if (!aim) return true;
  if (effect.kind === 'set') session.input({ kind: 'drop', aim, reach: 0 });
  else if (!session.isReadOnly()) session.input({ kind: holdsSomething(tool) ? 'drag' : 'grab', aim, reach: 0 });
  if (effect.kind === 'set') session.dropAim();
  return true;
}

const ARROWS: Readonly<Record<string, Vec>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** True when the key was for the bench. Arrows move the aim, after a set (or with Alt) they nudge; Enter sets. */
function handleKey(event: KeyboardEvent, session: Session): boolean {
  const { viewport, aim, nudging, pointer } = session.getState();
  const arrow = ARROWS[event.key];
  if (arrow) {
    const by: Vec = event.shiftKey ? [arrow[0] * 10, arrow[1] * 10] : arrow;
    if (event.altKey || (nudging && pointer === 'mouse')) session.nudge(by);
    else session.moveAim(by);
    return true;
  }
  const middle = middleOfBench(viewport);
  switch (event.key) {
    case 'Enter':
      if (aim) session.setAtAim();
      return true;
    case 'n':
      session.catchNext();
      return true;
    case 'Escape':
      session.input({ kind: 'cancel' });
      return true;
    case 'Backspace':
      session.input({ kind: 'back' });
      return true;
    case '+':
      session.framing.zoom(middle, 1.3);
      return true;
    case '-':
      session.framing.zoom(middle, 1 / 1.3);
      return true;
    case '0':
      session.framing.showAll();
      return true;
    default:
      return false;
  }
}
