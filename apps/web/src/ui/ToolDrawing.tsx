import Svg, { G, Line, Path, Polygon, Rect, Text } from 'react-native-svg';
import {
  LengthUnit,
  Tool,
  formatLength,
  holderLength,
  holderWidth,
  profileOutline,
  segmentStarts,
} from '@tidypath/core';
import { FONT } from '../theme/theme';
import { usePalette } from '../theme/usePalette';

interface Props {
  tool: Tool;
  width?: number;
  height?: number;
  /** With its stick-out, flute length and diameter drawn in. */
  unit?: LengthUnit;
}

/** Room for a written length on either side, px. */
const LABEL = 116;

/** A tool in its holder, side view, to scale from its numbers; with a unit, its lengths are drawn beside it. */
export function ToolDrawing({ tool, width = 64, height = 120, unit }: Props) {
  const palette = usePalette();
  const half = profileOutline(tool);
  const r = tool.diameter / 2;
  const widest = Math.max(holderWidth(tool.holder), tool.diameter, tool.shankDiameter);
  const tall = tool.stickOut + holderLength(tool.holder);
  const top = -half[half.length - 1].z;
  const right = half.map((p) => `${p.r} ${-p.z}`).join(' L');
  const left = [...half]
    .reverse()
    .map((p) => `${-p.r} ${-p.z}`)
    .join(' L');
  const scale = Math.max((widest * 1.1) / width, (tall + 2) / height);
  const stroke = { stroke: palette.ink, strokeWidth: 1.1 * scale };
  const side = unit ? LABEL * scale : 0;
  const starts = segmentStarts(tool.holder);
  const segments = tool.holder.segments.map((s, i) => {
    const from = tool.stickOut + starts[i];
    const to = from + s.length;
    return `${-s.lower / 2},${-from} ${s.lower / 2},${-from} ${s.upper / 2},${-to} ${-s.upper / 2},${-to}`;
  });
  const mark = (from: number, to: number, x: number, label: string, anchor: 'start' | 'end') => (
    <G key={label}>
      <Line x1={x} x2={x} y1={-from} y2={-to} stroke={palette.quiet} strokeWidth={scale} />
      {[from, to].map((z) => (
        <Line
          key={z}
          x1={x - 4 * scale}
          x2={x + 4 * scale}
          y1={-z}
          y2={-z}
          stroke={palette.quiet}
          strokeWidth={scale}
        />
      ))}
      <Text
        x={x + (anchor === 'start' ? 8 : -8) * scale}
        y={-(from + to) / 2 + 4 * scale}
        fontSize={12 * scale}
        fontFamily={FONT.mono}
        textAnchor={anchor}
        fill={palette.ink}
      >
        {label}
      </Text>
    </G>
  );
  return (
    <Svg
      width={width + (2 * side) / scale}
      height={height}
      viewBox={`${-widest * 0.55 - side} ${-tall - scale} ${widest * 1.1 + 2 * side} ${tall + 2 * scale}`}
    >
      {segments.map((points) => (
        <Polygon key={points} points={points} fill={palette.sunken} {...stroke} />
      ))}
      <Rect
        x={-tool.shankDiameter / 2}
        y={-tool.stickOut}
        width={tool.shankDiameter}
        height={Math.max(0, tool.stickOut + top)}
        fill={palette.line}
        {...stroke}
      />
      <Path d={`M${-r} ${top} L${left} L${right} Z`} fill={palette.accentSoft} {...stroke} />
      {unit && (
        <>
          {mark(0, tool.stickOut, widest / 2 + 10 * scale, `out ${formatLength(tool.stickOut, unit)}`, 'start')}
          {mark(0, tool.fluteLength, -r - 10 * scale, `flutes ${formatLength(tool.fluteLength, unit)}`, 'end')}
        </>
      )}
    </Svg>
  );
}
