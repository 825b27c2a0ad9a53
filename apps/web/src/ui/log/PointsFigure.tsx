import { useState } from 'react';
import { View } from 'react-native';
import { LineChart } from 'react-native-gifted-charts';
import { FONT, SPACE, TYPE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Txt } from '../Txt';

export interface Level {
  value: number;
  /** What it is, told below. */
  name: string;
  look: 'limit' | 'process' | 'aim';
}

interface Props {
  title: string;
  /** What a reader of the screen is told instead of the picture. */
  summary: string;
  /** In their order. */
  values: number[];
  text: (value: number) => string;
  /** What is counted along it. */
  along: string;
  /** Drawn across. */
  levels?: Level[];
  /** Places in the order that are no chance. */
  marked?: number[];
}

const HEIGHT = 130;
/** So many steps, or fewer. */
const SECTIONS = 4;
const AXIS = 64;
const DOT = 10;
/** Where all values are one, it shows so much round it, share. */
const LEAST = 1e-4;
const STEPS = [1, 2, 2.5, 5, 10];

/** Round steps that hold all values. */
function scaleOf(low: number, high: number): { from: number; to: number; step: number } {
  const room = Math.max(high - low, Math.abs(high) * LEAST, 1e-9);
  const rough = room / (SECTIONS - 1);
  const power = Math.pow(10, Math.floor(Math.log10(rough)));
  const step = power * STEPS.find((s) => s * power >= rough)!;
  return { from: step * Math.floor(low / step), to: step * Math.ceil(high / step + 1e-9), step };
}

/** Values in the order they were found, with levels across: what was wanted, and what the process does, told apart by dash and colour. */
export function PointsFigure({ title, summary, values, text, along, levels = [], marked = [] }: Props) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  if (values.length === 0) return null;
  const looks = {
    limit: { color: palette.danger, dash: [8, 4] },
    process: { color: palette.accent, dash: [2, 4] },
    aim: { color: palette.quiet, dash: [1, 3] },
  };
  const all = [...values, ...levels.map((l) => l.value)];
  const { from, to, step } = scaleOf(Math.min(...all), Math.max(...all));
  const sections = Math.round((to - from) / step);
  const wide = Math.max(1, width - AXIS - SPACE.l);
  const point = (index: number) => {
    const isMarked = marked.includes(index);
    const side = isMarked ? DOT + 4 : DOT;
    return (
      <View
        style={{
          width: side,
          height: side,
          borderRadius: isMarked ? 0 : side / 2,
          backgroundColor: isMarked ? palette.danger : palette.ink,
        }}
      />
    );
  };
  const across = levels.map(({ value, look }) => ({
    data: values.map(() => ({ value: value - from, hideDataPoint: true })),
    color: looks[look].color,
    strokeDashArray: looks[look].dash,
    thickness: 2,
  }));
  return (
    <View style={{ gap: SPACE.xs }} onLayout={(e) => setWidth(e.nativeEvent.layout.width)}>
      <Txt bold kind="small">
        {title}
      </Txt>
      <View accessible role="img" aria-label={summary} style={{ overflow: 'hidden', minHeight: HEIGHT + SPACE.l }}>
        {width > AXIS && (
          <LineChart
            dataSet={[
              ...across,
              {
                data: values.map((value, i) => ({
                  value: value - from,
                  customDataPoint: () => point(i),
                  dataPointHeight: DOT,
                  dataPointWidth: DOT,
                })),
                color: palette.line,
                thickness: 1,
              },
            ]}
            height={HEIGHT}
            width={wide}
            spacing={values.length > 1 ? (wide - DOT) / (values.length - 1) : wide}
            initialSpacing={DOT / 2}
            endSpacing={DOT / 2}
            disableScroll
            maxValue={to - from}
            noOfSections={sections}
            yAxisLabelTexts={Array.from({ length: sections + 1 }, (_, i) => text(from + i * step))}
            yAxisLabelWidth={AXIS}
            yAxisTextStyle={{ color: palette.quiet, fontFamily: FONT.mono, fontSize: TYPE.small - 2 }}
            yAxisColor={palette.line}
            xAxisColor={palette.line}
            rulesColor={palette.sunken}
          />
        )}
      </View>
      <Txt kind="small" tone="quiet" style={{ paddingLeft: AXIS }}>
        {along}
        {levels
          .filter((l, i) => levels.findIndex((m) => m.name === l.name) === i)
          .map((l) => `; ${l.look === 'limit' ? '– –' : '···'} ${l.name}`)
          .join('')}
        {marked.length > 0 ? '; ■ no chance' : ''}
      </Txt>
    </View>
  );
}
