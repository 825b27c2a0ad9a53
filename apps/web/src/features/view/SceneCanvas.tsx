import { RefObject, useEffect, useRef } from 'react';
import { View } from 'react-native';
import { useTheme } from 'react-native-paper';
import type { Allowed, FixtureBox, Tool } from '@tidypath/core';
import type { SurfaceView } from '../../compute/messages';
import { usePalette } from '../../theme/usePalette';
import type { Point3 } from './models';
import { Angle, Scene, Segments } from './scene';

export interface SceneProps {
  surface?: SurfaceView;
  /** Heights that replace those of `surface` while playing. */
  heights?: Float32Array;
  edges?: Segments;
  cut?: Segments;
  rapid?: Segments;
  fixtures: FixtureBox[];
  zero?: Point3;
  tool?: { at: Point3; tool: Tool };
  marks?: Point3[];
  /** Where somebody probed. */
  pins?: Point3[];
  /** Colours the stock by how far it is from this. */
  allowed?: Allowed;
  onTap?: (at: Point3) => void;
  /** Set to what makes a PNG of the picture. */
  cameraRef?: RefObject<(() => Promise<Uint8Array>) | null>;
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
  const { surface, heights, edges, cut, rapid, fixtures, zero, tool, marks, pins, allowed, onTap, cameraRef, fit } =
    props;
  const tapped = useRef(onTap);
  useEffect(() => {
    tapped.current = onTap;
  }, [onTap]);

  useEffect(() => {
    const element = host.current as unknown as HTMLElement;
    const made = new Scene(element, palette, (at) => tapped.current?.(at));
    scene.current = made;
    if (cameraRef) cameraRef.current = () => made.picture();
    const watch = new ResizeObserver(() => made.resize());
    watch.observe(element);
    return () => {
      watch.disconnect();
      made.dispose();
      scene.current = null;
    };
    // A change of theme makes a new scene.
  }, [palette, cameraRef]);

  useEffect(() => scene.current?.setSurface(surface), [surface, palette]);
  useEffect(() => scene.current?.setAllowed(allowed), [allowed, palette]);
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
  useEffect(() => scene.current?.setPins(pins ?? []), [pins, palette]);
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
