import { memo } from 'react';
import { View } from 'react-native';
import type { Gauge } from '@tidypath/core';
import { SPACE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';

const WORD: Record<Gauge['state'], string> = { under: 'too little', good: 'within limits', over: 'too much' };
const BAR = 8;

const same = (a: { gauge: Gauge }, b: { gauge: Gauge }) =>
  a.gauge.value === b.gauge.value && a.gauge.high === b.gauge.high && a.gauge.text === b.gauge.text;

/** A quantity against its limits: the good stretch is drawn, the value is a mark, and a shape tells when it is outside. */
export const GaugeBar = memo(function GaugeBar({ gauge }: { gauge: Gauge }) {
  const palette = usePalette();
  const share = (v: number) => `${Math.min(100, Math.max(0, (v / gauge.scale) * 100))}%` as const;
  const good = gauge.state === 'good';
  return (
    <View
      accessible
      role="img"
      aria-label={`${gauge.label} ${gauge.text}, ${WORD[gauge.state]}`}
      testID={`gauge-${gauge.id}`}
      style={{ flexGrow: 1, flexBasis: 76, gap: SPACE.xs }}
    >
      <Txt kind="small" tone="quiet">
        {gauge.label}
      </Txt>
      <View style={{ height: BAR, borderRadius: BAR / 2, backgroundColor: palette.sunken }}>
        <View
          style={{
            position: 'absolute',
            left: share(gauge.low),
            right: `${100 - Math.min(100, (gauge.high / gauge.scale) * 100)}%`,
            height: BAR,
            borderRadius: BAR / 2,
            backgroundColor: palette.line,
          }}
        />
        <View
          style={{
            position: 'absolute',
            left: share(gauge.value),
            top: -3,
            width: 4,
            height: BAR + 6,
            marginLeft: -2,
            borderRadius: 2,
            backgroundColor: good ? palette.accent : palette.danger,
          }}
        />
      </View>
      <Txt kind="small" mono tone={good ? 'ink' : 'danger'}>
        {good ? '' : '▲ '}
        {gauge.text}
      </Txt>
    </View>
  );
}, same);
