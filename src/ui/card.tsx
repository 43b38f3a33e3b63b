import type { ReactNode } from 'react';
import { View, type ViewStyle } from 'react-native';
import { usePalette } from './palette';

/** A card on the ledge. */
export function Card({ children, chosen = false, width = 296, testID, style }: { children: ReactNode; chosen?: boolean; width?: number | '100%'; testID?: string | undefined; style?: ViewStyle }) {
  const palette = usePalette();
  return (
    <View testID={testID} style={[{ width, maxWidth: '100%', backgroundColor: palette.paper, borderRadius: 8, borderWidth: 1, borderColor: chosen ? palette.hedge : palette.rule, padding: 10, gap: 6 }, style]}>
      {children}
    </View>
  );
}
