import { View } from 'react-native';
import Svg, { Circle, Line, Path, Rect, Text } from 'react-native-svg';
import { Grey, Mark, Scene, WEIGHTS, Weight, pathData } from '@tidypath/sheets';
import { FONT } from '../theme/theme';
import { usePalette } from '../theme/usePalette';

/** Draws a scene of a sheet on the screen: the greys of paper between the sheet and the ink of the palette. */
function useLooks() {
  const palette = usePalette();
  const filled: Record<Grey, string> = {
    ink: palette.ink,
    dark: palette.fixture,
    middle: palette.line,
    light: palette.sunken,
    paper: palette.sheet,
  };
  return ({ weight, dashed, fill }: { weight?: Weight; dashed?: boolean; fill?: Grey }) => ({
    fill: fill ? filled[fill] : 'none',
    ...(weight ? { stroke: palette.ink, strokeWidth: WEIGHTS[weight] } : {}),
    ...(dashed ? { strokeDasharray: '1.6 1' } : {}),
  });
}

function Drawn({ mark }: { mark: Mark }) {
  const looks = useLooks();
  const palette = usePalette();
  switch (mark.kind) {
    case 'line':
      return <Line x1={mark.from.x} y1={mark.from.y} x2={mark.to.x} y2={mark.to.y} {...looks(mark)} />;
    case 'polygon':
      return <Path d={pathData(mark.rings)} fillRule="evenodd" {...looks(mark)} />;
    case 'circle':
      return <Circle cx={mark.at.x} cy={mark.at.y} r={mark.radius} {...looks(mark)} />;
    case 'rectangle':
      return <Rect x={mark.at.x} y={mark.at.y} width={mark.width} height={mark.height} {...looks(mark)} />;
    case 'text':
      return (
        <Text
          x={mark.at.x}
          y={mark.at.y}
          fontSize={mark.size}
          fontFamily={mark.bold ? FONT.bold : FONT.text}
          textAnchor={mark.anchor ?? 'start'}
          fill={palette.ink}
        >
          {mark.text}
        </Text>
      );
  }
}

/** A picture of a sheet, as wide as there is room. */
export function ScenePicture({ scene, told }: { scene: Scene; told: string }) {
  return (
    <View style={{ aspectRatio: scene.width / scene.height }} role="img" aria-label={told}>
      <Svg width="100%" height="100%" viewBox={`0 0 ${scene.width} ${scene.height}`}>
        {scene.marks.map((mark, i) => (
          <Drawn key={i} mark={mark} />
        ))}
      </Svg>
    </View>
  );
}
