import { Children, ReactNode } from 'react';
import { Pressable, View } from 'react-native';
import { SIZE, SPACE } from '../../theme/theme';
import { Txt } from '../../ui/Txt';

interface Props {
  left: string;
  right: string;
  onPress: () => void;
  testID?: string;
}

/** A line of figures that leads to its moment. */
export function LinkRow({ left, right, onPress, testID }: Props) {
  return (
    <Pressable
      role="button"
      testID={testID}
      onPress={onPress}
      style={{ minHeight: SIZE.touch, flexDirection: 'row', alignItems: 'center', gap: SPACE.s }}
    >
      <Txt style={{ flex: 1 }}>{left}</Txt>
      <Txt mono kind="small" tone="quiet">
        {right}
      </Txt>
    </Pressable>
  );
}

/** Such lines as a list; nothing where there are none. */
export function LinkList({ children }: { children: ReactNode }) {
  if (Children.count(children) === 0) return null;
  return (
    <View role="list">
      {Children.map(children, (row) => (
        <View role="listitem">{row}</View>
      ))}
    </View>
  );
}
