import { View } from 'react-native';
import { IconButton } from 'react-native-paper';
import { Tool } from '@tidypath/core';
import { useShelf } from '../../api/useShelf';
import { Card } from '../../ui/Card';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';

type Lasts = NonNullable<Tool['lasts']>;

/** How long its edges last, material by material, where the log taught it. */
export function LastsCard({ tool: { lasts = [] }, onChange }: { tool: Tool; onChange: (lasts: Lasts) => void }) {
  const { items: materials } = useShelf('materials');
  if (lasts.length === 0) return null;
  return (
    <Card testID="lasts">
      <Txt heading kind="large">
        How long its edges last
      </Txt>
      {lasts.map((l, i) => (
        <View key={l.materialId}>
          <View style={{ flexDirection: 'row', alignItems: 'center' }}>
            <Txt bold style={{ flex: 1 }}>
              {materials.find((m) => m.id === l.materialId)?.name ?? l.materialId}
            </Txt>
            <IconButton
              icon="close"
              accessibilityLabel={`As its card says in ${l.materialId}`}
              onPress={() => onChange(lasts.filter((_, k) => k !== i))}
            />
          </View>
          <NumberField
            label="Of the life on its card"
            value={l.factor}
            min={0.02}
            max={50}
            onChange={(factor) => onChange(lasts.map((one, k) => (k === i ? { ...one, factor } : one)))}
          />
          {l.note !== '' && (
            <Txt kind="small" tone="quiet">
              {l.note}
            </Txt>
          )}
        </View>
      ))}
    </Card>
  );
}
