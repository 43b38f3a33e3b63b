/** From this width of the window on, CSS px, the steps stand in a column and cards lie side by side. */
const WIDE = 900;
/** Lower than this, and from this width on, it is a phone that is held sideways. */
const LOW = { height: 480, width: 560 };

/** How the desk is laid out: as on a wide screen, on a phone, or on a phone held sideways. */
export type DeskLayout = 'wide' | 'phone' | 'sideways';

export function layoutFor(width: number, height: number): DeskLayout {
  if (height < LOW.height && width >= LOW.width) return 'sideways';
  return width >= WIDE ? 'wide' : 'phone';
}
