import { useEffect, useState } from 'react';

const TYPED_INTO = 'input:not([type=checkbox]):not([type=radio]):not([type=file]), textarea, [contenteditable=true]';

/** True while a field has the focus: on a phone the keyboard is up. */
export function useTyping(): boolean {
  const [typing, setTyping] = useState(false);
  useEffect(() => {
    const look = () => setTyping(document.activeElement?.matches(TYPED_INTO) ?? false);
    // What loses the focus to another field does so before that has it.
    const later = () => void setTimeout(look);
    document.addEventListener('focusin', look);
    document.addEventListener('focusout', later);
    return () => {
      document.removeEventListener('focusin', look);
      document.removeEventListener('focusout', later);
    };
  }, []);
  return typing;
}
