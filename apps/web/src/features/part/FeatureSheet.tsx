import { ReactNode } from 'react';
import { View } from 'react-native';
import { Switch, TextInput } from 'react-native-paper';
import {
  FACES,
  Face,
  Feature,
  LengthUnit,
  Limited,
  MEANINGS,
  OPPOSITES,
  Opposite,
  Shape,
  Size,
  limitsOf,
  sideOf,
  type Point,
} from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Actions } from '../../ui/Actions';
import { Button } from 'react-native-paper';
import { Fields, Row } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { LeanField } from '../../ui/LeanField';
import { LengthField } from '../../ui/LengthField';
import { SizeField } from '../../ui/SizeField';
import { NumberField } from '../../ui/NumberField';
import { CounterboreFields, EdgeFields } from './MouthFields';
import { ThreadField } from './ThreadField';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { PlaceFields } from './PlaceFields';
import { MEANING_WORDS } from './words';

interface Props {
  feature: Feature | undefined;
  unit: LengthUnit;
  thickness: number;
  /** Middle of the side it is cut from. */
  middle: Point;
  /** How it was read wrong. */
  correct?: ReactNode;
  /** Which tools can make it. */
  advice?: ReactNode;
  onChange: (next: Feature) => void;
  /** Puts it on another side. */
  onSide: (side: Face) => void;
  /** Adds it once more on the opposite side. */
  onOpposite: (how: Opposite) => void;
  onDelete: () => void;
  onClose: () => void;
}

/** The feature with one of its sizes and that size's limits changed. */
function withSize(feature: Feature, size: Limited, { mm, limits }: Size): Feature {
  const others = (feature.limits ?? []).filter((l) => l.size !== size);
  const all = limits ? [...others, { size, ...limits }] : others;
  const kept = { ...feature, limits: all.length ? all : undefined };
  return size === 'depth' ? { ...kept, depth: mm } : { ...kept, shape: { ...feature.shape, [size]: mm } as Shape };
}

function ShapeFields({
  feature,
  unit,
  onChange: set,
}: {
  feature: Feature;
  unit: LengthUnit;
  onChange: (f: Feature) => void;
}) {
  const { shape } = feature;
  const onChange = (next: Shape) => set({ ...feature, shape: next });
  const size = (label: string, name: Limited, mm: number) => (
    <SizeField
      key={label}
      label={label}
      value={{ mm, limits: limitsOf(feature, name) }}
      unit={unit}
      min={0.01}
      max={20000}
      testID={`size-${name}`}
      onChange={(next) => set(withSize(feature, name, next))}
    />
  );
  const length = (label: string, value: number, set: (mm: number) => Shape, min = 0.01) => (
    <LengthField
      key={label}
      label={label}
      value={value}
      unit={unit}
      min={min}
      max={20000}
      onChange={(mm) => onChange(set(mm))}
    />
  );
  switch (shape.type) {
    case 'rectangle':
      return (
        <Fields>
          {[
            size('Width (X)', 'width', shape.width),
            size('Height (Y)', 'height', shape.height),
            length('Corner radius', shape.radius, (radius) => ({ ...shape, radius }), 0),
          ]}
        </Fields>
      );
    case 'round':
      return size('Diameter', 'diameter', shape.diameter);
    case 'slot':
      return <Fields>{[size('Length over all', 'length', shape.length), size('Width', 'width', shape.width)]}</Fields>;
    case 'polygon':
      return (
        <Fields>
          <NumberField
            label="Sides"
            value={shape.sides}
            min={3}
            max={60}
            whole
            step={1}
            onChange={(sides) => onChange({ ...shape, sides })}
          />
          {size('Across flats', 'across', shape.across)}
        </Fields>
      );
    case 'text':
      return (
        <Fields>
          <TextInput
            mode="outlined"
            dense
            label="Text"
            aria-label="Text"
            value={shape.text}
            onChangeText={(text) => text && onChange({ ...shape, text: text.slice(0, 200) })}
          />
          {length('Height of capitals', shape.height, (height) => ({ ...shape, height }), 0.1)}
        </Fields>
      );
    case 'chain':
      return <Txt tone="quiet">Drawn with {shape.vertices.length} pieces.</Txt>;
  }
}

/** Meanings whose top edge can be broken. */
const BROKEN: Feature['meaning'][] = ['outline', 'pocket', 'boss', 'hole', 'edge'];

/** The sides it can be cut from; what goes all through is the same from above and below. */
const sidesFor = ({ meaning }: Feature): readonly Face[] =>
  meaning === 'outline' || meaning === 'notch' ? FACES.filter((face) => face !== 'underside') : FACES;

/** Where its depth is measured from. */
const depthHelp = (side: Face) =>
  side === 'top'
    ? 'down from the top of the part'
    : side === 'underside'
      ? 'up from the underside of the part'
      : `in from the ${side} of the part`;

const canThread = ({ meaning, shape }: Feature) => meaning === 'hole' || (meaning === 'boss' && shape.type === 'round');

/** Everything about one feature. Only what matters for its meaning is asked. */
export function FeatureSheet({
  feature,
  unit,
  thickness,
  middle,
  correct,
  advice,
  onChange,
  onSide,
  onOpposite,
  onDelete,
  onClose,
}: Props) {
  if (!feature) return null;
  const set = (more: Partial<Feature>) => onChange({ ...feature, ...more });
  const cutsDown = feature.meaning === 'pocket' || feature.meaning === 'hole';
  const hasDepth = (cutsDown && !feature.through) || feature.meaning === 'line';
  return (
    <Sheet
      title={feature.name}
      open
      onClose={onClose}
      actions={<Actions leave="Delete" onLeave={onDelete} take="Done" onTake={onClose} />}
    >
      <TextInput
        mode="outlined"
        dense
        label="Name"
        aria-label="Name"
        value={feature.name}
        onChangeText={(name) => name.trim() && set({ name: name.slice(0, 80) })}
      />
      <Choices
        label="It is"
        value={feature.meaning}
        onChange={(meaning) =>
          set({
            meaning,
            through: meaning === 'outline' || (meaning === 'hole' && feature.through),
            depth: meaning === 'boss' ? 0 : feature.depth || Math.min(5, thickness),
          })
        }
        options={MEANINGS.map((value) => ({ value, label: MEANING_WORDS[value] }))}
      />
      {cutsDown && (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.s }}>
          <Switch
            value={feature.through}
            onValueChange={(through) => set({ through })}
            accessibilityLabel="Goes through"
          />
          <Txt>Goes through</Txt>
        </View>
      )}
      {feature.meaning !== 'ignore' && (
        <Choices
          label="Cut from the"
          value={sideOf(feature)}
          options={plainOptions(sidesFor(feature))}
          onChange={onSide}
          fold
        />
      )}
      {(cutsDown || feature.meaning === 'line') && sideOf(feature) === 'top' && (
        <LeanField
          label="Its axis leans"
          none="not at all"
          value={feature.lean}
          fold
          onChange={(lean) => set({ lean })}
        />
      )}
      {hasDepth && (
        <SizeField
          label="Depth"
          value={{ mm: feature.depth, limits: limitsOf(feature, 'depth') }}
          unit={unit}
          min={0.001}
          max={2000}
          help={feature.lean ? 'along its axis, from where that meets the top' : depthHelp(sideOf(feature))}
          testID="feature-depth"
          onChange={(depth) => onChange(withSize(feature, 'depth', depth))}
        />
      )}
      {feature.meaning === 'boss' && (
        <LengthField
          label="Top lies below the part's top by"
          value={feature.depth}
          unit={unit}
          min={0}
          max={thickness}
          onChange={(depth) => set({ depth })}
        />
      )}
      {canThread(feature) && <ThreadField key={feature.id} feature={feature} unit={unit} onChange={set} />}
      <ShapeFields feature={feature} unit={unit} onChange={onChange} />
      {feature.meaning === 'notch' && (
        <LengthField
          label="Radius of its mouth"
          value={feature.mouth ?? 0}
          unit={unit}
          min={0}
          max={1000}
          help="0 leaves the corners sharp"
          onChange={(mouth) => set({ mouth: mouth || undefined })}
        />
      )}
      {feature.meaning === 'hole' && <CounterboreFields feature={feature} unit={unit} onChange={set} />}
      {BROKEN.includes(feature.meaning) && feature.meaning !== 'edge' && (
        <NumberField
          label="Roughness of its walls, µm Ra"
          value={feature.finish ?? 0}
          min={0}
          max={50}
          help={feature.finish ? 'Finish feeds keep within it' : '0 where the drawing asks for none'}
          testID="finish"
          onChange={(ra) => set({ finish: ra >= 0.05 ? ra : undefined })}
        />
      )}
      {BROKEN.includes(feature.meaning) && <EdgeFields feature={feature} unit={unit} onChange={set} />}
      <PlaceFields key={`place-${feature.id}`} feature={feature} middle={middle} unit={unit} onChange={set} />
      {feature.meaning !== 'outline' && feature.meaning !== 'ignore' && (
        <>
          <Txt kind="small" tone="quiet">
            Once more on the opposite side of the part
          </Txt>
          <Row>
            {OPPOSITES.map((how) => (
              <Button key={how} mode="outlined" compact onPress={() => onOpposite(how)} testID={`opposite-${how}`}>
                {how}
              </Button>
            ))}
          </Row>
        </>
      )}
      {correct}
      {advice}
    </Sheet>
  );
}
