import type { ReactNode, Ref } from 'react';
import { View, type ViewStyle } from 'react-native';
import { usePalette } from './palette';

interface CardProps {
  readonly children: ReactNode;
  readonly chosen?: boolean;
  /** It takes the place of all columns, up to twice as wide as others. */
  readonly broad?: boolean;
  readonly testID?: string | undefined;
  readonly style?: ViewStyle;
  readonly innerRef?: Ref<View>;
}

const BROAD = { gridColumn: '1 / -1', maxWidth: 640 } as ViewStyle;

/** A card on the ledge: as wide as a column of it, or as a phone. */
export function Card({ children, chosen = false, broad = false, testID, style, innerRef }: CardProps) {
  const palette = usePalette();
  return (
    <View
      ref={innerRef}
      testID={testID}
      style={[
        {
          backgroundColor: palette.paper,
          borderRadius: 8,
          borderWidth: 1,
          borderColor: chosen ? palette.hedge : palette.rule,
          padding: 10,
          gap: 6,
        },
        broad && BROAD,
        style,
      ]}>
      {children}
    </View>
  );
}
