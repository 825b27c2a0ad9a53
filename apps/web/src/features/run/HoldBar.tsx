import { Pressable, View } from 'react-native';
import { Button } from 'react-native-paper';
import { MachineState, MachineView, Press } from '@tidypath/controller';
import { SIZE, SPACE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Txt } from '../../ui/Txt';

/** The largest thing there is: found without looking. */
const HOLD = 88;

interface Props {
  view: MachineView;
  isPreparing: boolean;
  refused?: string;
  press: (one: Press) => void;
}

/** Hold while it runs, start where it stands, reset after an alarm: one thumb reaches them. */
export function HoldBar({ view: { state, asks }, isPreparing, refused, press }: Props) {
  const palette = usePalette();
  const large = largeOf(state);
  return (
    <View style={{ gap: SPACE.s }}>
      {refused && (
        <Txt tone="danger" live testID="refused">
          ▲ {refused}
        </Txt>
      )}
      {asks !== undefined && (
        <Button mode="contained" testID="put-in" onPress={() => press({ press: 'put in', n: asks })}>
          T{asks} is in
        </Button>
      )}
      <View style={{ flexDirection: 'row', gap: SPACE.s }}>
        <Pressable
          role="button"
          aria-label={NAMES[large]}
          testID="hold-or-start"
          onPress={() => press({ press: large })}
          style={{
            flex: 1,
            minHeight: HOLD,
            alignItems: 'center',
            justifyContent: 'center',
            borderRadius: SIZE.radius,
            backgroundColor: large === 'hold' ? palette.danger : palette.accent,
          }}
        >
          <Txt kind="title" bold style={{ color: large === 'hold' ? palette.sheet : palette.onAccent }}>
            {isPreparing ? '↻ ' : MARKS[large]}
            {WORDS[large]}
          </Txt>
        </Pressable>
        {UNDER_WAY.includes(state) && (
          <Button
            mode="outlined"
            testID="reset"
            style={{ justifyContent: 'center' }}
            onPress={() => press({ press: 'reset' })}
          >
            Reset
          </Button>
        )}
      </View>
    </View>
  );
}

/** What the large button does. */
const largeOf = (state: MachineState) => (state === 'running' ? 'hold' : state === 'alarm' ? 'reset' : 'start');
const NAMES = { hold: 'Feed hold', start: 'Cycle start', reset: 'Reset' } as const;
const WORDS = { hold: 'Hold', start: 'Start', reset: 'Reset' } as const;
const MARKS = { hold: '■ ', start: '▶ ', reset: '' } as const;
/** A program that waits in the middle can be given up. */
const UNDER_WAY: MachineState[] = ['held', 'block', 'waits', 'tool'];
