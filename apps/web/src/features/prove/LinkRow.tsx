import { Pressable } from 'react-native';
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
