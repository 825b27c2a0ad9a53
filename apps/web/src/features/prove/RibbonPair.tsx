import { View } from 'react-native';
import { LengthUnit, Measure, formatTime } from '@tidypath/core';
import { Txt } from '../../ui/Txt';
import { LoadRibbon } from './LoadRibbon';
import { highestOf } from './measures';
import type { LoadStretch } from './stretches';

const nowhere = () => undefined;

interface Props {
  pair: [LoadStretch, LoadStretch];
  measure: Measure;
  unit: LengthUnit;
}

/** Two loads one above the other, on the same scale of height and time. */
export function RibbonPair({ pair, measure, unit }: Props) {
  const scale = highestOf(measure, pair[0].samples, pair[1].samples);
  const total = Math.max(...pair.map((s) => s.seconds));
  return pair.map(({ name, seconds, samples }, i) => (
    <View key={i}>
      <Txt kind="small">
        {name}, {formatTime(seconds / 60)}
      </Txt>
      <LoadRibbon
        label={`Load: ${name}`}
        samples={samples}
        measure={measure}
        unit={unit}
        scale={scale}
        total={total}
        time={0}
        flags={[]}
        onFlag={nowhere}
      />
    </View>
  ));
}
