import { useState } from 'react';
import { Pressable, View } from 'react-native';
import Svg, { Line, Path, Rect } from 'react-native-svg';
import { HeightPicture, LengthUnit, PickedHeight, formatLength } from '@tidypath/core';
import { SIZE, SPACE } from '../../../theme/theme';
import { usePalette } from '../../../theme/usePalette';
import { Txt } from '../../../ui/Txt';

interface Props {
  picture: HeightPicture;
  unit: LengthUnit;
  /** What is picked, as it is read aloud. */
  label: string;
  names: (level: PickedHeight) => string;
  isPicked: (level: PickedHeight) => boolean;
  onPick: (level: PickedHeight) => void;
}

/** Width of the strip that leads from a height to its name. */
const LEAD = 22;
const LEAST = 140;
const EDGE = 10;
const HATCH = 6;

/** How far a height lies above or below the part's top. */
export const sayDeep = (z: number, unit: LengthUnit): string => {
  if (Math.abs(z) < 1e-6) return '';
  return z > 0 ? `${formatLength(z, unit)} above` : `${formatLength(-z, unit)} deep`;
};

/** Part and stock cut through the middle of the work; every height that means something can be picked where it lies. */
export function HeightSection({ picture, unit, label, names, isPicked, onPick }: Props) {
  const palette = usePalette();
  const [width, setWidth] = useState(0);
  const { levels, stock, surface, thickness, from, step, start, end } = picture;
  const tall = Math.max(LEAST, levels.length * SIZE.touch);
  const top = Math.max(stock.top, ...levels.map((l) => l.z), start);
  const low = Math.min(stock.bottom, -thickness);
  const room = Math.max(0, width - LEAD);
  const x = (mm: number) => ((mm - from) / (surface.length * step)) * room;
  const y = (z: number) => EDGE + ((top - z) / Math.max(1e-6, top - low)) * (tall - 2 * EDGE);
  const part = surface
    .map((z, i) => {
      if (z === undefined) return '';
      return `M${x(from + i * step)} ${y(z)}H${x(from + (i + 1) * step)}V${y(-thickness)}H${x(from + i * step)}Z`;
    })
    .join('');
  const mid = (i: number) => ((i + 0.5) * tall) / levels.length;
  const band = end === undefined ? 0 : Math.max(0, y(end) - y(start));
  const strokes = Array.from({ length: Math.ceil(band / HATCH) }, (_, i) => y(start) + i * HATCH);
  return (
    <View style={{ flexDirection: 'row' }}>
      <View style={{ flex: 1 }} onLayout={(e) => setWidth(e.nativeEvent.layout.width)}>
        {width > LEAD && (
          <Svg width={width} height={tall}>
            <Rect
              x={x(stock.from)}
              y={y(stock.top)}
              width={x(stock.to) - x(stock.from)}
              height={y(stock.bottom) - y(stock.top)}
              fill={palette.stock}
              opacity={0.45}
            />
            <Path d={part} fill={palette.stock} stroke={palette.stock} strokeWidth={0.5} />
            {strokes.map((at) => (
              <Line key={at} x1={0} x2={room} y1={at} y2={at} stroke={palette.accent} strokeWidth={0.7} opacity={0.5} />
            ))}
            {levels.map((level, i) => {
              const picked = isPicked(level);
              const stroke = picked ? palette.accent : palette.quiet;
              return (
                <Path
                  key={`${level.height.at} ${level.height.feature ?? ''}`}
                  d={`M0 ${y(level.z)}H${room}L${room + LEAD} ${mid(i)}`}
                  stroke={stroke}
                  strokeWidth={picked ? 2 : 0.8}
                  strokeDasharray={picked ? undefined : '2 3'}
                  fill="none"
                />
              );
            })}
          </Svg>
        )}
      </View>
      <View role="radiogroup" aria-label={label} style={{ width: '48%', height: tall }}>
        {levels.map((level) => {
          const picked = isPicked(level);
          return (
            <Pressable
              key={`${level.height.at} ${level.height.feature ?? ''}`}
              role="radio"
              aria-checked={picked}
              testID={`height-${level.height.at}${level.height.feature ? `-${level.height.feature}` : ''}`}
              onPress={() => onPick(level)}
              style={{
                flex: 1,
                minHeight: SIZE.touch,
                justifyContent: 'center',
                paddingHorizontal: SPACE.s,
                borderRadius: SIZE.radius,
                backgroundColor: picked ? palette.accentSoft : 'transparent',
              }}
            >
              <Txt bold={picked} kind="small" lines={1}>
                {picked ? '✓ ' : ''}
                {names(level)}
              </Txt>
              {level.z !== 0 && (
                <Txt kind="small" mono tone="quiet">
                  {sayDeep(level.z, unit)}
                </Txt>
              )}
            </Pressable>
          );
        })}
      </View>
    </View>
  );
}
