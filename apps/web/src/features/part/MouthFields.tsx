import { View } from 'react-native';
import { Button, Switch } from 'react-native-paper';
import { Feature, LengthUnit, SCREWS, formatLength } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Fields } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { LengthField } from '../../ui/LengthField';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';

interface Props {
  feature: Feature;
  unit: LengthUnit;
  onChange: (more: Partial<Feature>) => void;
}

/** How far a hole may differ from a clearance hole and still be meant as one, mm. */
const NEAR = 0.35;

/** The screw whose clearance hole a round hole is, nearest first. */
function screwFor(feature: Feature): string | undefined {
  if (feature.shape.type !== 'round') return undefined;
  const { diameter } = feature.shape;
  const away = (name: string) => Math.abs(SCREWS[name].clearance - diameter);
  const [best] = Object.keys(SCREWS).sort((a, b) => away(a) - away(b));
  return away(best) < NEAR ? best : undefined;
}

/** The wider mouth of a hole, proposed for the screw it fits. */
export function CounterboreFields({ feature, unit, onChange }: Props) {
  const { counterbore } = feature;
  const screw = screwFor(feature);
  const wide = feature.shape.type === 'round' ? feature.shape.diameter : 5;
  const proposed = screw
    ? { diameter: SCREWS[screw].counterbore, depth: SCREWS[screw].headHeight + 0.5 }
    : { diameter: wide * 2, depth: Math.max(1, wide / 2) };
  const same = counterbore?.diameter === proposed.diameter && counterbore.depth === proposed.depth;
  return (
    <View style={{ gap: SPACE.s }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.s }}>
        <Switch
          value={!!counterbore}
          onValueChange={(on) => onChange({ counterbore: on ? proposed : undefined })}
          accessibilityLabel="Counterbore"
        />
        <Txt>Counterbore</Txt>
      </View>
      {counterbore && (
        <Fields>
          <LengthField
            label="Counterbore diameter"
            value={counterbore.diameter}
            unit={unit}
            min={0.1}
            max={500}
            onChange={(diameter) => onChange({ counterbore: { ...counterbore, diameter } })}
          />
          <LengthField
            label="Counterbore depth"
            value={counterbore.depth}
            unit={unit}
            min={0.01}
            max={500}
            onChange={(depth) => onChange({ counterbore: { ...counterbore, depth } })}
          />
        </Fields>
      )}
      {counterbore && screw && !same && (
        <Button compact style={{ alignSelf: 'flex-start' }} onPress={() => onChange({ counterbore: proposed })}>
          For {screw}: ⌀ {formatLength(proposed.diameter, unit)}, {formatLength(proposed.depth, unit)} deep
        </Button>
      )}
    </View>
  );
}

const EDGES = { sharp: 'Sharp', chamfer: 'Chamfered', round: 'Rounded' } as const;

/** How the top edge of a feature is broken. */
export function EdgeFields({ feature, unit, onChange }: Props) {
  const { edge } = feature;
  return (
    <View style={{ gap: SPACE.s }}>
      <Choices
        label="Top edge"
        value={edge?.form ?? 'sharp'}
        onChange={(form) => onChange({ edge: form === 'sharp' ? undefined : { size: 0.5, angle: 90, ...edge, form } })}
        options={(Object.keys(EDGES) as (keyof typeof EDGES)[]).map((value) => ({ value, label: EDGES[value] }))}
      />
      {edge && (
        <Fields>
          <LengthField
            label={edge.form === 'chamfer' ? 'Width of the chamfer' : 'Radius of the edge'}
            value={edge.size}
            unit={unit}
            min={0.01}
            max={100}
            onChange={(size) => onChange({ edge: { ...edge, size } })}
          />
          {edge.form === 'chamfer' && (
            <NumberField
              label="Included angle"
              value={edge.angle}
              min={20}
              max={150}
              suffix="°"
              onChange={(angle) => onChange({ edge: { ...edge, angle } })}
            />
          )}
        </Fields>
      )}
    </View>
  );
}
