import { RefObject, useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { useTheme } from 'react-native-paper';
import type { Allowed, FixtureBox, StockModel, Tool, Vec3, SurfaceView } from '@tidypath/core';
import { SPACE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';
import { Txt } from '../ui/Txt';
import { Outline } from './Outline';
import type { Angle, Segments } from './terms';
import { Picture } from './picture';
import { placeOf } from './raw';

export interface SceneProps {
  /** As it was cut, or raw. */
  stock: SurfaceView | StockModel;
  /** Heights that replace those of the stock while playing. */
  heights?: Float32Array;
  edges?: Segments;
  /** Whether the edges are seen through the stock, as in a piece that is not cut yet. */
  seeThrough?: boolean;
  cut?: Segments;
  rapid?: Segments;
  fixtures: FixtureBox[];
  zero?: Vec3;
  tool?: { at: Vec3; tool: Tool };
  marks?: Vec3[];
  /** Where somebody probed. */
  pins?: Vec3[];
  /** Colours the stock by how far it is from this. */
  allowed?: Allowed;
  onTap?: (at: Vec3) => void;
  /** Set to what makes a PNG of the picture, where it can be drawn. */
  cameraRef?: RefObject<(() => Promise<Uint8Array | undefined>) | null>;
  /** Changes when the picture should be fitted again, from this side. */
  fit: { angle: Angle; count: number };
  label: string;
}

/** The 3D picture on the page. */
export function SceneCanvas(props: SceneProps) {
  const host = useRef<View>(null);
  const picture = useRef<Picture | null>(null);
  const palette = usePalette();
  const dark = useTheme().dark;
  const [failed, setFailed] = useState('');
  const [isDrawn, setDrawn] = useState(false);
  const {
    stock,
    heights,
    edges,
    seeThrough,
    cut,
    rapid,
    fixtures,
    zero,
    tool,
    marks,
    pins,
    allowed,
    onTap,
    cameraRef,
    fit,
  } = props;
  const tapped = useRef(onTap);
  useEffect(() => {
    tapped.current = onTap;
  }, [onTap]);

  useEffect(() => {
    const element = host.current as unknown as HTMLElement;
    const made = new Picture(
      element,
      palette,
      (at) => tapped.current?.(at),
      setFailed,
      () => setDrawn(true),
    );
    picture.current = made;
    if (cameraRef) cameraRef.current = () => made.png();
    const watch = new ResizeObserver(() => made.resize());
    watch.observe(element);
    return () => {
      watch.disconnect();
      made.dispose();
      picture.current = null;
    };
    // A change of theme makes a new picture.
  }, [palette, cameraRef]);

  useEffect(() => picture.current?.tell('setStock', stock), [stock, palette]);
  useEffect(() => picture.current?.tell('setAllowed', allowed), [allowed, palette]);
  useEffect(() => {
    if (heights) picture.current?.tell('setHeights', heights);
  }, [heights, palette]);
  useEffect(
    () =>
      picture.current?.tell('setLines', 'edges', edges, {
        colour: palette.part,
        width: 1.6,
        opacity: seeThrough ? 0.5 : dark ? 0.9 : 0.8,
        above: seeThrough,
      }),
    [edges, seeThrough, palette, dark],
  );
  useEffect(() => picture.current?.tell('setPath', cut, rapid), [cut, rapid, palette]);
  useEffect(() => picture.current?.tell('setFixtures', fixtures), [fixtures, palette]);
  useEffect(() => {
    if (zero) picture.current?.tell('setZero', zero);
  }, [zero, palette]);
  const { tool: shown, at } = tool ?? {};
  useEffect(() => picture.current?.tell('setTool', shown), [shown, palette]);
  useEffect(() => {
    if (at) picture.current?.tell('moveTool', at);
  }, [at, shown, palette]);
  useEffect(() => picture.current?.tell('setMarks', marks ?? []), [marks, palette]);
  useEffect(() => picture.current?.tell('setPins', pins ?? []), [pins, palette]);
  const shape = placeOf(stock);
  useEffect(() => picture.current?.tell('fit', fit.angle), [fit, shape, palette]);

  return (
    <View
      ref={host}
      role="img"
      aria-label={props.label}
      testID="scene"
      style={{ flex: 1, minHeight: 0, overflow: 'hidden' }}
    >
      {!isDrawn && edges && <Outline edges={edges} angle={fit.angle} />}
      {!!failed && (
        <Txt tone="quiet" style={{ position: 'absolute', padding: SPACE.l }} testID="no-picture">
          The picture cannot be drawn: {failed}. Figures and findings are whole without it.
        </Txt>
      )}
    </View>
  );
}
