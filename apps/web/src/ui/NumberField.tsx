import { useState } from 'react';
import { View } from 'react-native';
import { HelperText, IconButton, TextInput } from 'react-native-paper';
import { FONT, SPACE } from '../theme/theme';

interface Props {
  label: string;
  value: number;
  onChange: (value: number) => void;
  min: number;
  max: number;
  step?: number;
  whole?: boolean;
  suffix?: string;
  help?: string;
  autoFocus?: boolean;
  testID?: string;
}

const show = (v: number) => String(Math.round(v * 1e4) / 1e4);

/** A number with its range; a bad one says why and changes nothing. */
export function NumberField({ label, value, onChange, min, max, step, whole, suffix, help, autoFocus, testID }: Props) {
  const [typed, setText] = useState('');
  const [focused, setFocused] = useState(false);
  const text = focused ? typed : show(value);

  const why = (typed: string): string | undefined => {
    const number = Number(typed.replace(',', '.').replace(/\s/g, ''));
    if (typed.trim() === '' || !Number.isFinite(number)) return 'a number is needed here';
    if (whole && !Number.isInteger(number)) return 'a whole number is needed here';
    if (number < min) return `at least ${show(min)}`;
    if (number > max) return `at most ${show(max)}`;
    return undefined;
  };
  const type = (next: string) => {
    setText(next);
    if (!why(next)) onChange(Number(next.replace(',', '.').replace(/\s/g, '')));
  };
  const nudge = (by: number) => {
    const next = Math.min(max, Math.max(min, Math.round((value + by) * 1e6) / 1e6));
    onChange(next);
    setText(show(next));
  };
  const wrong = why(text);
  return (
    <View style={{ minWidth: 0 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <TextInput
          mode="outlined"
          dense
          label={label}
          aria-label={label}
          value={text}
          onChangeText={type}
          onFocus={() => {
            setText(show(value));
            setFocused(true);
          }}
          onBlur={() => setFocused(false)}
          autoFocus={autoFocus}
          selectTextOnFocus
          inputMode="decimal"
          error={!!wrong}
          testID={testID}
          style={{ flex: 1, minWidth: 0 }}
          contentStyle={{ fontFamily: FONT.mono }}
          right={suffix ? <TextInput.Affix text={suffix} /> : undefined}
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
      {(wrong || help) && (
        <HelperText type={wrong ? 'error' : 'info'} visible padding="none">
          {wrong ?? help}
        </HelperText>
      )}
    </View>
  );
}
