import { View } from 'react-native';
import useSWR from 'swr';
import type { ShelfName } from '@tidypath/core';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { SPACE } from '../theme/theme';
import { FindingList } from './FindingList';

/** What stands on a shelf of the shop and cannot be read, with why; nothing where all is well. */
export function UnreadItems({ shelf }: { shelf: ShelfName }) {
  const { data } = useSWR(KEYS.unread(shelf), () => api.unread(shelf));
  if (!data?.length) return null;
  return (
    <View testID={`unread-${shelf}`} style={{ gap: SPACE.s }}>
      <FindingList findings={data} goTo={() => undefined} goLabel="" />
    </View>
  );
}
