import { ReactNode } from 'react';
import { ScrollView, View } from 'react-native';
import { SPACE } from '../theme/theme';
import { useWide } from '../theme/usePalette';
import { scrollable } from '../ui/keys';
import { Txt } from '../ui/Txt';

const WIDEST = 1480;

/** A page outside a job: a title, what one can do first, and the content. */
export function Page({ title, actions, children }: { title: string; actions?: ReactNode; children: ReactNode }) {
  const wide = useWide();
  return (
    <ScrollView
      {...scrollable}
      contentContainerStyle={{
        padding: wide ? SPACE.xl : SPACE.l,
        gap: SPACE.l,
        maxWidth: WIDEST,
        width: '100%',
        alignSelf: wide ? 'flex-start' : 'center',
      }}
    >
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: SPACE.s }}>
        <Txt heading kind="title" style={{ flexGrow: 1 }}>
          {title}
        </Txt>
        {actions}
      </View>
      {children}
    </ScrollView>
  );
}
