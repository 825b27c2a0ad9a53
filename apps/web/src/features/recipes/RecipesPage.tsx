import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { Button, IconButton, Snackbar } from 'react-native-paper';
import { Recipe, formatFeed, formatLength, formatNumber } from '@tidypath/core';
import { useShelf } from '../../api/useShelf';
import { Page } from '../../shell/Page';
import { SPACE } from '../../theme/theme';
import { useWide } from '../../theme/usePalette';
import { Card } from '../../ui/Card';
import { Empty } from '../../ui/Empty';
import { LinkCard } from '../../ui/LinkCard';
import { Txt } from '../../ui/Txt';
import { UnreadItems } from '../../ui/UnreadItems';

function RecipeCard({ recipe, onDelete }: { recipe: Recipe; onDelete: () => void }) {
  return (
    <Card testID={`recipe-${recipe.id}`}>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <Txt bold style={{ flex: 1 }}>
          {recipe.name}
        </Txt>
        <IconButton icon="delete-outline" accessibilityLabel={`Delete ${recipe.name}`} onPress={onDelete} />
      </View>
      <Txt mono>
        {formatNumber(recipe.rpm, 0)} rpm, {formatFeed(recipe.feed, 'mm')} ({formatFeed(recipe.feed, 'inch')})
      </Txt>
      <Txt kind="small">
        T{recipe.tool.number} · {recipe.tool.name}, bite {formatLength(recipe.ae, 'mm')}, layer{' '}
        {formatLength(recipe.ap, 'mm')}
      </Txt>
      <Txt kind="small" tone="quiet">
        {recipe.material.name}, {recipe.machine.name}
      </Txt>
      {recipe.note !== '' && <Txt kind="small">{recipe.note}</Txt>}
    </Card>
  );
}

/** What worked, kept; and the calculator to start from. */
export function RecipesPage() {
  const router = useRouter();
  const wide = useWide();
  const { items, kept, error, remove, restore } = useShelf('recipes');
  const [gone, setGone] = useState<Recipe>();
  return (
    <>
      <Page title="Recipes">
        <LinkCard
          title="Calculator"
          testID="to-calculator"
          text="Material, tool, machine, width and depth in; speed, feed, chip, load and bending out"
          onPress={() => router.push('/recipes/calculator')}
        />
        <LinkCard
          title="Threads and drills"
          testID="to-threads"
          text="A thread’s diameters, its drill for cutting or forming, the nearest stocked size"
          onPress={() => router.push('/recipes/threads')}
        />
        <UnreadItems shelf="recipes" />
        {error && <Txt tone="danger">▲ {error.message}. Trying again.</Txt>}
        {kept?.length === 0 && (
          <Empty title="No recipes yet">
            <Txt tone="quiet">Work a cut out with the calculator and keep what you believe.</Txt>
            <Button mode="outlined" onPress={() => router.push('/recipes/calculator')}>
              Open the calculator
            </Button>
          </Empty>
        )}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.s }}>
          {items.map((r) => (
            <View key={r.id} style={{ width: wide ? '49%' : '100%' }}>
              <RecipeCard
                recipe={r}
                onDelete={() => {
                  setGone(r);
                  void remove(r.id);
                }}
              />
            </View>
          ))}
        </View>
      </Page>
      <Snackbar
        visible={!!gone}
        onDismiss={() => setGone(undefined)}
        duration={7000}
        action={gone && { label: 'Undo', onPress: () => void restore(gone.id) }}
      >
        {gone ? `“${gone.name}” deleted` : ''}
      </Snackbar>
    </>
  );
}
