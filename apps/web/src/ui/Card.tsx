import { Children, ReactNode } from 'react';
import { StyleProp, View, ViewStyle } from 'react-native';
import { SIZE, SPACE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';

/** A raised sheet of paper. */
export function Card({
  children,
  style,
  testID,
}: {
  children: ReactNode;
  style?: StyleProp<ViewStyle>;
  testID?: string;
}) {
  const palette = usePalette();
  return (
    <View
      testID={testID}
      style={[
        {
          backgroundColor: palette.sheet,
          borderRadius: SIZE.radius,
          borderWidth: 1,
          borderColor: palette.line,
          padding: SPACE.m,
          gap: SPACE.s,
        },
        style,
      ]}
    >
      {children}
    </View>
  );
}

/** Things side by side that wrap. */
export function Row({ children, style }: { children: ReactNode; style?: StyleProp<ViewStyle> }) {
  return (
    <View style={[{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: SPACE.s }, style]}>
      {children}
    </View>
  );
}

/** Fields side by side, each as wide as the room allows; they wrap on a phone. */
export function Fields({ children }: { children: ReactNode }) {
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.s }}>
      {Children.map(children, (child) => child && <View style={{ flexGrow: 1, flexBasis: SIZE.field }}>{child}</View>)}
    </View>
  );
}
