import { View } from 'react-native';
import { LengthUnit, Operation, StepFigures, formatNumber, formatTime, formatVolume } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Card } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { LinkList, LinkRow } from './LinkRow';

interface Props {
  steps: StepFigures[];
  operations: Operation[];
  unit: LengthUnit;
  onStep: (step: StepFigures) => void;
}

/** What every operation did: its time, its metal, its load. */
export function StepsCard({ steps, operations, unit, onStep }: Props) {
  if (steps.length === 0) return null;
  return (
    <Card testID="steps">
      <Txt heading>Step by step</Txt>
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: SPACE.m }}>
        <Txt kind="small" tone="quiet">
          Operation
        </Txt>
        <Txt kind="small" tone="quiet">
          time · metal · spindle, most
        </Txt>
      </View>
      <LinkList>
        {steps.map((s) => (
          <LinkRow
            key={s.operationId}
            left={operations.find((o) => o.id === s.operationId)?.name ?? ''}
            right={`${formatTime(s.minutes)} · ${formatVolume(s.removed * 1000, unit)} · ${formatNumber(s.load * 100, 0)} %`}
            onPress={() => onStep(s)}
          />
        ))}
      </LinkList>
    </Card>
  );
}
