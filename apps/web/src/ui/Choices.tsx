import { Pressable, View } from 'react-native';
import { SIZE, SPACE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';

interface Props<T extends string> {
  label: string;
  value: T | undefined;
  options: readonly { value: T; label: string }[];
  onChange: (value: T) => void;
}

/** One of a few: every choice in sight, the chosen one ticked. */
export function Choices<T extends string>({ label, value, options, onChange }: Props<T>) {
  const palette = usePalette();
  return (
    <View role="radiogroup" aria-label={label} style={{ gap: SPACE.xs }}>
      <Txt kind="small" tone="quiet">
        {label}
      </Txt>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.s }}>
        {options.map((o) => {
          const chosen = o.value === value;
          return (
            <Pressable
              key={o.value}
              role="radio"
              aria-checked={chosen}
              onPress={() => onChange(o.value)}
              style={{
                minHeight: SIZE.touch,
                justifyContent: 'center',
                paddingHorizontal: SPACE.m,
                borderRadius: SIZE.radius,
                borderWidth: 1,
                borderColor: chosen ? palette.accent : palette.line,
                backgroundColor: chosen ? palette.accentSoft : palette.sheet,
              }}
            >
              <Txt bold={chosen}>
                {chosen ? '✓ ' : ''}
                {o.label}
              </Txt>
            </Pressable>
          );
        })}
      </View>
    </View>
  );
}

/** Turns plain words into options that read as themselves. */
export const plainOptions = <T extends string>(values: readonly T[]) =>
  values.map((value) => ({ value, label: value }));
