import { useEffect, useState } from 'react';

/** Shorter work than this needs no word. */
const LATE_MS = 300;

/** True once something has lasted for a while. */
export function useShownLate(lasting: boolean): boolean {
  const [late, setLate] = useState(false);
  useEffect(() => {
    if (!lasting) return setLate(false);
    const timer = setTimeout(() => setLate(true), LATE_MS);
    return () => clearTimeout(timer);
  }, [lasting]);
  return late && lasting;
}
