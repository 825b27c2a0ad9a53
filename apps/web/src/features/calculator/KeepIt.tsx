import { useRouter } from 'expo-router';
import { memo, useState } from 'react';
import { Button, TextInput } from 'react-native-paper';
import { ApiError } from '../../api/client';
import { useShelf } from '../../api/useShelf';
import { Card } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import type { Found } from './useCalculator';

/** Keeps the cut as a recipe. */
export const KeepIt = memo(function KeepIt({ found }: { found: Found }) {
  const router = useRouter();
  const { add, items } = useShelf('recipes');
  const { tool, material, machine, ae, ap, boldness = 0.5 } = found.situation;
  const [name, setName] = useState('');
  const [told, setTold] = useState<string>();
  const keep = async () => {
    let n = items.length + 1;
    while (items.some((r) => r.id === `r${n}`)) n++;
    try {
      await add({
        id: `r${n}`,
        name: name.trim() || `${tool.name} in ${material.name}`.slice(0, 120),
        tool,
        material,
        machine,
        ae: Math.max(0.001, ae),
        ap: Math.max(0.001, ap),
        rpm: found.suggestion.rpm,
        feed: found.suggestion.feed,
        boldness,
        note: '',
        keptAt: new Date().toISOString(),
      });
      router.push('/recipes');
    } catch (e) {
      setTold((e as ApiError).message);
    }
  };
  return (
    <Card>
      <TextInput
        mode="outlined"
        dense
        label="Name of the recipe"
        aria-label="Name of the recipe"
        placeholder={`${tool.name} in ${material.name}`}
        value={name}
        onChangeText={(t) => setName(t.slice(0, 120))}
      />
      {told && <Txt tone="danger">▲ {told}</Txt>}
      <Button mode="contained" onPress={() => void keep()} disabled={!found.suggestion.possible}>
        Keep as a recipe
      </Button>
    </Card>
  );
});
