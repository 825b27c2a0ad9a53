import { LengthUnit, Operation, StepFigures, formatNumber, formatTime, formatVolume } from '@tidypath/core';
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
      <LinkList>
        {steps.map((s) => (
          <LinkRow
            key={s.operationId}
            left={operations.find((o) => o.id === s.operationId)?.name ?? ''}
            right={`${formatTime(s.minutes)}  ${formatVolume(s.removed * 1000, unit)}  ${formatNumber(s.load * 100, 0)} %`}
            onPress={() => onStep(s)}
          />
        ))}
      </LinkList>
      <Txt kind="small" tone="quiet">
        Time, metal removed, and the spindle’s greatest share of its power.
      </Txt>
    </Card>
  );
}
