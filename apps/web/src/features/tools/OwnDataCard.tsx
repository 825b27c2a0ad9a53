import { View } from 'react-native';
import { IconButton, TextInput } from 'react-native-paper';
import { OwnData, Tool, chipDiameter, inRange, isAxial } from '@tidypath/core';
import { useShelf } from '../../api/useShelf';
import { SPACE } from '../../theme/theme';
import { Card, Fields } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { LengthField } from '../../ui/LengthField';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';

/** The shop's own speed and chip for this tool, material by material; they stand before any range. */
export function OwnDataCard({ tool, onChange }: { tool: Tool; onChange: (data: OwnData[]) => void }) {
  const { items: materials } = useShelf('materials');
  const free = materials.filter((m) => !tool.ownData.some((d) => d.materialId === m.id));
  const set = (i: number, more: Partial<OwnData>) =>
    onChange(tool.ownData.map((d, k) => (k === i ? { ...d, ...more } : d)));
  const add = (materialId: string) => {
    const m = materials.find((x) => x.id === materialId)!;
    const speeds = (isAxial(tool) ? m.drillingSpeed : m.millingSpeed)[tool.material];
    const share = isAxial(tool) ? inRange(m.drillShare, 0.5) / tool.flutes : inRange(m.chipShare, 0.5);
    onChange([
      ...tool.ownData,
      {
        materialId,
        surfaceSpeed: Math.round(inRange(speeds, 0.5)),
        chip: Math.round(share * (isAxial(tool) ? tool.diameter : chipDiameter(tool)) * 10) / 1000,
        note: '',
      },
    ]);
  };
  return (
    <Card>
      <Txt heading kind="large">
        Own data
      </Txt>
      <Txt kind="small" tone="quiet">
        What you found by trial. It replaces the starting range wherever this tool meets this material.
      </Txt>
      {tool.ownData.map((d, i) => (
        <View key={d.materialId} style={{ gap: SPACE.s }}>
          <View style={{ flexDirection: 'row', alignItems: 'center' }}>
            <Txt bold style={{ flex: 1 }}>
              {materials.find((m) => m.id === d.materialId)?.name ?? d.materialId}
            </Txt>
            <IconButton
              icon="close"
              accessibilityLabel={`Take off ${d.materialId}`}
              onPress={() => onChange(tool.ownData.filter((_, k) => k !== i))}
            />
          </View>
          <Fields>
            <NumberField
              label="Surface speed"
              suffix="m/min"
              value={d.surfaceSpeed}
              min={0.5}
              max={5000}
              onChange={(v) => set(i, { surfaceSpeed: v })}
            />
            <LengthField
              label="Chip a tooth"
              unit={tool.unit ?? 'mm'}
              value={d.chip}
              min={0.0005}
              max={5}
              onChange={(v) => set(i, { chip: v })}
            />
          </Fields>
          <TextInput
            mode="outlined"
            dense
            label="Note"
            aria-label="Note"
            value={d.note}
            onChangeText={(note) => set(i, { note: note.slice(0, 200) })}
          />
        </View>
      ))}
      {free.length > 0 && (
        <Choices
          label="Add a material"
          value={undefined}
          options={free.map((m) => ({ value: m.id, label: m.name }))}
          onChange={add}
        />
      )}
    </Card>
  );
}
