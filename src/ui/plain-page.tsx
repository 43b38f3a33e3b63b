import type { ReactNode } from 'react';
import { View } from 'react-native';
import { usePalette } from './palette';

/** A page with nothing but a few words and ways on, in its middle. */
export function PlainPage({ children, testID }: { children: ReactNode; testID?: string }) {
  const palette = usePalette();
  return (
    <View
      style={{
        flex: 1,
        alignItems: 'center',
        justifyContent: 'center',
        gap: 14,
        padding: 24,
        backgroundColor: palette.bench,
      }}
      role="main"
      testID={testID}>
      {children}
    </View>
  );
}
