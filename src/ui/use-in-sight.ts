import { useEffect, useRef, type RefObject } from 'react';
import type { View } from 'react-native';

/** For a card that comes into sight when it is chosen. */
export function useInSight(chosen: boolean): RefObject<View | null> {
  const card = useRef<View>(null);
  useEffect(() => {
    if (chosen) (card.current as unknown as HTMLElement | null)?.scrollIntoView({ block: 'start', inline: 'nearest' });
  }, [chosen]);
  return card;
}
