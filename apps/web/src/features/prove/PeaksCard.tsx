import { LengthUnit, MEASURES, Measure, Peak, formatTime } from '@tidypath/core';
import { Card } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { LinkList, LinkRow } from './LinkRow';
import { Txt } from '../../ui/Txt';
import { MEASURE_INFO } from './measures';

interface Props {
  measure: Measure;
  onMeasure: (measure: Measure) => void;
  peaks: Peak[];
  unit: LengthUnit;
  lines: Uint32Array;
  onPeak: (peak: Peak) => void;
}

/** What the ribbon shows, and its heaviest moments with their cause. */
export function PeaksCard({ measure, onMeasure, peaks, unit, lines, onPeak }: Props) {
  const { text } = MEASURE_INFO[measure];
  return (
    <Card testID="peaks">
      <Txt heading>Heaviest moments</Txt>
      <Choices
        label="The ribbon shows"
        value={measure}
        options={MEASURES.map((value) => ({ value, label: MEASURE_INFO[value].label }))}
        onChange={onMeasure}
      />
      <LinkList>
        {peaks.map((peak, i) => (
          <LinkRow
            key={peak.sample}
            testID={`peak-${i}`}
            left={`${text(peak.value, unit)} · ${peak.cause}`}
            right={`${formatTime(peak.time / 60)} · line ${lines[peak.motion]}`}
            onPress={() => onPeak(peak)}
          />
        ))}
      </LinkList>
    </Card>
  );
}
