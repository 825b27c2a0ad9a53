import { View } from 'react-native';
import { BarChart } from 'react-native-gifted-charts';
import { formatTime } from '@tidypath/core';
import { FONT, SPACE, TYPE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Txt } from '../../ui/Txt';

interface Props {
  parts: { label: string; minutes: number }[];
}

const BAR = 44;
/** Between bars; less where a fourth must find room on a narrow page. */
const GAP = 34;
const NARROW_GAP = 22;
const HEIGHT = 110;

/** Where the time goes. */
export function TimeParts({ parts }: Props) {
  const palette = usePalette();
  const shown = parts.filter((p) => p.minutes > 0.001);
  if (shown.length === 0) return null;
  const longest = Math.max(...shown.map((p) => p.minutes));
  const gap = shown.length > 3 ? NARROW_GAP : GAP;
  return (
    <View
      accessible
      role="img"
      aria-label={shown.map((p) => `${p.label} ${formatTime(p.minutes)}`).join(', ')}
      style={{ overflow: 'hidden', marginTop: SPACE.s }}
    >
      <BarChart
        data={shown.map((p) => ({
          value: p.minutes,
          label: p.label,
          topLabelComponent: () => (
            <Txt mono kind="small">
              {formatTime(p.minutes)}
            </Txt>
          ),
          topLabelContainerStyle: { height: TYPE.large, top: -TYPE.large },
        }))}
        barWidth={BAR}
        spacing={gap}
        endSpacing={0}
        disableScroll
        initialSpacing={SPACE.m}
        height={HEIGHT}
        maxValue={longest * 1.2}
        noOfSections={1}
        hideRules
        hideYAxisText
        yAxisLabelWidth={0}
        yAxisThickness={0}
        xAxisColor={palette.line}
        frontColor={palette.accent}
        barBorderTopLeftRadius={4}
        barBorderTopRightRadius={4}
        labelWidth={BAR + gap}
        xAxisLabelTextStyle={{
          color: palette.ink,
          fontFamily: FONT.text,
          fontSize: TYPE.small,
          textAlign: 'center',
          marginLeft: -gap / 2,
        }}
        disablePress
      />
    </View>
  );
}
