import { useState } from 'react';
import { View } from 'react-native';
import { LineChart } from 'react-native-gifted-charts';
import { FONT, SPACE, TYPE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';

interface Curve {
  name: string;
  /** Values at even steps of x. */
  values: number[];
}

interface Props {
  title: string;
  /** What a reader of the screen is told instead of the picture. */
  summary: string;
  x: { label: string; from: number; to: number; text: (v: number) => string };
  y: { label: string; text: (v: number) => string };
  curves: [Curve, Curve?];
  /** Where one stands: a share of the way along x, and the value there. */
  here?: { at: number; value: number };
  /** A limit drawn across. */
  limit?: { value: number; text: string };
}

const HEIGHT = 120;
const SECTIONS = 3;
const AXIS = 44;
const DOT = 14;

/** A curve that decides something, with the point one stands at. */
export function LineFigure({ title, summary, x, y, curves, here, limit }: Props) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const [main, other] = curves;
  const steps = main.values.length - 1;
  const top = Math.max(1e-9, ...main.values, ...(other?.values ?? []), here?.value ?? 0, limit?.value ?? 0) * 1.08;
  const index = here && Math.round(Math.min(1, Math.max(0, here.at)) * steps);
  const point = () => (
    <View
      style={{
        width: DOT,
        height: DOT,
        borderRadius: DOT / 2,
        borderWidth: 3,
        borderColor: palette.sheet,
        backgroundColor: palette.danger,
      }}
    />
  );
  const room = width - AXIS - SPACE.m;
  return (
    <View style={{ gap: SPACE.xs }} onLayout={(e) => setWidth(e.nativeEvent.layout.width)}>
      <Txt bold kind="small">
        {title}
      </Txt>
      <View accessible role="img" aria-label={summary} style={{ overflow: 'hidden', minHeight: HEIGHT + SPACE.l }}>
        {width > AXIS && (
          <LineChart
            data={main.values.map((value) => ({ value, hideDataPoint: true }))}
            data2={other?.values.map((value) => ({ value, hideDataPoint: true }))}
            data3={
              here &&
              main.values.map((_, i) =>
                i === index
                  ? { value: here.value, customDataPoint: point, dataPointHeight: DOT, dataPointWidth: DOT }
                  : { value: here.value, hideDataPoint: true },
              )
            }
            height={HEIGHT}
            width={room}
            spacing={room / steps}
            initialSpacing={0}
            endSpacing={0}
            disableScroll
            maxValue={top}
            noOfSections={SECTIONS}
            yAxisLabelTexts={Array.from({ length: SECTIONS + 1 }, (_, i) => y.text((top * i) / SECTIONS))}
            yAxisLabelWidth={AXIS}
            yAxisTextStyle={{ color: palette.quiet, fontFamily: FONT.mono, fontSize: TYPE.small - 2 }}
            yAxisColor={palette.line}
            xAxisColor={palette.line}
            rulesColor={palette.sunken}
            color={palette.accent}
            color2={palette.care}
            color3="transparent"
            thickness={2}
            thickness2={2}
            strokeDashArray2={[5, 4]}
            showReferenceLine1={!!limit}
            referenceLine1Position={limit?.value}
            referenceLine1Config={{ color: palette.danger, dashWidth: 3, dashGap: 4, thickness: 1 }}
          />
        )}
      </View>
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', paddingLeft: AXIS, gap: SPACE.s }}>
        <Txt kind="small" mono tone="quiet">
          {x.text(x.from)}
        </Txt>
        <Txt kind="small" tone="quiet" style={{ textAlign: 'center', flexShrink: 1 }}>
          {x.label} → {y.label}
          {other ? ` (– – ${other.name})` : ''}
          {limit ? `; ${limit.text}` : ''}
        </Txt>
        <Txt kind="small" mono tone="quiet">
          {x.text(x.to)}
        </Txt>
      </View>
    </View>
  );
}
