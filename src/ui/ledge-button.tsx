import { Pressable, Text } from 'react-native';
import { Icon, type IconName } from './icon';
import { FONT, usePalette } from './palette';

interface LedgeButtonProps {
  readonly icon: IconName;
  readonly label: string;
  readonly onPress: () => void;
  readonly chosen?: boolean;
  readonly disabled?: boolean;
  /** Read out after the label where the label alone says too little. */
  readonly name?: string;
  readonly testID?: string;
}

/** Begins with the word that is seen, so that who speaks to the machine can say it (WCAG 2.2, 2.5.3 Label in Name). */
const saidAloud = (label: string, name?: string) => (name === undefined ? label : `${label}: ${name}`);

/** A large target on the ledge: an icon with its word under it. */
export function LedgeButton({
  icon,
  label,
  onPress,
  chosen = false,
  disabled = false,
  name,
  testID,
}: LedgeButtonProps) {
  const palette = usePalette();
  const color = disabled ? palette.quiet : chosen ? palette.hedge : palette.ink;
  return (
    <Pressable
      testID={testID}
      accessibilityRole="button"
      accessibilityLabel={saidAloud(label, name)}
      aria-pressed={chosen}
      disabled={disabled}
      onPress={onPress}
      style={{
        minWidth: 58,
        height: 56,
        paddingHorizontal: 6,
        borderRadius: 8,
        alignItems: 'center',
        justifyContent: 'center',
        gap: 2,
        opacity: disabled ? 0.55 : 1,
        backgroundColor: chosen ? palette.leaf : 'transparent',
        borderWidth: 1,
        borderColor: chosen ? palette.hedge : 'transparent',
      }}>
      <Icon name={icon} color={color} />
      <Text style={{ fontFamily: FONT.text, fontSize: 12, lineHeight: 15, color }}>{label}</Text>
    </Pressable>
  );
}

/** A round target without a word under it; the word is read out. */
export function RoundButton({
  icon,
  name,
  onPress,
  disabled = false,
  testID,
  size = 44,
}: Omit<LedgeButtonProps, 'label' | 'chosen'> & { name: string; size?: number }) {
  const palette = usePalette();
  return (
    <Pressable
      testID={testID}
      accessibilityRole="button"
      accessibilityLabel={name}
      disabled={disabled}
      onPress={onPress}
      style={{
        width: size,
        height: size,
        borderRadius: size / 2,
        alignItems: 'center',
        justifyContent: 'center',
        opacity: disabled ? 0.35 : 1,
      }}>
      <Icon name={icon} color={palette.ink} />
    </Pressable>
  );
}

interface ChoiceProps<T extends string> {
  readonly value: T;
  readonly options: readonly (readonly [T, string])[];
  readonly onChange: (value: T) => void;
  readonly name: string;
  /** The name stands before the words, where they alone do not say what they are about. */
  readonly named?: boolean;
}

/** One of a few words. */
export function Choice<T extends string>({ value, options, onChange, name, named = false }: ChoiceProps<T>) {
  const palette = usePalette();
  return (
    <div
      role="radiogroup"
      aria-label={name}
      style={{ display: 'flex', flexWrap: 'wrap', gap: 4, alignItems: 'center' }}>
      {named ? (
        <Text style={{ fontFamily: FONT.text, fontSize: 14, color: palette.quiet, minWidth: 64 }}>{name}</Text>
      ) : null}
      {options.map(([option, label]) => (
        <Pressable
          key={option}
          accessibilityRole="radio"
          aria-checked={value === option}
          accessibilityLabel={label}
          onPress={() => onChange(option)}
          style={{
            height: 40,
            paddingHorizontal: 12,
            borderRadius: 20,
            justifyContent: 'center',
            borderWidth: 1,
            borderColor: value === option ? palette.hedge : palette.rule,
            backgroundColor: value === option ? palette.leaf : palette.paper,
          }}>
          <Text style={{ fontFamily: FONT.text, fontSize: 14, color: palette.ink }}>{label}</Text>
        </Pressable>
      ))}
    </div>
  );
}
