import { useMemo } from 'react';
import { View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { usePalette } from '../theme/usePalette';
import { outlineOf } from './outline';
import type { Angle, Segments } from './terms';

/** The part's lines, drawn by the page itself until the picture is there. */
export function Outline({ edges, angle }: { edges: Segments; angle: Angle }) {
  const palette = usePalette();
  const { path, box } = useMemo(() => outlineOf(edges, angle), [edges, angle]);
  return (
    <View
      style={{ position: 'absolute', top: 0, left: 0, right: 0, bottom: 0, padding: '12%' }}
      pointerEvents="none"
      testID="outline"
    >
      <Svg width="100%" height="100%" viewBox={box.join(' ')}>
        <Path
          d={path}
          fill="none"
          stroke={palette.part}
          strokeWidth={1.2}
          vectorEffect="non-scaling-stroke"
          opacity={0.6}
        />
      </Svg>
    </View>
  );
}
