import { View } from 'react-native';
import Svg, { Line, Path } from 'react-native-svg';
import { Outcome, formatTime } from '@tidypath/core';
import { usePalette } from '../../theme/usePalette';
import { Txt } from '../../ui/Txt';

const [WIDE, HIGH] = [320, 36];

/** The loads of some ways over their time, all on one scale. */
export function Ribbons({ outcomes, name }: { outcomes: Outcome[]; name: (id: string) => string }) {
  const palette = usePalette();
  const cut = outcomes.flatMap(({ id, figures }) => (figures ? [{ id, figures }] : []));
  const longest = Math.max(1e-6, ...cut.map(({ figures }) => figures.minutes.cut + figures.minutes.back));
  const highest = Math.max(1, ...cut.map(({ figures }) => figures.load.peak));
  return (
    <View style={{ gap: 4 }}>
      {cut.map(({ id, figures: { ribbon, minutes, load } }) => {
        const wide = (WIDE * (minutes.cut + minutes.back)) / longest / ribbon.length;
        const top = (share: number) => HIGH - (HIGH * share) / highest;
        const line = ribbon.map((v, k) => `L${k * wide} ${top(v)}L${(k + 1) * wide} ${top(v)}`).join('');
        return (
          <View key={id}>
            <Txt kind="small">
              {name(id)}, {formatTime(minutes.cut + minutes.back)} fed
            </Txt>
            <Svg
              width="100%"
              height={HIGH}
              viewBox={`0 0 ${WIDE} ${HIGH}`}
              preserveAspectRatio="none"
              aria-label={`Load of ${name(id)}: at most ${Math.round(100 * load.peak)} %`}
            >
              <Path
                d={`M0 ${HIGH}${line}L${ribbon.length * wide} ${HIGH}Z`}
                fill={palette.accentSoft}
                stroke={palette.accent}
              />
              <Line x1={0} x2={WIDE} y1={top(1)} y2={top(1)} stroke={palette.danger} strokeDasharray="4 3" />
            </Svg>
          </View>
        );
      })}
      <Txt kind="small" tone="quiet">
        Height is the load, up to {Math.round(100 * highest)} % of the spindle; dashed: all it has. Width is the time
        fed.
      </Txt>
    </View>
  );
}
