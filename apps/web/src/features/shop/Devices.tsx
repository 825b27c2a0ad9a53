import { formatDistanceToNow } from 'date-fns';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import useSWR from 'swr';
import { api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { SPACE } from '../../theme/theme';
import { Card, Row } from '../../ui/Card';
import { Txt } from '../../ui/Txt';

/** The devices that were let in, where the server asks for a phrase; each can be shown out again. */
export function Devices() {
  const { data, mutate } = useSWR(KEYS.devices, api.devices, { shouldRetryOnError: false });
  if (!data) return null;
  return (
    <View style={{ gap: SPACE.s }}>
      <Txt heading kind="large">
        Devices
      </Txt>
      {data.devices.map((d) => (
        <Card key={d.id}>
          <Row>
            <Txt style={{ flexGrow: 1 }}>
              {d.name}
              {d.id === data.here ? ', this one' : ''}, seen{' '}
              {formatDistanceToNow(new Date(d.seenAt), { addSuffix: true })}
            </Txt>
            <Button compact mode="outlined" onPress={() => void api.showOut(d.id).then(() => mutate())}>
              Show out
            </Button>
          </Row>
        </Card>
      ))}
    </View>
  );
}
