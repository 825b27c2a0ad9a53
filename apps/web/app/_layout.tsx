import { AtkinsonHyperlegible_400Regular } from '@expo-google-fonts/atkinson-hyperlegible/400Regular';
import { AtkinsonHyperlegible_700Bold } from '@expo-google-fonts/atkinson-hyperlegible/700Bold';
import { IBMPlexMono_400Regular } from '@expo-google-fonts/ibm-plex-mono/400Regular';
import { useFonts } from 'expo-font';
import { Slot } from 'expo-router';
import { useColorScheme } from 'react-native';
import { PaperProvider } from 'react-native-paper';
import { SWRConfig } from 'swr';
import { Broken } from '../src/shell/Broken';
import { Door } from '../src/shell/Door';
import { Shell } from '../src/shell/Shell';
import { Icon, IconName } from '../src/ui/Icon';
import { darkTheme, lightTheme } from '../src/theme/paper';
import { FONT } from '../src/theme/theme';

const ICONS = {
  icon: ({ name, size, color }: { name: unknown; size: number; color?: string }) => (
    <Icon name={name as IconName} size={size} color={color} />
  ),
};

/** In place of a blank page, for every route. */
export { Broken as ErrorBoundary };

export default function RootLayout() {
  const dark = useColorScheme() === 'dark';
  const [ready] = useFonts({
    [FONT.text]: AtkinsonHyperlegible_400Regular,
    [FONT.bold]: AtkinsonHyperlegible_700Bold,
    [FONT.mono]: IBMPlexMono_400Regular,
  });
  if (!ready) return null;
  return (
    <PaperProvider theme={dark ? darkTheme : lightTheme} settings={ICONS}>
      <SWRConfig value={{ revalidateOnFocus: false, shouldRetryOnError: true, errorRetryInterval: 3000 }}>
        <Door>
          <Shell>
            <Slot />
          </Shell>
        </Door>
      </SWRConfig>
    </PaperProvider>
  );
}
