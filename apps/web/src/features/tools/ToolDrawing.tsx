import Svg, { Path, Rect } from 'react-native-svg';
import { Tool, profileHeight } from '@tidypath/core';
import { usePalette } from '../../theme/usePalette';

/** A tool in its holder, side view, to scale from its numbers. */
export function ToolDrawing({ tool, width = 64, height = 120 }: { tool: Tool; width?: number; height?: number }) {
  const palette = usePalette();
  const r = tool.diameter / 2;
  const widest = Math.max(tool.holderDiameter, tool.diameter, tool.shankDiameter);
  const tall = tool.stickOut + tool.holderLength;
  const steps = Array.from({ length: 13 }, (_, i) => (r * i) / 12);
  const right = steps.map((x) => `${x} ${-profileHeight(tool, x)}`);
  const left = [...steps].reverse().map((x) => `${-x} ${-profileHeight(tool, x)}`);
  const top = -tool.fluteLength;
  const stroke = { stroke: palette.ink, strokeWidth: widest / 60 };
  return (
    <Svg width={width} height={height} viewBox={`${-widest * 0.55} ${-tall - 1} ${widest * 1.1} ${tall + 2}`}>
      <Rect
        x={-tool.holderDiameter / 2}
        y={-tall}
        width={tool.holderDiameter}
        height={tool.holderLength}
        fill={palette.sunken}
        {...stroke}
      />
      <Rect
        x={-tool.shankDiameter / 2}
        y={-tool.stickOut}
        width={tool.shankDiameter}
        height={Math.max(0, tool.stickOut - tool.fluteLength)}
        fill={palette.line}
        {...stroke}
      />
      <Path
        d={`M${-r} ${top} L${left.join(' L')} L${right.join(' L')} L${r} ${top} Z`}
        fill={palette.accentSoft}
        {...stroke}
      />
    </Svg>
  );
}
