import { useEffect, useRef } from 'react';
import { Pressable, View } from 'react-native';
import type { SessionState } from '@/bench/session-state';
import { toolOf } from '@/bench/tools';
import { useDesk, useSession } from '@/bench/use-session';
import type { Vec } from '@/core/geometry';
import { Icon } from '@/ui/icon';
import { usePalette } from '@/ui/palette';

const ARROWS: readonly { readonly by: Vec; readonly name: string; readonly icon: 'up' | 'down' | 'left' | 'right' }[] =
  [
    { by: [-1, 0], name: 'Nudge left', icon: 'left' },
    { by: [0, -1], name: 'Nudge up', icon: 'up' },
    { by: [0, 1], name: 'Nudge down', icon: 'down' },
    { by: [1, 0], name: 'Nudge right', icon: 'right' },
  ];
const FIRST_WAIT_MS = 400;
const REPEAT_MS = 90;

/** What else could have been meant where one pointed; undefined where nothing could. */
function otherMeant({ tool, aim, turn }: SessionState): string | undefined {
  if (toolOf(tool).picks) return 'within' in tool.state && tool.state.within ? 'Choose what lies under it' : undefined;
  return aim?.snap !== undefined || turn > 0 ? 'Catch something else here' : undefined;
}

/** Four arrows after a point was set with a finger: each press moves it by one pixel of the patch, held down they repeat. Where it was caught, also a way to what else could have been meant. */
export function NudgeRow() {
  const palette = usePalette();
  const { session } = useDesk();
  const other = useSession(otherMeant);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const press = (by: Vec, wait: number) => {
    session.nudge(by);
    timer.current = setTimeout(() => press(by, REPEAT_MS), wait);
  };
  return (
    <View style={{ flexDirection: 'row' }} role="group" aria-label="Nudge the point">
      {ARROWS.map(({ by, name, icon }) => (
        <Pressable
          key={name}
          accessibilityRole="button"
          accessibilityLabel={name}
          onPressIn={() => press(by, FIRST_WAIT_MS)}
          onPressOut={() => clearTimeout(timer.current)}
          style={{
            width: 46,
            height: 46,
            alignItems: 'center',
            justifyContent: 'center',
            borderLeftWidth: 1,
            borderLeftColor: palette.rule,
          }}>
          <Icon name={icon} color={palette.ink} size={20} />
        </Pressable>
      ))}
      {other ? (
        <Pressable
          accessibilityRole="button"
          accessibilityLabel={other}
          onPress={() => session.catchNext()}
          testID="catch-next"
          style={{
            width: 46,
            height: 46,
            alignItems: 'center',
            justifyContent: 'center',
            borderLeftWidth: 1,
            borderLeftColor: palette.rule,
          }}>
          <Icon name="magnet" color={palette.ink} size={20} />
        </Pressable>
      ) : null}
    </View>
  );
}
