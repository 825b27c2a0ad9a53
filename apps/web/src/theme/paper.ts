import { MD3DarkTheme, MD3LightTheme, MD3Theme, configureFonts } from 'react-native-paper';
import { FONT, Palette, paletteOf } from './theme';

/** The components' theme, from the colours and fonts of the theme. */
const fonts = configureFonts({ config: { fontFamily: FONT.text } });

function themeFrom(base: MD3Theme, c: Palette): MD3Theme {
  return {
    ...base,
    roundness: 3,
    fonts,
    colors: {
      ...base.colors,
      primary: c.accent,
      onPrimary: c.onAccent,
      primaryContainer: c.accentSoft,
      onPrimaryContainer: c.ink,
      secondary: c.quiet,
      onSecondary: c.sheet,
      secondaryContainer: c.accentSoft,
      onSecondaryContainer: c.ink,
      background: c.background,
      onBackground: c.ink,
      surface: c.sheet,
      onSurface: c.ink,
      surfaceVariant: c.sunken,
      onSurfaceVariant: c.quiet,
      outline: c.quiet,
      outlineVariant: c.line,
      error: c.danger,
      onError: c.sheet,
      errorContainer: c.dangerSoft,
      onErrorContainer: c.ink,
      inverseSurface: c.ink,
      inverseOnSurface: c.sheet,
      inversePrimary: c.accentSoft,
      elevation: {
        level0: 'transparent',
        level1: c.sheet,
        level2: c.sheet,
        level3: c.sheet,
        level4: c.sheet,
        level5: c.sheet,
      },
    },
  };
}

export const lightTheme = themeFrom(MD3LightTheme, paletteOf(false));
export const darkTheme = themeFrom(MD3DarkTheme, paletteOf(true));
