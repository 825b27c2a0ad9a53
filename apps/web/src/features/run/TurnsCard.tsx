import { useState } from 'react';
import { View } from 'react-native';
import { Button, IconButton } from 'react-native-paper';
import { MachineView, OVERRIDES, Press } from '@tidypath/controller';
import { SPACE } from '../../theme/theme';
import { Card, Row } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { Fold } from '../../ui/Fold';
import { NumberField } from '../../ui/NumberField';
import { Tick } from '../../ui/Tick';
import { Txt } from '../../ui/Txt';

const NAMES = { feed: 'Feed', rapid: 'Rapid', speed: 'Spindle' } as const;
type Name = keyof typeof NAMES;

/** One override, up and down by its steps. */
function Turn({ which, percent, onTurn }: { which: Name; percent: number; onTurn: (percent: number) => void }) {
  const steps: readonly number[] = OVERRIDES[which];
  const at = steps.indexOf(percent);
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center' }}>
      <Txt style={{ flex: 1 }}>{NAMES[which]}</Txt>
      <IconButton
        icon="minus"
        mode="outlined"
        accessibilityLabel={`${NAMES[which]} less`}
        disabled={at <= 0}
        onPress={() => onTurn(steps[at - 1])}
      />
      <Txt mono bold testID={`override-${which}`} style={{ width: 64, textAlign: 'center' }}>
        {percent} %
      </Txt>
      <IconButton
        icon="plus"
        mode="outlined"
        accessibilityLabel={`${NAMES[which]} more`}
        disabled={at === steps.length - 1}
        onPress={() => onTurn(steps[at + 1])}
      />
    </View>
  );
}

const PACES = ['1', '10', '100'] as const;

interface Props {
  view: MachineView;
  pace: number;
  press: (one: Press) => void;
  onPace: (pace: number) => void;
  onOnward: () => void;
}

/** Overrides, switches, and how fast its time passes. */
export function TurnsCard({ view: { overrides, switches, state }, pace, press, onPace, onOnward }: Props) {
  const [from, setFrom] = useState(1);
  const turn = (which: keyof MachineView['switches'], label: string) => (
    <Tick
      label={label}
      on={!!switches[which]}
      onPress={() => press({ press: 'switch', which, on: !switches[which] })}
    />
  );
  return (
    <Card testID="turns">
      {(Object.keys(NAMES) as Name[]).map((which) => (
        <Turn
          key={which}
          which={which}
          percent={overrides[which]}
          onTurn={(n) => press({ press: 'override', which, n })}
        />
      ))}
      <Row style={{ gap: SPACE.l }}>
        {turn('singleBlock', 'Single block')}
        {turn('optionalStop', 'Optional stop')}
        {turn('blockSkip', 'Block skip')}
        {turn('door', 'Door open')}
      </Row>
      <Choices
        label="Its time passes"
        value={String(pace) as (typeof PACES)[number]}
        options={PACES.map((value) => ({ value, label: value === '1' ? 'as it is' : `${value} ×` }))}
        onChange={(value) => onPace(Number(value))}
      />
      {(state === 'ready' || state === 'done') && (
        <Fold label="Begin at a line">
          {() => (
            <Row>
              <NumberField label="Line" value={from} onChange={setFrom} min={1} max={10_000_000} whole />
              <Button compact mode="outlined" onPress={() => press({ press: 'start at', n: from })}>
                Begin there
              </Button>
            </Row>
          )}
        </Fold>
      )}
      <Button mode="outlined" disabled={state !== 'running'} onPress={onOnward} testID="onward">
        On to where it stops next
      </Button>
    </Card>
  );
}
