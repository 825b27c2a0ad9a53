import { memo } from 'react';
import { Defs, Line, Path, Pattern, Rect } from 'react-native-svg';
import type { Measure, Samples } from '@tidypath/core';
import { SIZE, TEMPER, temperStep } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';

const BARS = 240;
/** Heights of the thinnest bar, of the line on top of one, and of the room above the highest. */
const LOOK = { least: 2, line: 1.4, above: 6 };

interface Bar {
  value: number;
  engagement: number;
  load: number;
}

/** The greatest load of every stretch of time. */
export function barsOf(samples: Samples, measure: Measure, total: number): Bar[] {
  const out: Bar[] = Array.from({ length: BARS }, () => ({ value: 0, engagement: 0, load: 0 }));
  for (let i = 0; i < samples.count; i++) {
    const bar = out[Math.min(BARS - 1, Math.floor((samples.time[i] / total) * BARS))];
    if (samples[measure][i] > bar.value) bar.value = samples[measure][i];
    if (samples.engagement[i] > bar.engagement) bar.engagement = samples.engagement[i];
    if (samples.load[i] > bar.load) bar.load = samples.load[i];
  }
  return out;
}

/** The bars, one shape for each colour: drawn anew only when they change, not while the program plays. */
export const RibbonBars = memo(function RibbonBars({
  list,
  highest,
  width,
}: {
  list: Bar[];
  highest: number;
  width: number;
}) {
  const palette = usePalette();
  const height = SIZE.ribbon;
  const wide = width / BARS + 0.4;
  const shape = (isIn: (bar: Bar) => boolean, line?: number) =>
    list
      .map((bar, i) => {
        if (bar.value <= 0 || !isIn(bar)) return '';
        const tall = Math.max(LOOK.least, (bar.value / highest) * (height - LOOK.above));
        const x = ((i / BARS) * width).toFixed(2);
        const y = (height - tall - (line ? 1 : 0)).toFixed(2);
        return `M${x} ${y}h${wide.toFixed(2)}v${(line ?? tall).toFixed(2)}h${(-wide).toFixed(2)}z`;
      })
      .join('');
  return (
    <>
      <Defs>
        <Pattern id="overload" width={5} height={5} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <Line x1={0} y1={0} x2={0} y2={5} stroke={palette.danger} strokeWidth={2} />
        </Pattern>
      </Defs>
      <Rect x={0} y={0} width={width} height={height} fill={palette.sunken} rx={4} />
      {TEMPER.map((colour, step) => (
        <Path key={colour} d={shape((bar) => temperStep(bar.engagement) === step)} fill={colour} />
      ))}
      <Path d={shape((bar) => bar.load > 1)} fill="url(#overload)" />
      <Path d={shape(() => true, LOOK.line)} fill={palette.ink} />
    </>
  );
});
