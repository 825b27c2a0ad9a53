import { useState } from 'react';
import { Button } from 'react-native-paper';
import { LengthUnit, TOOL_KINDS, TRADES, ToolKind } from '@tidypath/core';
import { Choices, UNITS, plainOptions } from '../../ui/Choices';
import { LengthField } from '../../ui/LengthField';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';

interface Props {
  open: boolean;
  onClose: () => void;
  onAdd: (kind: ToolKind, diameter: number, unit: LengthUnit) => void;
}

/** A new tool from its kind and size; the rest starts in the kind's own proportions. */
export function AddToolSheet({ open, onClose, onAdd }: Props) {
  const [kind, setKind] = useState<ToolKind>('flat');
  const [diameter, setDiameter] = useState(8);
  const [unit, setUnit] = useState<LengthUnit>('mm');
  return (
    <Sheet title="New tool" open={open} onClose={onClose}>
      <Choices
        label="Kind"
        value={kind}
        onChange={setKind}
        options={TOOL_KINDS.map((value) => ({ value, label: TRADES[value].label }))}
      />
      <Choices label="Its lengths are written in" value={unit} onChange={setUnit} options={plainOptions(UNITS)} />
      <LengthField
        label="Diameter"
        testID="new-tool-diameter"
        value={diameter}
        unit={unit}
        min={0.05}
        max={200}
        onChange={setDiameter}
      />
      <Txt kind="small" tone="quiet">
        Lengths, flutes and holder start in the proportions of its kind; set them on the next page.
      </Txt>
      <Button
        mode="contained"
        onPress={() => {
          onClose();
          onAdd(kind, diameter, unit);
        }}
      >
        Add it
      </Button>
    </Sheet>
  );
}
