import { Pressable, View } from 'react-native';
import { Icon } from '@/ui/icon';
import { usePalette } from '@/ui/palette';
import type { Vec } from '@/core/geometry';
import { AIM_RADIUS } from './aim';
import { useDesk, useSession } from './use-session';

const ARROWS: readonly { readonly by: Vec; readonly name: string; readonly icon: 'up' | 'down' | 'left' | 'right' }[] = [
  { by: [0, -1], name: 'Nudge up', icon: 'up' }, { by: [1, 0], name: 'Nudge right', icon: 'right' },
  { by: [0, 1], name: 'Nudge down', icon: 'down' }, { by: [-1, 0], name: 'Nudge left', icon: 'left' },
];
const SIZE = 44;

/** Four arrows around the patch after a point was set with a finger: each press moves it by one pixel of the patch. */
export function Nudger() {
  const palette = usePalette();
  const { session } = useDesk();
  const nudging = useSession((state) => state.nudging);
  const patch = useSession((state) => state.patch);
  const viewport = useSession((state) => state.viewport);
  if (!nudging || !patch) return null;
  const keep = (value: number, size: number) => Math.min(Math.max(2, value), size - SIZE - 2);
  return (
    <View style={{ position: 'absolute', left: 0, top: 0, right: 0, bottom: 0, pointerEvents: 'box-none' }}>
      {ARROWS.map(({ by, name, icon }) => (
        <Pressable
          key={name} accessibilityRole="button" accessibilityLabel={name} onPressIn={() => startRepeating(() => session.nudge(by))} onPressOut={stopRepeating}
          style={{
            position: 'absolute', width: SIZE, height: SIZE, borderRadius: SIZE / 2, alignItems: 'center', justifyContent: 'center', backgroundColor: palette.paper,
            borderWidth: 1, borderColor: palette.ink,
            left: keep(patch[0] + by[0] * (AIM_RADIUS + 30) - SIZE / 2, viewport.width), top: keep(patch[1] + by[1] * (AIM_RADIUS + 30) - SIZE / 2, viewport.height),
          }}
        >
          <Icon name={icon} color={palette.ink} size={20} />
        </Pressable>
      ))}
    </View>
  );
}

let repeating: ReturnType<typeof setInterval> | undefined;

/** At once, and ten times a second while it is held. */
function startRepeating(step: () => void): void {
  stopRepeating();
  step();
  let held = 0;
  repeating = setInterval(() => void (held++ > 3 && step()), 100);
}

function stopRepeating(): void {
  clearInterval(repeating);
  repeating = undefined;
}
