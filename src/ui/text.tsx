import type { ReactNode } from 'react';
import { Text, type TextStyle } from 'react-native';
import { FONT, usePalette } from './palette';

interface TextProps {
  readonly children: ReactNode;
  readonly style?: TextStyle;
  readonly quiet?: boolean;
  readonly testID?: string;
  readonly lines?: number;
}

/** Running words. */
export function Words({ children, style, quiet, testID, lines }: TextProps) {
  const palette = usePalette();
  return (
    <Text
      testID={testID}
      numberOfLines={lines}
      style={[
        { fontFamily: FONT.text, fontSize: 15, lineHeight: 21, color: quiet ? palette.quiet : palette.ink },
        style,
      ]}>
      {children}
    </Text>
  );
}

/** Figures in columns: one width, slashed zero. */
export function Figures({ children, style, quiet, testID, lines }: TextProps) {
  const palette = usePalette();
  return (
    <Text
      testID={testID}
      numberOfLines={lines}
      style={[
        { fontFamily: FONT.figures, fontSize: 14, lineHeight: 20, color: quiet ? palette.quiet : palette.ink },
        style,
      ]}>
      {children}
    </Text>
  );
}

export function Title({ children, style, level = 1 }: TextProps & { level?: 1 | 2 }) {
  const palette = usePalette();
  return (
    <Text
      role="heading"
      aria-level={level}
      style={[
        {
          fontFamily: FONT.title,
          fontWeight: '600',
          fontSize: level === 1 ? 30 : 19,
          lineHeight: level === 1 ? 36 : 25,
          color: palette.ink,
        },
        style,
      ]}>
      {children}
    </Text>
  );
}
