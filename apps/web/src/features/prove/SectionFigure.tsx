import { useState } from 'react';
import { View } from 'react-native';
import Svg, { Circle, Path } from 'react-native-svg';
import { CrossSection, formatNumber } from '@tidypath/core';
import { SIZE, SPACE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Txt } from '../../ui/Txt';

interface Props {
  section: CrossSection;
  /** Work zero along it and in height. */
  zero: { along: number; z: number };
  /** Where it was probed, part coordinates. */
  at: { along: number; z: number };
}

/** Heights are drawn so many times larger at most. */
const MOST_STRETCH = 4;
const EDGE = 4;

const lowestOf = ({ piles, wanted }: CrossSection) =>
  Math.min(...piles.flat(), ...wanted.filter((w): w is number => w !== undefined));

/** A cut through the piece: its metal filled, the wanted shape as a line over it. */
export function SectionFigure({ section, zero, at }: Props) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const { piles, wanted, step, from } = section;
  const top = Math.max(at.z, ...piles.flat());
  const low = lowestOf(section);
  const scale = (width - 2 * EDGE) / (piles.length * step);
  const tall = SIZE.ribbon;
  const up = Math.min(scale * MOST_STRETCH, (tall - 2 * EDGE) / Math.max(1e-6, top - low));
  const x = (k: number) => EDGE + k * step * scale;
  const y = (z: number) => EDGE + (top - z) * up;
  const metal = piles
    .flatMap((pile, k) =>
      Array.from(
        { length: pile.length / 2 },
        (_, p) => `M${x(k)} ${y(pile[2 * p])}H${x(k + 1)}V${y(pile[2 * p + 1])}H${x(k)}Z`,
      ),
    )
    .join('');
  const line = wanted
    .map((w, k) => (w === undefined ? '' : `${wanted[k - 1] === undefined ? 'M' : 'L'}${x(k)} ${y(w)}H${x(k + 1)}`))
    .join('');
  const along = section.along.toUpperCase();
  const end = (v: number) => `${along} ${formatNumber(v - zero.along, 1)}`;
  return (
    <View onLayout={(e) => setWidth(e.nativeEvent.layout.width)} style={{ gap: SPACE.xs }}>
      <View
        role="img"
        aria-label={`Section along ${along}: heights from Z ${formatNumber(low - zero.z, 2)} to Z ${formatNumber(top - zero.z, 2)}`}
      >
        {width > 0 && (
          <Svg width={width} height={2 * EDGE + (top - low) * up}>
            <Path d={metal} fill={palette.stock} stroke={palette.stock} strokeWidth={0.5} />
            <Path d={line} stroke={palette.ink} strokeWidth={1.5} fill="none" />
            <Circle cx={x((at.along - from) / step + 0.5)} cy={y(at.z)} r={EDGE} fill={palette.accent} />
          </Svg>
        )}
      </View>
      <View style={{ flexDirection: 'row', justifyContent: 'space-between' }}>
        <Txt kind="small" mono tone="quiet">
          {end(from)}
        </Txt>
        <Txt kind="small" tone="quiet">
          heights ×{formatNumber(up / scale, 1)}, line: wanted
        </Txt>
        <Txt kind="small" mono tone="quiet">
          {end(from + piles.length * step)}
        </Txt>
      </View>
    </View>
  );
}
