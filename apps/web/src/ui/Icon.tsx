import MaterialCommunityIcons from '@expo/vector-icons/MaterialCommunityIcons';
import { ComponentProps } from 'react';
import { View } from 'react-native';

export type IconName = ComponentProps<typeof MaterialCommunityIcons>['name'];

/** A picture beside words or inside a labelled button; screen readers pass over it. */
export function Icon({ name, size, color }: { name: IconName; size: number; color?: string }) {
  return (
    <View aria-hidden style={{ pointerEvents: 'none' }}>
      <MaterialCommunityIcons name={name} size={size} color={color} />
    </View>
  );
}
