import { ReactNode, memo, useCallback, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { SPACE } from '../theme/theme';

const Opener = memo(function Opener({ label, onPress }: { label: string; onPress: () => void }) {
  return (
    <Button compact onPress={onPress} style={{ alignSelf: 'flex-start' }}>
      {label}
    </Button>
  );
});

/** Something more, worked out and shown only when asked for. */
export function Fold({ label, testID, children }: { label: string; testID?: string; children: () => ReactNode }) {
  const [open, setOpen] = useState(false);
  const turn = useCallback(() => setOpen((o) => !o), []);
  return (
    <View>
      <Opener label={label} onPress={turn} />
      {open && (
        <View style={{ gap: SPACE.m }} testID={testID}>
          {children()}
        </View>
      )}
    </View>
  );
}
