import { useEffect, useRef } from 'react';
import { Pressable, View } from 'react-native';
import { useDesk } from '@/bench/use-session';
import type { Vec } from '@/core/geometry';
import { Icon } from '@/ui/icon';
import { usePalette } from '@/ui/palette';

const ARROWS: readonly { readonly by: Vec; readonly name: string; readonly icon: 'up' | 'down' | 'left' | 'right' }[] = [
  { by: [-1, 0], name: 'Nudge left', icon: 'left' }, { by: [0, -1], name: 'Nudge up', icon: 'up' },
  { by: [0, 1], name: 'Nudge down', icon: 'down' }, { by: [1, 0], name: 'Nudge right', icon: 'right' },
];
const FIRST_WAIT_MS = 400;
const REPEAT_MS = 90;

/** Four arrows after a point was set with a finger: each press moves it by one pixel of the patch, held down they repeat. */
export function NudgeRow() {
  const palette = usePalette();
  const { session } = useDesk();
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const press = (by: Vec, wait: number) => {
    session.nudge(by);
    timer.current = setTimeout(() => press(by, REPEAT_MS), wait);
  };
  return (
    <View style={{ flexDirection: 'row' }} role="group" aria-label="Nudge the point">
      {ARROWS.map(({ by, name, icon }) => (
        <Pressable key={name} accessibilityRole="button" accessibilityLabel={name} onPressIn={() => press(by, FIRST_WAIT_MS)} onPressOut={() => clearTimeout(timer.current)}
          style={{ width: 46, height: 46, alignItems: 'center', justifyContent: 'center', borderLeftWidth: 1, borderLeftColor: palette.rule }}>
          <Icon name={icon} color={palette.ink} size={20} />
        </Pressable>
      ))}
    </View>
  );
}
