import { useMemo, useState } from 'react';
import { LayoutChangeEvent, View } from 'react-native';
import Svg, { Line, Path, Rect } from 'react-native-svg';
import type { Finding, LengthUnit, Measure, Samples } from '@tidypath/core';
import { SIZE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Txt } from '../../ui/Txt';
import { MEASURE_INFO } from './measures';
import { RibbonBars, barsOf } from './RibbonBars';

interface Props {
  /** What a screen reader calls it. */
  label?: string;
  samples: Samples;
  unit: LengthUnit;
  /** What its height shows. */
  measure: Measure;
  /** Value of its full height; the greatest one when left out. */
  scale?: number;
  /** s. */
  total: number;
  time: number;
  flags: { time: number; finding: Finding }[];
  /** Without it, it only shows. */
  onSeek?: (time: number) => void;
  onFlag: (finding: Finding) => void;
}

const FLAG = 14;
/** Seconds an arrow key moves. */
const KEY_STEP = 2;

/** The load over time, which is the scrubber too: height is the measure, colour is the bite, hatching is overload. */
export function LoadRibbon({
  label = 'Load ribbon: time in the program',
  samples,
  unit,
  measure,
  scale,
  total,
  time,
  flags,
  onSeek,
  onFlag,
}: Props) {
  const palette = usePalette();
  const [width, setWidth] = useState(300);
  const list = useMemo(() => barsOf(samples, measure, Math.max(total, 1e-6)), [samples, measure, total]);
  const highest = scale ?? Math.max(1e-6, ...list.map((b) => b.value));
  const height = SIZE.ribbon;
  const x = (t: number) => (t / Math.max(total, 1e-6)) * width;
  const seekAt = (px: number) => onSeek?.(Math.min(total, Math.max(0, (px / width) * total)));
  const pointer = (event: { nativeEvent: { offsetX?: number; locationX?: number } }) =>
    seekAt(event.nativeEvent.offsetX ?? event.nativeEvent.locationX ?? 0);
  const web =
    onSeek &&
    ({
      onPointerDown: (e: { nativeEvent: PointerEvent; currentTarget: Element }) => {
        e.currentTarget.setPointerCapture?.(e.nativeEvent.pointerId);
        pointer(e as never);
      },
      onPointerMove: (e: { nativeEvent: PointerEvent; currentTarget: Element }) => {
        if (e.nativeEvent.buttons > 0) seekAt(e.nativeEvent.clientX - e.currentTarget.getBoundingClientRect().left);
      },
      onKeyDown: (e: { key: string; preventDefault: () => void }) => {
        const step = e.key === 'ArrowRight' ? KEY_STEP : e.key === 'ArrowLeft' ? -KEY_STEP : 0;
        if (!step) return;
        e.preventDefault();
        onSeek(Math.min(total, Math.max(0, time + step)));
      },
      tabIndex: 0,
    } as object);

  return (
    <View>
      <View style={{ flexDirection: 'row', justifyContent: 'space-between' }}>
        <Txt kind="small" tone="danger">
          {list.some((b) => b.load > 1) ? '▲ overload hatched' : ''}
        </Txt>
        <Txt kind="small" tone="quiet">
          {MEASURE_INFO[measure].label}, up to {MEASURE_INFO[measure].text(highest, unit)}
        </Txt>
      </View>
      <View
        aria-label={label}
        {...(onSeek
          ? {
              role: 'slider',
              'aria-valuemin': 0,
              'aria-valuemax': Math.round(total),
              'aria-valuenow': Math.round(time),
            }
          : { role: 'img' })}
        testID={onSeek && 'load-ribbon'}
        onLayout={(e: LayoutChangeEvent) => setWidth(Math.max(1, e.nativeEvent.layout.width))}
        style={{ height, cursor: onSeek ? 'pointer' : 'auto', touchAction: 'pan-y' } as object}
        {...web}
      >
        <Svg width={width} height={height} pointerEvents="none">
          <RibbonBars list={list} highest={highest} width={width} />
          {onSeek && <Line x1={x(time)} y1={0} x2={x(time)} y2={height} stroke={palette.ink} strokeWidth={2} />}
          {onSeek && <Path d={`M${x(time) - 5} 0 L${x(time) + 5} 0 L${x(time)} 7 Z`} fill={palette.ink} />}
        </Svg>
      </View>
      <View style={{ height: flags.length ? SIZE.touch / 2 : 0 }}>
        {flags.map(({ time: t, finding }, i) => (
          <View key={i} style={{ position: 'absolute', left: Math.min(width - FLAG, Math.max(0, x(t) - FLAG / 2)) }}>
            <Svg
              width={FLAG}
              height={FLAG}
              onPress={() => onFlag(finding)}
              accessibilityLabel={`Flag: ${finding.message}`}
            >
              {finding.level === 'stop' ? (
                <Path d={`M${FLAG / 2} 0 L${FLAG} ${FLAG} L0 ${FLAG} Z`} fill={palette.danger} />
              ) : (
                <Rect
                  x={2}
                  y={2}
                  width={FLAG - 4}
                  height={FLAG - 4}
                  fill={palette.care}
                  transform={`rotate(45 ${FLAG / 2} ${FLAG / 2})`}
                />
              )}
            </Svg>
          </View>
        ))}
      </View>
    </View>
  );
}
