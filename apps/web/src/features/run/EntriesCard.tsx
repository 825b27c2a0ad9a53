import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { MachineView, Press, Register } from '@tidypath/controller';
import { LengthUnit, formatLength, formatNumber } from '@tidypath/core';
import { Card, Row } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { Txt } from '../../ui/Txt';
import { Touched, TouchSheet } from './TouchSheet';

/** A register may be off by so much against the sheet, mm. */
const OFF = 0.1;
/** Less use of an edge is not told. */
const SHOWN_WEAR = 0.01;

interface LengthProps {
  register: Register;
  unit: LengthUnit;
  onTouch: () => void;
  onNew: () => void;
}

/** A length register against the sheet, and how its tool has fared. */
function Length({ register, unit, onTouch, onNew }: LengthProps) {
  const { tool, name, entered, sheet, worn, broke } = register;
  const off = entered === undefined ? undefined : entered - sheet;
  const isOff = off === undefined || Math.abs(off) > OFF;
  return (
    <View testID={`register-${tool}`}>
      <Row>
        <Txt style={{ flex: 1, minWidth: 150 }}>
          T{tool} {name}
        </Txt>
        <Button compact onPress={onTouch} accessibilityLabel={`Touch off T${tool}`}>
          Touch off
        </Button>
      </Row>
      <Txt kind="small" mono tone={isOff ? 'danger' : 'quiet'}>
        H{tool} {entered === undefined ? 'empty' : formatLength(entered, unit)}
        {', '}
        {off !== undefined && isOff
          ? `▲ ${formatNumber(Math.abs(off), 3)} mm ${off < 0 ? 'shorter' : 'longer'} than the sheet`
          : off === undefined
            ? '▲ not set'
            : '✓ as the sheet'}
      </Txt>
      {(broke || worn > SHOWN_WEAR) && (
        <Row>
          <Txt kind="small" tone={broke ? 'danger' : 'quiet'} style={{ flex: 1 }}>
            {broke ? '▲ It is broken' : `${Math.round(100 * worn)} % of an edge used`}
          </Txt>
          <Button compact onPress={onNew} accessibilityLabel={`Put in a new T${tool}`}>
            Put in a new one
          </Button>
        </Row>
      )}
    </View>
  );
}

const AXES = ['x', 'y', 'z'] as const;
const LIFTS = ['0', '20', '50'] as const;

interface Props {
  view: MachineView;
  unit: LengthUnit;
  offset: string;
  press: (one: Press) => void;
}

/** Zero and tool lengths as they are entered; touched off, typed, or tried above the part. */
export function EntriesCard({ view, unit, offset, press }: Props) {
  const [touched, setTouched] = useState<Touched>();
  const { zero, registers, lift } = view;
  const open = AXES.filter((a) => zero[a] === undefined);
  return (
    <Card testID="entries">
      <Txt heading bold>
        Zero and lengths
      </Txt>
      <Txt tone={open.length > 0 ? 'danger' : 'ink'} testID="zero-state">
        {open.length > 0
          ? `▲ ${offset} is not set along ${open.join(', ').toUpperCase()}`
          : `${offset} at ${AXES.map((a) => `${a.toUpperCase()} ${formatNumber(zero[a]!, 3)}`).join('  ')} of the machine`}
      </Txt>
      <Row>
        {AXES.map((axis) => (
          <Button key={axis} compact mode="outlined" onPress={() => setTouched({ axis })}>
            Touch off {axis.toUpperCase()}
          </Button>
        ))}
      </Row>
      {registers.map((r) => (
        <Length
          key={r.tool}
          register={r}
          unit={unit}
          onTouch={() => setTouched({ tool: r.tool })}
          onNew={() => press({ press: 'put in', n: r.tool })}
        />
      ))}
      <Choices
        label="Runs"
        value={String(lift) as (typeof LIFTS)[number]}
        options={LIFTS.map((value) => ({ value, label: value === '0' ? 'at the part' : `${value} mm above it` }))}
        onChange={(value) => press({ press: 'lift', mm: Number(value) })}
      />
      {touched && (
        <TouchSheet
          key={JSON.stringify(touched)}
          touched={touched}
          registers={registers}
          unit={unit}
          press={press}
          onClose={() => setTouched(undefined)}
        />
      )}
    </Card>
  );
}
