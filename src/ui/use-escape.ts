import { useEffect } from 'react';

/** While a dialog is open, Escape leaves it, wherever the focus is. */
export function useEscape(onLeave: () => void, open = true): void {
  useEffect(() => {
    if (!open) return;
    const leave = (event: KeyboardEvent) => {
      if (event.key !== 'Escape') return;
      event.stopPropagation();
      onLeave();
    };
    window.addEventListener('keydown', leave, true);
    return () => window.removeEventListener('keydown', leave, true);
  }, [onLeave, open]);
}
