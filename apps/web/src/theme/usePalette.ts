import { useWindowDimensions } from 'react-native';
import { useTheme } from 'react-native-paper';
import { Palette, SIZE, paletteOf } from './theme';

/** Colours of the theme in force. */
export function usePalette(): Palette {
  return paletteOf(useTheme().dark);
}

/** Whether there is room for view and route side by side. */
export function useWide(): boolean {
  return useWindowDimensions().width >= SIZE.wide;
}
