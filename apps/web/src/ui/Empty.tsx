import { ReactNode } from 'react';
import { View } from 'react-native';
import { SPACE } from '../theme/theme';
import { Txt } from './Txt';

/** What a list says when it has nothing, with the first thing to do. */
export function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <View style={{ padding: SPACE.xl, gap: SPACE.m, alignItems: 'flex-start' }}>
      <Txt kind="large" bold>
        {title}
      </Txt>
      {children}
    </View>
  );
}
