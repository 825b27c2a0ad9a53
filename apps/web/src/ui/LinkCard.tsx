import { Pressable } from 'react-native';
import { SIZE, SPACE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';

/** A card that leads somewhere. */
export function LinkCard({
  title,
  text,
  onPress,
  testID,
}: {
  title: string;
  text?: string;
  onPress: () => void;
  testID?: string;
}) {
  const palette = usePalette();
  return (
    <Pressable
      role="link"
      onPress={onPress}
      testID={testID}
      style={{
        minHeight: SIZE.touch,
        padding: SPACE.m,
        gap: SPACE.xs,
        borderRadius: SIZE.radius,
        borderWidth: 1,
        borderColor: palette.line,
        backgroundColor: palette.sheet,
      }}
    >
      <Txt bold>{title} ›</Txt>
      {text !== undefined && (
        <Txt kind="small" tone="quiet">
          {text}
        </Txt>
      )}
    </Pressable>
  );
}
