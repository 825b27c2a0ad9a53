import { View } from 'react-native';
import { BarChart } from 'react-native-gifted-charts';
import { formatTime } from '@tidypath/core';
import { FONT, SPACE, TYPE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Txt } from '../../ui/Txt';

interface Props {
  parts: { label: string; minutes: number }[];
}

const BAR = 22;
const LABEL = 110;

/** Where the time goes, longest first to the eye. */
export function TimeParts({ parts }: Props) {
  const palette = usePalette();
  const shown = parts.filter((p) => p.minutes > 0.001);
  if (shown.length === 0) return null;
  const longest = Math.max(...shown.map((p) => p.minutes));
  return (
    <View
      accessible
      role="img"
      aria-label={shown.map((p) => `${p.label} ${formatTime(p.minutes)}`).join(', ')}
      style={{ overflow: 'hidden', gap: SPACE.xs }}
    >
      <BarChart
        horizontal
        data={shown.map((p) => ({
          value: p.minutes,
          label: p.label,
          topLabelComponent: () => (
            <Txt mono kind="small">
              {formatTime(p.minutes)}
            </Txt>
          ),
        }))}
        barWidth={BAR}
        spacing={SPACE.m}
        maxValue={longest * 1.3}
        noOfSections={1}
        hideRules
        hideYAxisText
        xAxisThickness={0}
        yAxisThickness={0}
        frontColor={palette.accent}
        disablePress
        labelWidth={LABEL}
        xAxisTextNumberOfLines={1}
        xAxisLabelTextStyle={{
          color: palette.ink,
          fontFamily: FONT.text,
          fontSize: TYPE.small,
          width: LABEL,
          textAlign: 'left',
        }}
        yAxisLabelWidth={LABEL}
        height={230}
        initialSpacing={0}
        endSpacing={0}
      />
    </View>
  );
}
