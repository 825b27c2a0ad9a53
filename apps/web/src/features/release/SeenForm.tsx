import { Button, TextInput } from 'react-native-paper';
import { coloursOf } from '@tidypath/controller';
import {
  CHIP_SHAPES,
  ChipColour,
  EDGE_ENDS,
  FINISHES,
  Material,
  Operation,
  SOUNDS,
  Seen,
  Setup,
  handOf,
  seenText,
} from '@tidypath/core';
import { Card, Fields } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { Fold } from '../../ui/Fold';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';
import { CHIP_SWATCHES } from '../../ui/log/words';

/** What a load meter is read to. */
const LOADS = ['25', '50', '75', '100', '110'] as const;
const LOAD_OPTIONS = LOADS.map((value) => ({ value, label: value === '110' ? 'over 100 %' : `${value} %` }));

interface Props {
  seen: Seen;
  material: Material;
  onSeen: (more: Partial<Seen>) => void;
}

/** What was seen of one operation, tap by tap. */
function Taps({ seen, material, onSeen }: Props) {
  const colours = coloursOf(material);
  return (
    <>
      <Choices
        label="Sound"
        value={seen.sound}
        options={plainOptions(SOUNDS)}
        onChange={(sound) => onSeen({ sound, ...(sound !== 'screams' && { chatter: undefined }) })}
      />
      {seen.sound === 'screams' && (
        <NumberField
          label="Its pitch"
          suffix="Hz"
          help="Where somebody measured it; 0 where nobody did."
          value={seen.chatter ?? 0}
          min={0}
          max={20000}
          onChange={(hz) => onSeen({ chatter: hz >= 20 ? hz : undefined })}
        />
      )}
      <Choices
        label="Finish"
        value={seen.finish}
        options={plainOptions(FINISHES)}
        onChange={(finish) => onSeen({ finish })}
      />
      {colours.length > 0 && (
        <Choices
          label="Colour of the chips"
          value={seen.colour}
          options={colours.map((value: ChipColour) => ({ value, label: value, swatch: CHIP_SWATCHES[value] }))}
          onChange={(colour) => onSeen({ colour })}
        />
      )}
      <Choices
        label="Chips"
        value={seen.shape}
        options={plainOptions(CHIP_SHAPES)}
        onChange={(shape) => onSeen({ shape })}
      />
      <Choices
        label="Load, as its meter showed"
        value={seen.load === undefined ? undefined : LOADS.find((l) => Number(l) === Math.round(100 * seen.load!))}
        options={LOAD_OPTIONS}
        onChange={(load) => onSeen({ load: Number(load) / 100 })}
      />
      <Choices
        label="Its edge was changed"
        value={seen.edge ?? 'no'}
        options={plainOptions(['no', ...EDGE_ENDS] as const)}
        onChange={(edge) => onSeen({ edge: edge === 'no' ? undefined : edge })}
      />
      <Fields>
        <NumberField
          label="Line"
          value={seen.line ?? 0}
          min={0}
          max={10_000_000}
          whole
          onChange={(line) => onSeen({ line: line > 0 ? line : undefined })}
        />
        <TextInput
          mode="outlined"
          dense
          label="Remark"
          aria-label="Remark on the operation"
          value={seen.remark ?? ''}
          onChangeText={(remark) => onSeen({ remark: remark.slice(0, 200) || undefined })}
        />
      </Fields>
    </>
  );
}

interface FormProps {
  setup: Setup;
  material: Material;
  seen: Seen[];
  onSeen: (seen: Seen[]) => void;
}

/** What was seen, operation by operation; where all went well that is one tap. */
export function SeenForm({ setup, material, seen, onSeen }: FormProps) {
  const operations = setup.operations.filter((o) => o.on && !handOf(o));
  const of = ({ id }: Operation): Seen => seen.find((s) => s.operation === id) ?? { operation: id };
  const tell = (operation: Operation, more: Partial<Seen>) =>
    onSeen([...seen.filter((s) => s.operation !== operation.id), { ...of(operation), ...more }]);
  return (
    <>
      <Button
        mode="outlined"
        testID="all-well"
        style={{ alignSelf: 'flex-start' }}
        onPress={() => onSeen(operations.map((o) => ({ sound: 'quiet', finish: 'clean', ...of(o) })))}
      >
        All of it quiet and clean
      </Button>
      {operations.map((o) => (
        <Card key={o.id}>
          <Txt bold>{o.name}</Txt>
          {seenText(of(o)) !== '' && <Txt kind="small">{seenText(of(o))}</Txt>}
          <Fold label={`What was seen of “${o.name}”`}>
            {() => <Taps seen={of(o)} material={material} onSeen={(more) => tell(o, more)} />}
          </Fold>
        </Card>
      ))}
    </>
  );
}
