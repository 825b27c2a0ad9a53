import { View } from 'react-native';
import { MachineView } from '@tidypath/controller';
import { LengthUnit, formatNumber, formatTime } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Card, Row } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { STATE_WORDS } from './words';

/** Lines of the program round the one under way. */
function ProgramLines({ lines, line }: Pick<MachineView, 'lines' | 'line'>) {
  const palette = usePalette();
  return (
    <View aria-label="Program" testID="control-lines" style={{ backgroundColor: palette.sunken, padding: SPACE.s }}>
      {lines.map((l) => (
        <Txt key={l.line} mono kind="small" bold={l.line === line} tone={l.line === line ? 'ink' : 'quiet'} lines={1}>
          {l.line === line ? '▸ ' : '  '}
          {l.text}
        </Txt>
      ))}
    </View>
  );
}

const AXES = ['x', 'y', 'z'] as const;

/** As a control counts: always the same decimals. */
const counted = (mm: number, unit: LengthUnit) => (unit === 'mm' ? mm.toFixed(3) : (mm / 25.4).toFixed(4));

/** Where the tip is, and how far it has to go. */
function Position({ place, toGo, unit }: Pick<MachineView, 'place' | 'toGo'> & { unit: LengthUnit }) {
  if (!place || !toGo) return null;
  return (
    <View testID="position">
      {AXES.map((axis) => (
        <View key={axis} style={{ flexDirection: 'row', alignItems: 'baseline' }}>
          <Txt bold style={{ width: 24 }}>
            {axis.toUpperCase()}
          </Txt>
          <Txt mono kind="large" style={{ flex: 1, textAlign: 'right' }}>
            {counted(place[axis], unit)}
          </Txt>
          <Txt mono tone="quiet" style={{ flex: 1, textAlign: 'right' }}>
            {counted(toGo[axis], unit)} to go
          </Txt>
        </View>
      ))}
    </View>
  );
}

/** How the control stands, what it runs, and where it is. */
export function ControlCard({
  view,
  unit,
  isPreparing,
}: {
  view: MachineView;
  unit: LengthUnit;
  isPreparing: boolean;
}) {
  const { state, alarm, asks, line, ran, whole, tool, rpm, feed, isRapid } = view;
  const isStop = state === 'alarm' || state === 'tool';
  return (
    <Card testID="control">
      <Row>
        <Txt heading kind="title" tone={isStop ? 'danger' : 'ink'} live testID="machine-state" style={{ flex: 1 }}>
          {isPreparing ? '↻ Works out what it is about to do' : STATE_WORDS[state]}
        </Txt>
        <Txt mono tone="quiet" label="Time of the program, run and in all">
          {formatTime(ran / 60)}
          {whole === undefined ? '' : ` / ${formatTime(whole / 60)}`}
        </Txt>
      </Row>
      {alarm && (
        <View role="alert" testID="alarm">
          <Txt bold tone="danger">
            {alarm.number} {alarm.what}, line {line}
          </Txt>
          {alarm.more && <Txt>{alarm.more}</Txt>}
          <Txt tone="quiet">{alarm.remedy}.</Txt>
        </View>
      )}
      {asks !== undefined && (
        <Txt bold tone="danger">
          Put in T{asks}
        </Txt>
      )}
      <ProgramLines lines={view.lines} line={line} />
      <Position place={view.place} toGo={view.toGo} unit={unit} />
      {tool !== undefined && (
        <Txt mono>
          T{tool} S{formatNumber(rpm ?? 0, 0)} {isRapid ? 'rapid' : `F${formatNumber(feed ?? 0, 0)}`}
        </Txt>
      )}
    </Card>
  );
}
