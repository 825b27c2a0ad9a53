import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { HelperText, IconButton, TextInput } from 'react-native-paper';
import { FONT, SPACE } from '../theme/theme';

/** What every field with a number in it has. */
export interface TypedFieldProps {
  label: string;
  help?: string;
  autoFocus?: boolean;
  testID?: string;
}

interface Props extends TypedFieldProps {
  /** What stands in it while nobody types. */
  shown: string;
  suffix?: string;
  /** Why this cannot be taken, if it cannot. */
  fault: (text: string) => string | undefined;
  /** How it was read, where that says more than what was typed. */
  echo?: (text: string) => string | undefined;
  /** Called with text that has no fault. */
  onText: (text: string) => void;
  /** Less and more; the field shows what came of it. */
  onStep?: (sign: 1 | -1) => string | undefined;
}

/** A tap takes less, ms. */
const TAP = 300;

/** Text that stays a moment longer: the tap that leaves a field must not find that everything below has moved up meanwhile. */
function useHeld(): [string | undefined, (text: string | undefined) => void] {
  const [held, setHeld] = useState<string>();
  useEffect(() => {
    if (held === undefined) return;
    const timer = setTimeout(() => setHeld(undefined), TAP);
    return () => clearTimeout(timer);
  }, [held]);
  return [held, setHeld];
}

/** A field that keeps what is typed while it is typed, takes it as soon as it makes sense, and otherwise says why not. */
export function TypedField(props: Props) {
  const { label, shown, suffix, help, autoFocus, testID, fault, echo, onText, onStep } = props;
  const [typed, setTyped] = useState<string>();
  const [held, hold] = useHeld();
  const text = typed ?? shown;
  const why = fault(text);
  const below = why ?? echo?.(text) ?? help;
  const line = below ?? held;
  const type = (next: string) => {
    setTyped(next);
    if (!fault(next)) onText(next);
  };
  const step = (sign: 1 | -1) => {
    const next = onStep?.(sign);
    if (next !== undefined) setTyped(typed === undefined ? undefined : next);
  };
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
          onFocus={() => setTyped(shown)}
          onBlur={() => {
            hold(below);
            setTyped(undefined);
          }}
          autoFocus={autoFocus}
          selectTextOnFocus
          error={!!why}
          testID={testID}
          style={{ flex: 1, minWidth: 0 }}
          contentStyle={{ fontFamily: FONT.mono }}
          right={suffix ? <TextInput.Affix text={suffix} /> : undefined}
        />
        {onStep && (
          <View style={{ flexDirection: 'row', marginLeft: SPACE.xs }}>
            <IconButton
              icon="minus"
              mode="contained-tonal"
              accessibilityLabel={`${label} less`}
              onPress={() => step(-1)}
            />
            <IconButton
              icon="plus"
              mode="contained-tonal"
              accessibilityLabel={`${label} more`}
              onPress={() => step(1)}
            />
          </View>
        )}
      </View>
      {line !== undefined && (
        <HelperText type={why ? 'error' : 'info'} visible padding="none">
          {line}
        </HelperText>
      )}
    </View>
  );
}
