import { Pressable, Text } from 'react-native';
import { Icon, type IconName } from './icon';
import { FONT, usePalette } from './palette';

interface ToggleProps {
  readonly label: string;
  /** Read out in place of the label where that alone says too little; begins with it. */
  readonly name?: string;
  readonly icons: { readonly on: IconName; readonly off: IconName };
  readonly isOn: boolean;
  readonly onPress: () => void;
  readonly testID?: string;
}

/** One of several words of which any may be chosen. */
export function Toggle({ label, name = label, icons, isOn, onPress, testID }: ToggleProps) {
  const palette = usePalette();
  return (
    <Pressable
      testID={testID}
      accessibilityRole="button"
      accessibilityLabel={name}
      aria-pressed={isOn}
      onPress={onPress}
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 6,
        height: 40,
        paddingHorizontal: 12,
        borderRadius: 20,
        borderWidth: 1,
        borderColor: isOn ? palette.hedge : palette.rule,
        backgroundColor: isOn ? palette.leaf : palette.paper,
      }}>
      <Icon name={isOn ? icons.on : icons.off} color={isOn ? palette.hedge : palette.quiet} size={18} />
      <Text style={{ fontFamily: FONT.text, fontSize: 14, color: palette.ink }}>{label}</Text>
    </Pressable>
  );
}
