import { View } from 'react-native';
import { canKeep } from '../../shell/installed';
import { SPACE } from '../../theme/theme';
import { Txt } from '../../ui/Txt';

/** What this device can do without the server, and what would change it. */
export function ThisDevice() {
  return (
    <View style={{ gap: SPACE.s }}>
      <Txt heading kind="large">
        This device
      </Txt>
      {canKeep() ? (
        <Txt kind="small" testID="world">
          ✓ It keeps the app, and what it saw last: both are there without the server. Jobs changed meanwhile are sent
          once it answers.
        </Txt>
      ) : (
        <Txt kind="small" tone="care" testID="world">
          ◆ It came over plain http, so this browser keeps no copy of the app. What is open goes on without the server
          and is sent later, but nothing can be opened until it answers, and what is sent can be read on the way. Start
          the server with a certificate this device trusts (TIDYPATH_CERT, TIDYPATH_KEY) to change that.
        </Txt>
      )}
    </View>
  );
}
