import { ReactNode, useState, useSyncExternalStore } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { ApiError, api } from '../api/client';
import { shut } from '../api/flags';
import { usePalette } from '../theme/usePalette';
import { Txt } from '../ui/Txt';
import { Page } from './Page';

/** Asks a device for the pass phrase of the shop where the server does. */
export function Door({ children }: { children: ReactNode }) {
  const palette = usePalette();
  const isShut = useSyncExternalStore(shut.listen, shut.now, shut.now);
  const [phrase, setPhrase] = useState('');
  const [name, setName] = useState('');
  const [why, setWhy] = useState('');
  if (!isShut) return children;
  const knock = async () => {
    try {
      await api.comeIn(phrase, name.trim());
      window.location.reload();
    } catch (error) {
      setWhy((error as ApiError).message);
    }
  };
  return (
    <View style={{ flex: 1, backgroundColor: palette.background }}>
      <Page title="Tidy Path">
        <Txt>This server lets in devices that know the pass phrase of the shop.</Txt>
        <TextInput
          mode="outlined"
          secureTextEntry
          label="Pass phrase of the shop"
          aria-label="Pass phrase of the shop"
          value={phrase}
          onChangeText={setPhrase}
          testID="door-phrase"
        />
        <TextInput
          mode="outlined"
          label="Name of this device"
          aria-label="Name of this device"
          placeholder="bench phone"
          maxLength={40}
          value={name}
          onChangeText={setName}
          onSubmitEditing={() => void knock()}
          testID="door-name"
        />
        {why !== '' && <Txt tone="danger" live>{`▲ ${why}`}</Txt>}
        <Button
          mode="contained"
          disabled={!phrase || !name.trim()}
          onPress={() => void knock()}
          style={{ alignSelf: 'flex-start' }}
        >
          Come in
        </Button>
      </Page>
    </View>
  );
}
