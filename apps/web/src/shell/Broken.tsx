import { View } from 'react-native';
import { Button, PaperProvider } from 'react-native-paper';
import { lightTheme } from '../theme/paper';
import { SPACE } from '../theme/theme';
import { Empty } from '../ui/Empty';
import { Txt } from '../ui/Txt';

/** Stands where a page could not be drawn: what happened, that the work is kept, and ways on. */
export function Broken({ error, retry }: { error: Error; retry: () => Promise<void> }) {
  const details = `${error.name}: ${error.message}\n${window.location.pathname}\n${error.stack ?? ''}`;
  return (
    <PaperProvider theme={lightTheme}>
      <View style={{ flex: 1, backgroundColor: lightTheme.colors.background }} testID="broken">
        <Empty title="This page could not be shown">
          <Txt live>{error.message}</Txt>
          <Txt tone="quiet">
            Your work is kept: what was saved is at the server, what was not is on this device and comes back when the
            job is opened.
          </Txt>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.s, justifyContent: 'center' }}>
            <Button mode="contained" onPress={() => window.location.assign('/')}>
              To the jobs
            </Button>
            <Button mode="outlined" onPress={() => void retry()}>
              Try again
            </Button>
            <Button mode="outlined" onPress={() => void navigator.clipboard?.writeText(details)}>
              Copy the details
            </Button>
          </View>
        </Empty>
      </View>
    </PaperProvider>
  );
}
