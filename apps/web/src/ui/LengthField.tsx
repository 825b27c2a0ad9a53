import { useState } from 'react';
import { View } from 'react-native';
import { HelperText, IconButton, TextInput } from 'react-native-paper';
import { LengthUnit, formatLength, lengthNumber, parseLength } from '@tidypath/core';
import { FONT, SPACE } from '../theme/theme';

interface Props {
  label: string;
  /** mm. */
  value: number;
  unit: LengthUnit;
  onChange: (mm: number) => void;
  min?: number;
  max?: number;
  /** Step of the buttons, mm; none without it. */
  step?: number;
  /** mm that 100 % stands for. */
  shareOf?: number;
  help?: string;
  autoFocus?: boolean;
  testID?: string;
}

const plain = (mm: number, unit: LengthUnit) => lengthNumber(mm, unit).replace(/\u2009/g, '');

function fault(mm: number, { min, max, unit }: Pick<Props, 'min' | 'max' | 'unit'>): string | undefined {
  if (min !== undefined && mm < min - 1e-9) return `at least ${formatLength(min, unit)}`;
  if (max !== undefined && mm > max + 1e-9) return `at most ${formatLength(max, unit)}`;
  return undefined;
}

/** A length as people write it; what it was read as, or why it cannot be, stands below. The last good value is kept. */
export function LengthField(props: Props) {
  const { label, value, unit, onChange, step, shareOf, help, autoFocus, testID } = props;
  const [typed, setText] = useState('');
  const [focused, setFocused] = useState(false);
  const text = focused ? typed : plain(value, unit);

  const read = parseLength(text, unit, shareOf);
  const why = read.ok ? fault(read.mm, props) : read.why;
  const echo = read.ok && text.trim() !== plain(read.mm, unit) ? `= ${formatLength(read.mm, unit)}` : help;

  const type = (next: string) => {
    setText(next);
    const parsed = parseLength(next, unit, shareOf);
    if (parsed.ok && !fault(parsed.mm, props) && Math.abs(parsed.mm - value) > 1e-9) onChange(parsed.mm);
  };
  const nudge = (by: number) => {
    const next = Math.round((value + by) * 1e6) / 1e6;
    if (fault(next, props)) return;
    onChange(next);
    setText(plain(next, unit));
  };

  return (
    <View style={{ minWidth: 0 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <TextInput
          mode="outlined"
          dense
          label={label}
          value={text}
          onChangeText={type}
          onFocus={() => {
            setText(plain(value, unit));
            setFocused(true);
          }}
          onBlur={() => setFocused(false)}
          autoFocus={autoFocus}
          selectTextOnFocus
          error={!!why}
          testID={testID}
          aria-label={label}
          style={{ flex: 1, minWidth: 0 }}
          contentStyle={{ fontFamily: FONT.mono }}
          right={<TextInput.Affix text={unit === 'mm' ? 'mm' : 'in'} />}
        />
        {step !== undefined && (
          <View style={{ flexDirection: 'row', marginLeft: SPACE.xs }}>
            <IconButton
              icon="minus"
              mode="contained-tonal"
              accessibilityLabel={`${label} less`}
              onPress={() => nudge(-step)}
            />
            <IconButton
              icon="plus"
              mode="contained-tonal"
              accessibilityLabel={`${label} more`}
              onPress={() => nudge(step)}
            />
          </View>
        )}
      </View>
      {(why || echo) && (
        <HelperText type={why ? 'error' : 'info'} visible padding="none">
          {why ?? echo}
        </HelperText>
      )}
    </View>
  );
}
