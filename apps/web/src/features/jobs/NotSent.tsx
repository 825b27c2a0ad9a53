import { useRouter } from 'expo-router';
import { View } from 'react-native';
import useSWR from 'swr';
import { KEYS } from '../../api/keys';
import { unsent } from '../../api/outbox';
import { SPACE } from '../../theme/theme';
import { LinkCard } from '../../ui/LinkCard';
import { Txt } from '../../ui/Txt';

/** Between two looks, ms. */
const LOOK = 10_000;

/** Jobs of which something is kept here that the server has not got yet. */
export function NotSent() {
  const router = useRouter();
  const { data = [] } = useSWR(KEYS.unsent, unsent, { refreshInterval: LOOK });
  if (data.length === 0) return null;
  return (
    <View style={{ gap: SPACE.s }} testID="not-sent">
      <Txt kind="small" tone="care">
        ◆ Kept on this device until the server answers; what somebody else changed too is asked about when it is opened
      </Txt>
      {data.map(({ id, name, isNew }) => (
        <LinkCard
          key={id}
          title={name}
          text={isNew ? 'Made here' : 'Changed here'}
          onPress={() => router.push(`/job/${id}/part`)}
        />
      ))}
    </View>
  );
}
