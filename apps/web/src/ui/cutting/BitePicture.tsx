import { View } from 'react-native';
import Svg, { Circle, ClipPath, Defs, G, Line, Path, Rect, Text } from 'react-native-svg';
import { CutState, LengthUnit, Tool, bentShape, degrees, formatNumber, profileOutline, thin } from '@tidypath/core';
import { FONT, SPACE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Txt } from '../Txt';

interface Props {
  tool: Tool;
  state: CutState;
  ae: number;
  ap: number;
  unit: LengthUnit;
}

const SIZE = 150;
/** Pieces a bent length is drawn in. */
const PIECES = 12;
/** Chips are drawn this many times thicker than they are, bending this many times larger, so that they can be seen. */
const magnified = (value: number, seen: number) => (value > 0 ? Math.max(1, Math.round(seen / value)) : 1);

/** The cutter from its end: work, engaged angle, and one chip, its thickness enlarged by the factor that is told. */
function EndView({ tool, state, ae, unit }: Omit<Props, 'ap'>) {
  const palette = usePalette();
  const r = tool.diameter / 2;
  const s = tool.diameter / SIZE;
  const times = magnified(state.chipLoad, tool.diameter * 0.08);
  const feed = state.chipLoad * times;
  const phi = state.engagement;
  const edge = r - Math.min(ae, tool.diameter);
  const box = `${-r * 1.25} ${-r * 1.25} ${r * 2.5} ${r * 2.5}`;
  const end = { x: r * Math.sin(phi), y: r - r * Math.cos(phi) };
  const arc = `M0 ${r} A${r} ${r} 0 ${phi > Math.PI ? 1 : 0} 0 ${end.x} ${r - end.y}`;
  return (
    <View style={{ alignItems: 'center' }}>
      <Svg width={SIZE} height={SIZE} viewBox={box}>
        <Defs>
          <ClipPath id="work">
            <Rect x={-r * 2} y={edge} width={r * 4} height={r * 2} />
          </ClipPath>
          <ClipPath id="before">
            <Rect x={0} y={-r * 2} width={r * 3} height={r * 4} />
          </ClipPath>
        </Defs>
        <Rect x={-r * 1.25} y={edge} width={r * 2.5} height={r * 1.25 - edge} fill={palette.stock} opacity={0.55} />
        <Circle cx={0} cy={0} r={r} fill={palette.sheet} stroke={palette.ink} strokeWidth={s * 1.4} />
        <G clipPath="url(#work)">
          <G clipPath="url(#before)">
            <Path
              d={`M0 ${-r} A${r} ${r} 0 0 1 0 ${r} L${feed} ${r} A${r} ${r} 0 0 0 ${feed} ${-r} Z`}
              fill={palette.care}
            />
          </G>
        </G>
        <Path d={arc} fill="none" stroke={palette.accent} strokeWidth={s * 3.5} />
        <Line
          x1={0}
          y1={0}
          x2={0}
          y2={r}
          stroke={palette.quiet}
          strokeWidth={s}
          strokeDasharray={`${3 * s},${3 * s}`}
        />
        <Line
          x1={0}
          y1={0}
          x2={end.x}
          y2={r - end.y}
          stroke={palette.quiet}
          strokeWidth={s}
          strokeDasharray={`${3 * s},${3 * s}`}
        />
        <Text x={-r * 0.72} y={-r * 0.1} fontSize={15 * s} fontFamily={FONT.mono} fill={palette.ink}>
          {formatNumber(degrees(phi), 0)}°
        </Text>
      </Svg>
      <Txt kind="small" tone="quiet" style={{ textAlign: 'center' }}>
        chip {thin(state.largestChip, unit)}, drawn × {formatNumber(times, 0)}
      </Txt>
    </View>
  );
}

/** The cutter from the side: layer depth to scale, bending enlarged by the factor that is told. */
function SideView({ tool, state, ap, unit }: Omit<Props, 'ae'>) {
  const palette = usePalette();
  const tall = tool.stickOut + 6;
  const s = tall / SIZE;
  const times = magnified(state.deflection, tall * 0.06);
  const bend = Math.min(state.deflection * times, tall * 0.1);
  const wide = Math.max(tool.diameter * 1.6, tall * 0.8);
  const end = profileOutline(tool);
  const flute = end[end.length - 1].z;
  const up = (from: number, to: number) =>
    Array.from({ length: PIECES + 1 }, (_, i) => from + ((to - from) * i) / PIECES);
  /** Both sides of what is so wide at these heights, bent. */
  const outline = (half: { r: number; z: number }[]) => {
    const by = bentShape(
      tool,
      state.arm,
      half.map((p) => p.z),
    ).map((share) => share * bend);
    const right = half.map((p, i) => `${p.r + by[i]} ${-p.z}`);
    const left = half.map((p, i) => `${-p.r + by[i]} ${-p.z}`).reverse();
    return `M${[...left, ...right].join(' L')} Z`;
  };
  const foot = end[end.length - 2];
  const flutes = [
    ...end.slice(0, -1),
    ...up(foot.z, flute)
      .slice(1)
      .map((z) => ({ r: tool.diameter / 2, z })),
  ];
  const shank = up(flute, tall).map((z) => ({ r: tool.shankDiameter / 2, z }));
  return (
    <View style={{ alignItems: 'center' }}>
      <Svg width={SIZE} height={SIZE} viewBox={`${-wide / 2} ${-tall} ${wide} ${tall + 4 * s}`}>
        <Rect x={-wide / 2} y={-ap} width={wide} height={ap + 4 * s} fill={palette.stock} opacity={0.55} />
        <Path d={outline(shank)} fill={palette.line} stroke={palette.ink} strokeWidth={s} />
        <Path d={outline(flutes)} fill={palette.accentSoft} stroke={palette.ink} strokeWidth={s * 1.2} />
        <Line
          x1={0}
          x2={0}
          y1={-tall}
          y2={0}
          stroke={palette.quiet}
          strokeWidth={s}
          strokeDasharray={`${3 * s},${3 * s}`}
        />
        <Line x1={-wide / 2} x2={wide / 2} y1={-ap} y2={-ap} stroke={palette.ink} strokeWidth={s} />
      </Svg>
      <Txt kind="small" tone="quiet" style={{ textAlign: 'center' }}>
        bends {thin(state.deflection, unit)}, drawn × {formatNumber(times, 0)}
      </Txt>
    </View>
  );
}

/** The bite as it is: from the end and from the side. */
export function BitePicture(props: Props) {
  const said = `End view: ${formatNumber(degrees(props.state.engagement), 0)} degrees engaged, chip ${thin(props.state.largestChip, props.unit)}. Side view: bends ${thin(props.state.deflection, props.unit)}.`;
  return (
    <View
      accessible
      role="img"
      aria-label={said}
      style={{ flexDirection: 'row', flexWrap: 'wrap', justifyContent: 'space-around', gap: SPACE.m }}
    >
      <EndView {...props} />
      <SideView {...props} />
    </View>
  );
}
