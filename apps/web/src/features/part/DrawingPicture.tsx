import { View } from 'react-native';
import Svg, { Circle, G, Path } from 'react-native-svg';
import { EMPTY_BOUNDS, Feature, chainBounds, instancesOf, isEmpty, joinBounds, svgPath } from '@tidypath/core';
import { usePalette } from '../../theme/usePalette';

interface Props {
  features: Feature[];
  /** Places to be looked at: open ends, doubled curves. */
  marks: { x: number; y: number }[];
}

const HEIGHT = 200;
/** Of a mark, as a share of the drawing. */
const MARK = 1 / 50;

/** A drawing before it is taken in: closed outlines filled, open curves dashed, what is to be looked at ringed. */
export function DrawingPicture({ features, marks }: Props) {
  const palette = usePalette();
  const chains = features.flatMap(instancesOf);
  const box = chains.map(chainBounds).reduce(joinBounds, EMPTY_BOUNDS);
  if (isEmpty(box)) return null;
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const around = Math.max(width, height) * 0.04;
  const path = (closed: boolean) =>
    chains
      .filter((c) => c.closed === closed)
      .map(svgPath)
      .join('');
  const line = { vectorEffect: 'non-scaling-stroke' as const, strokeWidth: 1.5 };
  return (
    <View style={{ height: HEIGHT }} accessible role="img" aria-label="The drawing" testID="drawing-picture">
      <Svg
        width="100%"
        height="100%"
        viewBox={`${box.minX - around} ${-box.maxY - around} ${width + 2 * around} ${height + 2 * around}`}
      >
        <G transform="scale(1,-1)">
          <Path d={path(true)} fill={palette.stock} fillRule="evenodd" stroke={palette.ink} {...line} />
          <Path d={path(false)} fill="none" stroke={palette.danger} strokeDasharray="5 3" {...line} />
          {marks.map(({ x, y }, i) => (
            <Circle
              key={i}
              cx={x}
              cy={y}
              r={Math.max(width, height) * MARK}
              fill="none"
              stroke={palette.danger}
              {...line}
            />
          ))}
        </G>
      </Svg>
    </View>
  );
}
