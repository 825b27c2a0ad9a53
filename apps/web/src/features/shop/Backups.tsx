import { View } from 'react-native';
import { Button } from 'react-native-paper';
import useSWR from 'swr';
import { api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { SPACE } from '../../theme/theme';
import { Txt } from '../../ui/Txt';
import { saveFrom } from '../../ui/files';

/** The whole shop as one file to take away, and what the server makes by itself. */
export function Backups() {
  const { data } = useSWR(KEYS.backups, api.backups);
  const last = data?.daily[0]?.replace(/^tidypath-|\.db$/g, '');
  return (
    <View style={{ gap: SPACE.s, alignItems: 'flex-start' }}>
      <Txt heading kind="large">
        Backups
      </Txt>
      <Txt kind="small" tone="quiet">
        {last ? `The server made one by itself on ${last}, beside its data. ` : ''}
        One that is to survive the machine belongs on another: take it away here. To bring it back, stop the server and
        run “npm run restore -- FILE”. Copying the database file while the server runs is no backup: the last changes
        are not in it.
      </Txt>
      <Button mode="outlined" icon="download-outline" onPress={() => saveFrom(api.backupFile)}>
        Take a backup
      </Button>
    </View>
  );
}
