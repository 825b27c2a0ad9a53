import { View } from 'react-native';
import { Chip } from 'react-native-paper';
import { SPACE } from '../theme/theme';
import { Txt } from './Txt';

interface Props<T extends string> {
  label: string;
  value: T | undefined;
  options: readonly { value: T; label: string }[];
  onChange: (value: T) => void;
}

/** One of a few: every choice in sight. */
export function Choices<T extends string>({ label, value, options, onChange }: Props<T>) {
  return (
    <View role="radiogroup" aria-label={label} style={{ gap: SPACE.xs }}>
      <Txt kind="small" tone="quiet">
        {label}
      </Txt>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.s }}>
        {options.map((o) => (
          <Chip
            key={o.value}
            mode="outlined"
            selected={o.value === value}
            showSelectedCheck
            onPress={() => onChange(o.value)}
            accessibilityRole="radio"
            accessibilityLabel={o.label}
            accessibilityState={{ checked: o.value === value }}
          >
            {o.label}
          </Chip>
        ))}
      </View>
    </View>
  );
}

/** Turns plain words into options that read as themselves. */
export const plainOptions = <T extends string>(values: readonly T[]) =>
  values.map((value) => ({ value, label: value }));
