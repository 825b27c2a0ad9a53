import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import {
  FaceFacts,
  JobFile,
  LengthUnit,
  Vec3,
  atHand,
  between,
  formatArea,
  formatLength,
  formatNumber,
} from '@tidypath/core';
import { SPACE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';
import { Slide } from '../ui/Slide';
import { Txt } from '../ui/Txt';
import { Picture } from './picture';
import { ANGLES, type Angle, type MetFace, type SectionPlane } from './terms';

interface Props {
  surface: JobFile;
  /** Sizes of the box round it, mm, its top at Z 0. */
  size: { x: number; y: number; z: number };
  unit: LengthUnit;
  /** Faces that are lit. */
  chosen: number[];
  /** A face was tapped. */
  onPick: (face: number) => void;
  label: string;
  /** What is told of a face, where that is more than what surface it is. */
  say?: (face: number) => string | undefined;
}

/** What a face is, in words. */
export function faceWords({ fit, area }: FaceFacts, unit: LengthUnit): string {
  const long = (mm: number) => formatLength(mm, unit);
  const on = formatArea(area, unit);
  if (fit.kind === 'plane') return `Flat, ${on}`;
  if (fit.kind === 'cylinder') return `Cylinder, diameter ${long(2 * fit.radius)}, ${on}`;
  if (fit.kind === 'cone')
    return `Cone, ${formatNumber((2 * Math.abs(fit.slope) * 180) / Math.PI, 2)}° included, ${on}`;
  if (fit.kind === 'ball') return `Ball, radius ${long(fit.radius)}, ${on}`;
  if (fit.kind === 'ring') return `Rounding, radius ${long(fit.radius)}, ${on}`;
  return `Free form, ${on}`;
}

const away = (a: Vec3, b: Vec3) => Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z);

/** What lies between two picks. */
export function betweenWords([a, b]: MetFace[], unit: LengthUnit): string {
  const { distance, degrees } = between(a.fit, b.fit);
  const points = `The two places are ${formatLength(away(a.at, b.at), unit)} apart.`;
  if (distance !== undefined) return `${formatLength(distance, unit)} between the two faces. ${points}`;
  return degrees === undefined ? points : `${formatNumber(degrees, 3)}° between the two faces. ${points}`;
}

/** The next of the faces under a tap: the same tap once more goes one further in. */
function nextOf(met: MetFace[], before: MetFace[], picked: number | undefined): MetFace | undefined {
  const isSame = met.length === before.length && met.every((f, i) => f.face === before[i].face);
  const at = isSame ? met.findIndex((f) => f.face === picked) : -1;
  return met[(at + 1) % Math.max(1, met.length)];
}

/** The solid on the page: turned, cut open, its faces tapped and measured. */
export function SolidView({ surface, size, unit, chosen, onPick, label, say }: Props) {
  const host = useRef<View>(null);
  const picture = useRef<Picture | null>(null);
  const palette = usePalette();
  const [failed, setFailed] = useState('');
  const [isDrawn, setDrawn] = useState(false);
  const [fit, setFit] = useState<{ angle: Angle }>({ angle: 'corner' });
  const [every, setEvery] = useState(false);
  const [plane, setPlane] = useState<SectionPlane>();
  const [isMeasuring, setMeasuring] = useState(false);
  const [picks, setPicks] = useState<MetFace[]>([]);
  const last = useRef<{ met: MetFace[]; picked?: number }>({ met: [] });
  const tapped = useRef<(at: Vec3, faces?: MetFace[]) => void>(undefined);
  useEffect(() => {
    tapped.current = (_, met = []) => {
      const next = nextOf(met, last.current.met, last.current.picked);
      last.current = { met, picked: next?.face };
      if (!next) return;
      setPicks((before) => (isMeasuring && before.length === 1 ? [...before, next] : [next]));
      onPick(next.face);
    };
  }, [isMeasuring, onPick]);

  useEffect(() => {
    const element = host.current as unknown as HTMLElement;
    const made = new Picture(
      element,
      palette,
      (at, faces) => tapped.current?.(at, faces),
      setFailed,
      () => setDrawn(true),
    );
    picture.current = made;
    const watch = new ResizeObserver(() => made.resize());
    watch.observe(element);
    return () => {
      watch.disconnect();
      made.dispose();
      picture.current = null;
    };
  }, [palette]);
  useEffect(() => {
    picture.current?.tell('setSolid', atHand(surface.sha256));
    picture.current?.tell('fit', 'corner');
  }, [surface.sha256, palette]);
  useEffect(() => picture.current?.tell('setChosen', chosen), [chosen, surface.sha256, palette]);
  useEffect(() => picture.current?.tell('setSection', plane), [plane, surface.sha256, palette]);
  useEffect(() => picture.current?.tell('fit', fit.angle), [fit, palette]);
  useEffect(
    () => picture.current?.tell('setPins', isMeasuring ? picks.map((p) => p.at) : []),
    [picks, isMeasuring, palette],
  );

  const [low, high] = plane?.axis === 'z' ? [-size.z, 0] : [0, plane ? size[plane.axis] : 0];
  const cut = (axis: SectionPlane['axis']) =>
    setPlane(plane?.axis === axis ? undefined : { axis, at: axis === 'z' ? -size.z / 2 : size[axis] / 2 });
  const [one, two] = picks;
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <View
        ref={host}
        role="img"
        aria-label={label}
        testID="solid"
        style={{ flex: 1, minHeight: 0, overflow: 'hidden' }}
      >
        {!isDrawn && !failed && (
          <Txt tone="quiet" style={{ position: 'absolute', padding: SPACE.l }}>
            Drawing the solid …
          </Txt>
        )}
        {!!failed && (
          <Txt tone="quiet" style={{ position: 'absolute', padding: SPACE.l }}>
            The picture cannot be drawn: {failed}. The list is whole without it.
          </Txt>
        )}
      </View>
      {one && (
        <Txt kind="small" live testID="face-words" style={{ paddingHorizontal: SPACE.m }}>
          {isMeasuring && two ? betweenWords(picks, unit) : (say?.(one.face) ?? faceWords(one, unit))}
          {isMeasuring && !two ? ' · tap a second face' : ''}
        </Txt>
      )}
      {plane && (
        <View style={{ paddingHorizontal: SPACE.m }}>
          <Slide
            label={`Cut open across ${plane.axis.toUpperCase()}`}
            value={(plane.at - low) / (high - low || 1)}
            word={formatLength(plane.at, unit)}
            steps={200}
            onChange={(share) => setPlane({ ...plane, at: low + share * (high - low) })}
          />
        </View>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', paddingHorizontal: SPACE.s }}>
        {ANGLES.filter((_, i) => every || i < 3).map((angle) => (
          <Button key={angle} compact onPress={() => setFit({ angle })} accessibilityLabel={`Fit from the ${angle}`}>
            {angle}
          </Button>
        ))}
        <Button compact onPress={() => setEvery(!every)}>
          {every ? 'fewer' : 'other sides'}
        </Button>
        <View style={{ flex: 1 }} />
        {(['x', 'y', 'z'] as const).map((axis) => (
          <Button
            key={axis}
            compact
            mode={plane?.axis === axis ? 'contained-tonal' : 'text'}
            onPress={() => cut(axis)}
            accessibilityLabel={plane?.axis === axis ? 'Close the section' : `Cut open across ${axis.toUpperCase()}`}
          >
            {axis === 'x' ? 'cut X' : axis.toUpperCase()}
          </Button>
        ))}
        <Button
          compact
          mode={isMeasuring ? 'contained-tonal' : 'text'}
          onPress={() => (setMeasuring(!isMeasuring), setPicks([]))}
        >
          measure
        </Button>
      </View>
    </View>
  );
}
