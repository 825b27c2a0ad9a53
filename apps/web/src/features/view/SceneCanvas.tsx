import { useEffect, useRef } from 'react';
import { View } from 'react-native';
import { useTheme } from 'react-native-paper';
import type { FixtureBox, Tool } from '@tidypath/core';
import type { SurfaceView } from '../../compute/messages';
import { usePalette } from '../../theme/usePalette';
import { Angle, Scene, Segments } from './scene';

export interface SceneProps {
  surface?: SurfaceView;
  /** Heights that replace those of `surface` while playing. */
  heights?: Float32Array;
  edges?: Segments;
  cut?: Segments;
  rapid?: Segments;
  fixtures: FixtureBox[];
  zero?: { x: number; y: number; z: number };
  tool?: { at: { x: number; y: number; z: number }; tool: Tool };
  marks?: { x: number; y: number; z: number }[];
  /** Changes when the picture should be fitted again, from this side. */
  fit: { angle: Angle; count: number };
  label: string;
}

/** The 3D picture on the page; loaded only when first asked for. */
export default function SceneCanvas(props: SceneProps) {
  const host = useRef<View>(null);
  const scene = useRef<Scene | null>(null);
  const palette = usePalette();
  const dark = useTheme().dark;
  const { surface, heights, edges, cut, rapid, fixtures, zero, tool, marks, fit } = props;

  useEffect(() => {
    const element = host.current as unknown as HTMLElement;
    const made = new Scene(element, palette);
    scene.current = made;
    const watch = new ResizeObserver(() => made.resize());
    watch.observe(element);
    return () => {
      watch.disconnect();
      made.dispose();
      scene.current = null;
    };
    // A change of theme makes a new scene.
  }, [palette]);

  useEffect(() => scene.current?.setSurface(surface), [surface, palette]);
  useEffect(() => {
    if (heights) scene.current?.setHeights(heights);
  }, [heights, palette]);
  useEffect(
    () => scene.current?.setLines('edges', edges, { colour: palette.part, width: 1.6, opacity: dark ? 0.9 : 0.8 }),
    [edges, palette, dark],
  );
  useEffect(() => scene.current?.setPath(cut, rapid), [cut, rapid, palette]);
  useEffect(() => scene.current?.setFixtures(fixtures), [fixtures, palette]);
  useEffect(() => {
    if (zero) scene.current?.setZero(zero);
  }, [zero, palette]);
  useEffect(() => scene.current?.setTool(tool?.at, tool?.tool), [tool, palette]);
  useEffect(() => scene.current?.setMarks(marks ?? []), [marks, palette]);
  const shape = surface && [surface.x0, surface.y0, surface.nx, surface.ny, surface.cell].join();
  useEffect(() => scene.current?.fit(fit.angle), [fit, shape, palette]);

  return (
    <View
      ref={host}
      role="img"
      aria-label={props.label}
      testID="scene"
      style={{ flex: 1, minHeight: 0, overflow: 'hidden' }}
    />
  );
}
