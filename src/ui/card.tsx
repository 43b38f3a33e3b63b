import type { ReactNode, Ref } from 'react';
import { useWindowDimensions, View, type ViewStyle } from 'react-native';
import { WIDE } from './layout';
import { usePalette } from './palette';

/** A card on the ledge: `width` wide beside others, or as wide as a phone. */
export function Card({ children, chosen = false, width = 296, testID, style, innerRef }: { children: ReactNode; chosen?: boolean; width?: number; testID?: string | undefined; style?: ViewStyle; innerRef?: Ref<View> }) {
  const palette = usePalette();
  const wide = useWindowDimensions().width >= WIDE;
  return (
    <View ref={innerRef} testID={testID} style={[{ width: wide ? width : '100%', maxWidth: '100%', flexShrink: 0, backgroundColor: palette.paper, borderRadius: 8, borderWidth: 1, borderColor: chosen ? palette.hedge : palette.rule, padding: 10, gap: 6 }, style]}>
      {children}
    </View>
  );
}
