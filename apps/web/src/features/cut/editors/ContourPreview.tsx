import { useMemo, useState } from 'react';
import { GestureResponderEvent, View } from 'react-native';
import { Button } from 'react-native-paper';
import Svg, { Circle, Defs, G, Line, Path, Pattern, Polygon, Rect } from 'react-native-svg';
import {
  Chain,
  ContourParams,
  EMPTY_BOUNDS,
  OperationKind,
  Point,
  Tool,
  asSeen,
  chainBounds,
  editOperation,
  growBounds,
  isEmpty,
  joinBounds,
  moveTab,
  pointAtShare,
  shareNear,
  svgPath,
} from '@tidypath/core';
import { SIZE, SPACE } from '../../../theme/theme';
import { usePalette } from '../../../theme/usePalette';
import { Row } from '../../../ui/Card';
import { Txt } from '../../../ui/Txt';
import type { EditorProps } from './types';

const OTHER_SIDE: Record<string, string> = { outside: 'inside', inside: 'outside', left: 'right', right: 'left' };

type PreviewOf = NonNullable<OperationKind['preview']>['of'];

/** Arrow heads along a lap. */
function arrows(chain: Chain, size: number): string[] {
  return [0.1, 0.35, 0.6, 0.85].map((share) => {
    const [p, q] = [pointAtShare(chain, share), pointAtShare(chain, share + 0.004)];
    const a = Math.atan2(q.y - p.y, q.x - p.x);
    const at = (turn: number, r: number) => `${p.x + r * Math.cos(a + turn)},${p.y + r * Math.sin(a + turn)}`;
    return [at(0, size), at(2.5, size), at(-2.5, size)].join(' ');
  });
}

/** Places on its line that are picked in it, and the one that moves. */
interface Places {
  at: Point[];
  moved: number;
  onPlace: (p: Point) => void;
}

/** A finger this near to a corner means it, px. */
const SNAP = 14;

/** The corner a finger means, or the place on the nearest line. */
function snapped(p: Point, walls: Chain[], reach: number): Point {
  const corners = walls.flatMap((w) => w.vertices).map((v) => ({ x: v.x, y: v.y }));
  const off = (q: Point) => Math.hypot(p.x - q.x, p.y - q.y);
  const corner = corners.sort((a, b) => off(a) - off(b))[0];
  if (corner && off(corner) < reach) return corner;
  const on = walls.map((w) => pointAtShare(w, shareNear(w, p))).sort((a, b) => off(a) - off(b))[0] ?? p;
  return { x: Math.round(on.x * 100) / 100, y: Math.round(on.y * 100) / 100 };
}

/** What a contour will do, before it is computed: the band the cutter sweeps, its direction and start, the side that is kept, its tabs. */
export function ContourPreview({
  job,
  operation,
  edit,
  tool,
  previewOf,
  places,
}: Pick<EditorProps, 'job' | 'operation' | 'edit'> & { tool: Tool; previewOf: PreviewOf; places?: Places }) {
  const palette = usePalette();
  const [width, setWidth] = useState(320);
  const params = operation.params as unknown as ContourParams;
  const setup = job.setups.find((s) => s.operations.some((o) => o.id === operation.id)) ?? job.setups[0];
  const { part } = asSeen(job, setup);
  const targets = useMemo(
    () => part.features.filter((f) => operation.targets.includes(f.id)),
    [part, operation.targets],
  );
  const { walls, laps, keeps } = useMemo(
    () => previewOf(params, { tool, targets, operation }),
    [previewOf, params, tool, targets, operation],
  );
  const bounds = [...walls, ...laps.map((l) => l.chain)].map(chainBounds).reduce(joinBounds, EMPTY_BOUNDS);
  if (isEmpty(bounds)) return null;
  const box = growBounds(bounds, tool.diameter);
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  const height = Math.min(SIZE.view, (width * h) / w);
  const scale = Math.min(width / w, height / h);
  const u = 1 / scale;
  const set = (more: Partial<ContourParams>) =>
    edit(
      (j) => editOperation(j, operation.id, (o) => ({ ...o, params: { ...o.params, ...more } })),
      `${operation.id}-preview`,
    );
  const drag = (event: GestureResponderEvent) => {
    const { locationX, locationY } = event.nativeEvent;
    const p = {
      x: (box.minX + box.maxX) / 2 + (locationX - width / 2) * u,
      y: (box.minY + box.maxY) / 2 - (locationY - height / 2) * u,
    };
    if (places) return places.onPlace(snapped(p, walls, SNAP * u));
    const [first] = laps;
    if (first) set({ tabPlaces: moveTab(params, shareNear(first.chain, p)) });
  };
  const hasTabs = !places && params.tabs !== 'none';
  const isTouched = hasTabs || !!places;
  const other = OTHER_SIDE[params.side];
  const d = walls.map(svgPath).join('');
  const frame = `M${box.minX} ${box.minY}H${box.maxX}V${box.maxY}H${box.minX}Z`;
  return (
    <View style={{ gap: SPACE.s }} onLayout={(e) => setWidth(e.nativeEvent.layout.width)}>
      <View
        testID="contour-preview"
        aria-label="What the cutter will sweep"
        style={{ height, backgroundColor: palette.background, borderRadius: SIZE.radius }}
        onStartShouldSetResponder={() => isTouched}
        onMoveShouldSetResponder={() => isTouched}
        onResponderGrant={drag}
        onResponderMove={drag}
      >
        <Svg
          width={width}
          height={height}
          viewBox={`${box.minX} ${-box.maxY} ${w} ${h}`}
          style={{ pointerEvents: 'none' }}
        >
          <Defs>
            <Pattern id="kept" width={6 * u} height={6 * u} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <Rect width={6 * u} height={6 * u} fill={palette.sheet} />
              <Line x1={0} y1={0} x2={0} y2={6 * u} stroke={palette.quiet} strokeWidth={1.2 * u} />
            </Pattern>
          </Defs>
          <G transform="scale(1,-1)">
            {keeps !== 'nothing' && (
              <Path d={keeps === 'inside' ? d : frame + d} fill="url(#kept)" fillRule="evenodd" />
            )}
            {laps.map(({ chain, tabs }, i) => (
              <G key={i}>
                <Path
                  d={svgPath(chain)}
                  fill="none"
                  stroke={palette.accent}
                  strokeOpacity={0.22}
                  strokeWidth={tool.diameter}
                  strokeLinejoin="round"
                />
                <Path d={svgPath(chain)} fill="none" stroke={palette.accent} strokeWidth={1.2 * u} />
                {arrows(chain, 6 * u).map((points) => (
                  <Polygon key={points} points={points} fill={palette.accent} />
                ))}
                <Circle
                  cx={chain.vertices[0].x}
                  cy={chain.vertices[0].y}
                  r={4 * u}
                  fill={palette.sheet}
                  stroke={palette.accent}
                  strokeWidth={1.6 * u}
                />
                {tabs.map((t, k) => (
                  <Rect
                    key={k}
                    x={t.x - 5 * u}
                    y={t.y - 5 * u}
                    width={10 * u}
                    height={10 * u}
                    fill={palette.care}
                    stroke={palette.sheet}
                    strokeWidth={u}
                  />
                ))}
              </G>
            ))}
            <Path d={d} fill="none" stroke={palette.part} strokeWidth={1.6 * u} />
            {places?.at.map((p, i) => (
              <Circle
                key={i}
                cx={p.x}
                cy={p.y}
                r={(i === places.moved ? 9 : 6) * u}
                fill={palette.care}
                stroke={palette.sheet}
                strokeWidth={1.6 * u}
              />
            ))}
          </G>
        </Svg>
      </View>
      <Txt kind="small" tone="quiet">
        Hatched stays; the band is swept, from the ring in the direction of the arrows.
        {hasTabs ? ' Drag a tab to move it.' : ''}
      </Txt>
      <Row>
        {other && (
          <Button
            compact
            mode="outlined"
            onPress={() => set({ side: other as ContourParams['side'] })}
            testID="flip-side"
          >
            Flip to {other}
          </Button>
        )}
        <Button
          compact
          mode="outlined"
          onPress={() => set({ direction: params.direction === 'climb' ? 'conventional' : 'climb' })}
          testID="flip-direction"
        >
          Flip the direction
        </Button>
        {hasTabs && params.tabPlaces !== '' && (
          <Button compact mode="outlined" onPress={() => set({ tabPlaces: '' })} testID="spread-tabs">
            Spread the tabs evenly
          </Button>
        )}
      </Row>
    </View>
  );
}
