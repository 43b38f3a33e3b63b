import { useEffect, useState } from 'react';

/** Shorter work than this needs no word. */
const LATE_MS = 300;

/** True once something has lasted for a while. */
export function useShownLate(lasting: boolean): boolean {
  const [late, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLate(lasting), lasting ? LATE_MS : 0);
    return () => clearTimeout(timer);
  }, [lasting]);
  return late && lasting;
}
