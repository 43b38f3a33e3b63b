import { View } from 'react-native';
import { usePalette } from './palette';
import { Figures, Words } from './text';

/** A share that is set by sliding, with its word before it and its figure after it. */
export function Slider({
  label,
  value,
  min,
  max,
  onChange,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  onChange: (value: number) => void;
}) {
  const palette = usePalette();
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10, height: 40 }}>
      <Words style={{ width: 84 }}>{label}</Words>
      <input
        type="range"
        aria-label={label}
        min={min}
        max={max}
        step={0.05}
        value={value}
        onChange={(event) => onChange(Number(event.target.value))}
        style={{ flex: 1, minWidth: 0, height: 40, accentColor: palette.hedge }}
      />
      <Figures style={{ width: 44, textAlign: 'right' }}>{`${Math.round(value * 100)}%`}</Figures>
    </View>
  );
}
