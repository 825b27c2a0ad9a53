import { Pressable, View } from 'react-native';
import Svg, { Circle, G, Line, Polygon } from 'react-native-svg';
import { ZeroPlace, bodiesOf, boundsOf, groundOf, outlineOf } from '@tidypath/core';
import { usePalette } from '../../theme/usePalette';

type Ground = ReturnType<typeof groundOf>;
type Palette = ReturnType<typeof usePalette>;

interface Props {
  ground: Ground;
  places: ZeroPlace[];
  onPick: (place: ZeroPlace) => void;
}

/** Side of a place that can be tapped, and size of the picture, px: it has room on the narrowest phone. */
const TOUCH = 44;
const WIDE = 250;
const HIGH = 220;
/** Length of an axis, shares of the picture. */
const ARM = 0.16;

const points = (ring: { x: number; y: number }[]) => ring.map((p) => `${p.x},${p.y}`).join(' ');

/** Everything round the zero seen from above. */
function Drawn({ ground, u, palette }: { ground: Ground; u: number; palette: Palette }) {
  return (
    <>
      {bodiesOf(ground.held).map((b, i) => (
        <Polygon
          key={i}
          points={points(outlineOf(b))}
          fill={palette.fixture}
          fillOpacity={0.35}
          stroke={palette.quiet}
          strokeWidth={0.5 * u}
        />
      ))}
      {ground.stock.region.map((ring, i) => (
        <Polygon
          key={`s${i}`}
          points={points(ring)}
          fill={palette.stock}
          fillOpacity={0.3}
          stroke={palette.quiet}
          strokeWidth={0.5 * u}
        />
      ))}
      {ground.model.outline.map((ring, i) => (
        <Polygon key={`p${i}`} points={points(ring)} fill="none" stroke={palette.part} strokeWidth={u} />
      ))}
    </>
  );
}

/** Places a zero can be set on, seen from above: a tap on one takes it. The zero is drawn with its axes. */
export function ZeroPicture({ ground, places, onPick }: Props) {
  const palette = usePalette();
  const { zero } = ground;
  const box = boundsOf([...places.map((p) => p.at), ...ground.stock.region.flat(), zero]);
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const scale = Math.min((HIGH - TOUCH) / Math.max(height, 1), WIDE / Math.max(width, 1));
  const [w, h] = [width * scale + TOUCH, height * scale + TOUCH];
  const at = (p: { x: number; y: number }) => ({ left: (p.x - box.minX) * scale, top: (box.maxY - p.y) * scale });
  const u = 1 / scale;
  const arm = ARM * Math.max(width, height);
  const is = (p: ZeroPlace) => Math.abs(p.at.x - zero.x) < 1e-6 && Math.abs(p.at.y - zero.y) < 1e-6;
  return (
    <View style={{ width: w, height: h, alignSelf: 'center' }} role="radiogroup" aria-label="Where the zero is">
      <Svg
        width={w}
        height={h}
        viewBox={`${box.minX - (TOUCH / 2) * u} ${-box.maxY - (TOUCH / 2) * u} ${w * u} ${h * u}`}
      >
        <G transform="scale(1,-1)">
          <Drawn ground={ground} u={u} palette={palette} />
          {places.map((p) => (
            <Circle
              key={p.name}
              cx={p.at.x}
              cy={p.at.y}
              r={3.5 * u}
              fill={palette.sheet}
              stroke={palette.accent}
              strokeWidth={1.2 * u}
            />
          ))}
          <Line x1={zero.x} y1={zero.y} x2={zero.x + arm} y2={zero.y} stroke={palette.accent} strokeWidth={2.5 * u} />
          <Line
            x1={zero.x + arm * 0.8}
            y1={zero.y - 4 * u}
            x2={zero.x + arm * 0.8}
            y2={zero.y + 4 * u}
            stroke={palette.accent}
            strokeWidth={2.5 * u}
          />
          <Line x1={zero.x} y1={zero.y} x2={zero.x} y2={zero.y + arm} stroke={palette.accent} strokeWidth={2.5 * u} />
          {[0.7, 0.8].map((k) => (
            <Line
              key={k}
              x1={zero.x - 4 * u}
              y1={zero.y + arm * k}
              x2={zero.x + 4 * u}
              y2={zero.y + arm * k}
              stroke={palette.accent}
              strokeWidth={2.5 * u}
            />
          ))}
          <Circle cx={zero.x} cy={zero.y} r={4.5 * u} fill={palette.accent} />
        </G>
      </Svg>
      {places.map((p) => (
        <Pressable
          key={p.name}
          role="radio"
          aria-checked={is(p)}
          accessibilityLabel={`Zero on ${p.name}`}
          onPress={() => onPick(p)}
          style={{ position: 'absolute', width: TOUCH, height: TOUCH, ...at(p.at) }}
        />
      ))}
    </View>
  );
}
