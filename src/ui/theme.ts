import { configureFonts, MD3DarkTheme, MD3LightTheme, type MD3Theme } from 'react-native-paper';
import { FONT, paletteFor } from './palette';

/** Paper's theme in the colours and letters of the bench. */
export function paperTheme(dark: boolean): MD3Theme {
  const palette = paletteFor(dark);
  const base = dark ? MD3DarkTheme : MD3LightTheme;
  return {
    ...base,
    roundness: 2,
    fonts: configureFonts({ config: { fontFamily: FONT.text } }),
    colors: {
      ...base.colors,
      primary: palette.hedge,
      onPrimary: palette.onHedge,
      primaryContainer: palette.leaf,
      onPrimaryContainer: palette.ink,
      secondary: palette.tide,
      secondaryContainer: palette.leaf,
      onSecondaryContainer: palette.ink,
      background: palette.bench,
      onBackground: palette.ink,
      surface: palette.paper,
      onSurface: palette.ink,
      surfaceVariant: palette.paper,
      onSurfaceVariant: palette.quiet,
      outline: palette.quiet,
      outlineVariant: palette.rule,
      error: palette.berry,
      inverseSurface: palette.ink,
      inverseOnSurface: palette.paper,
      inversePrimary: palette.leaf,
      elevation: {
        level0: 'transparent',
        level1: palette.paper,
        level2: palette.paper,
        level3: palette.paper,
        level4: palette.paper,
        level5: palette.paper,
      },
    },
  };
}
