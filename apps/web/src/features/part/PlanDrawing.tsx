import { useState } from 'react';
import { View } from 'react-native';
import Svg, { Circle, G, Line, Path, Text as SvgText } from 'react-native-svg';
import {
  Feature,
  Finding,
  LengthUnit,
  Part,
  chainBounds,
  formatLength,
  instancesOf,
  isEmpty,
  joinBounds,
  EMPTY_BOUNDS,
  svgPath,
  trimmedPart,
} from '@tidypath/core';
import { FONT } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';

interface Props {
  part: Part;
  unit: LengthUnit;
  selected?: string;
  onSelect: (id: string) => void;
  findings: Finding[];
}

const UNIT = 3.2;
const DASH: Partial<Record<Feature['meaning'], string>> = { ignore: '2 2', edge: '6 2', line: '1 2' };

/** The part from above, with its overall sizes and those of the chosen feature, drawn from its numbers. */
export function PlanDrawing({ part, unit, selected, onSelect, findings }: Props) {
  const palette = usePalette();
  const [room, setRoom] = useState({ width: 390, height: 280 });
  // Notches are gone where they trimmed the outside; where they did is drawn with dashes.
  const drawn = trimmedPart(part).part.features.map((feature) => ({ feature, chains: instancesOf(feature) }));
  let box = EMPTY_BOUNDS;
  for (const { chains } of drawn) for (const c of chains) box = joinBounds(box, chainBounds(c));
  let outer = EMPTY_BOUNDS;
  for (const d of drawn)
    if (d.feature.meaning === 'outline') for (const c of d.chains) outer = joinBounds(outer, chainBounds(c));
  if (isEmpty(outer)) outer = box;
  if (isEmpty(box)) return <View style={{ flex: 1 }} />;
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  // One u is about three pixels on the screen, whatever the size of the part.
  const u = UNIT * Math.max(w / Math.max(60, room.width - 28 * UNIT), h / Math.max(60, room.height - 28 * UNIT));
  const margin = 14 * u;
  const chosen = drawn.find((d) => d.feature.id === selected);
  const chosenBox = chosen?.chains[0] && chainBounds(chosen.chains[0]);
  const text = { fontFamily: FONT.mono, fontSize: 4.2 * u, fill: palette.ink };
  return (
    <View style={{ flex: 1 }} onLayout={(e) => setRoom(e.nativeEvent.layout)}>
      <Svg
        width="100%"
        height="100%"
        viewBox={`${box.minX - margin} ${-(box.maxY + margin)} ${box.maxX - box.minX + 2 * margin} ${box.maxY - box.minY + 2 * margin}`}
        testID="plan-drawing"
      >
        <G transform="scale(1,-1)">
          {drawn.map(({ feature, chains }) => (
            <Path
              key={feature.id}
              d={chains.map(svgPath).join('')}
              onPress={() => onSelect(feature.id)}
              fill={
                feature.id === selected
                  ? palette.accentSoft
                  : feature.meaning === 'outline' || feature.meaning === 'boss'
                    ? palette.stock
                    : feature.meaning === 'pocket' || feature.meaning === 'hole'
                      ? palette.background
                      : 'none'
              }
              fillOpacity={
                (feature.meaning === 'outline' || feature.meaning === 'boss') && feature.id !== selected ? 0.3 : 0.85
              }
              stroke={
                feature.id === selected ? palette.accent : feature.meaning === 'ignore' ? palette.quiet : palette.part
              }
              strokeWidth={(feature.id === selected ? 1 : 0.6) * u}
              strokeDasharray={(feature.shape.type === 'text' ? undefined : DASH[feature.meaning])
                ?.split(' ')
                .map((n) => Number(n) * u)
                .join(' ')}
            />
          ))}
          {findings.map(
            (f, i) =>
              f.place.at && (
                <Circle
                  key={i}
                  cx={f.place.at.x}
                  cy={f.place.at.y}
                  r={2.4 * u}
                  fill="none"
                  stroke={palette.danger}
                  strokeWidth={0.8 * u}
                />
              ),
          )}
          <Dimension from={outer.minX} to={outer.maxX} at={box.minY - 6 * u} u={u} colour={palette.quiet} />
          <Dimension from={outer.minY} to={outer.maxY} at={box.minX - 6 * u} u={u} colour={palette.quiet} upright />
        </G>
        <SvgText {...text} x={(outer.minX + outer.maxX) / 2} y={-(box.minY - 11.5 * u)} textAnchor="middle">
          {formatLength(outer.maxX - outer.minX, unit)}
        </SvgText>
        <SvgText
          {...text}
          x={box.minX - 7.5 * u}
          y={-(outer.minY + outer.maxY) / 2}
          textAnchor="middle"
          transform={`rotate(-90 ${box.minX - 7.5 * u} ${-(outer.minY + outer.maxY) / 2})`}
        >
          {formatLength(outer.maxY - outer.minY, unit)}
        </SvgText>
        {chosenBox && chosen.feature.meaning !== 'outline' && (
          <SvgText
            {...text}
            fill={palette.accent}
            x={(chosenBox.minX + chosenBox.maxX) / 2}
            y={-(chosenBox.maxY + 2 * u)}
            textAnchor="middle"
          >
            {`${formatLength(chosenBox.maxX - chosenBox.minX, unit)} × ${formatLength(chosenBox.maxY - chosenBox.minY, unit)}`}
          </SvgText>
        )}
      </Svg>
    </View>
  );
}

/** A dimension line with its end strokes. */
function Dimension({
  from,
  to,
  at,
  u,
  colour,
  upright,
}: {
  from: number;
  to: number;
  at: number;
  u: number;
  colour: string;
  upright?: boolean;
}) {
  const p = (a: number, b: number) => (upright ? { x: b, y: a } : { x: a, y: b });
  const bar = (a: { x: number; y: number }, b: { x: number; y: number }, key: string) => (
    <Line key={key} x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke={colour} strokeWidth={0.4 * u} />
  );
  return (
    <>
      {bar(p(from, at), p(to, at), 'line')}
      {bar(p(from, at - 1.6 * u), p(from, at + 4.5 * u), 'start')}
      {bar(p(to, at - 1.6 * u), p(to, at + 4.5 * u), 'end')}
    </>
  );
}
