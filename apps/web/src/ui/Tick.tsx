import { Pressable } from 'react-native';
import { SIZE, SPACE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';
import { Icon } from './Icon';
import { Txt } from './Txt';

/** One of several that may all be chosen. */
export function Tick({ label, on, onPress }: { label: string; on: boolean; onPress: () => void }) {
  const palette = usePalette();
  return (
    <Pressable
      role="checkbox"
      aria-checked={on}
      aria-label={label}
      onPress={onPress}
      style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.s, minHeight: SIZE.touch }}
    >
      <Icon
        name={on ? 'checkbox-marked' : 'checkbox-blank-outline'}
        size={24}
        color={on ? palette.accent : palette.quiet}
      />
      <Txt bold={on}>{label}</Txt>
    </Pressable>
  );
}
