import { format } from 'date-fns/format';
import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import useSWR from 'swr';
import { StepSeen, seenOf } from '@tidypath/controller';
import { Recipe, evidenceText, isSameCut, noted, recipeOf, seenText, shortRoot } from '@tidypath/core';
import { ApiError, api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { useShelf } from '../../api/useShelf';
import { Card, Row } from '../../ui/Card';
import { Txt } from '../../ui/Txt';

/** Writes what a cut did to the recipe of the same cut, or makes one; undone as easily. */
function useKeeping() {
  const { kept, items, add, save, remove } = useShelf('recipes');
  const [done, setDone] = useState<{ name: string; undo: () => Promise<unknown> }>();
  const [failed, setFailed] = useState('');
  const keep = async (cut: NonNullable<ReturnType<typeof recipeOf>>, line: string) => {
    const known = kept?.find((k) => isSameCut(k.item, cut));
    if (known) {
      const said = await save(known.version, { ...known.item, note: noted(known.item.note, line) });
      const version = said !== 'waits' && said.saved ? said.version : known.version;
      return setDone({ name: known.item.name, undo: () => save(version, known.item) });
    }
    let n = items.length + 1;
    while (items.some((r) => r.id === `r${n}`)) n++;
    const recipe: Recipe = { ...cut, id: `r${n}`, note: line, keptAt: new Date().toISOString() };
    const id = await add(recipe);
    setDone({ name: recipe.name, undo: () => remove(id) });
  };
  const trying = (what: Promise<unknown>) => {
    setFailed('');
    what.catch((error: ApiError) => setFailed(error.message));
  };
  return {
    done,
    failed,
    keep: (...of: Parameters<typeof keep>) => trying(keep(...of)),
    undo: () => trying(done!.undo().then(() => setDone(undefined))),
  };
}

interface Props {
  /** Id of what ran: the job may have gone on since. */
  release: string;
  steps: StepSeen[];
}

/** Operation by operation, what was seen; a cut is kept with the recipes, good or bad. */
export function SeenCard({ release, steps }: Props) {
  const { data } = useSWR(KEYS.release(release), () => api.releaseOf(release));
  const { done, failed, keep, undo } = useKeeping();
  const setup = data?.body.job.setups.find((s) => s.id === data.setupId);
  if (!data || !setup || steps.length === 0) return null;
  const { job } = data.body;
  return (
    <Card testID="seen">
      <Txt heading bold>
        Operation by operation
      </Txt>
      {steps.map((step, i) => {
        const operation = setup.operations.find((o) => o.id === step.operationId);
        const cut = operation && recipeOf(job, setup, operation);
        const seen = seenOf(step);
        const line = evidenceText({ day: format(new Date(), 'd MMM yyyy'), release: shortRoot(data.root), seen });
        const isBad = seen.sound === 'screams' || step.load > 1;
        return (
          <Row key={i}>
            <View style={{ flex: 1, minWidth: 180 }}>
              <Txt>{operation?.name ?? step.operationId}</Txt>
              <Txt kind="small" tone={isBad ? 'danger' : 'quiet'}>
                {isBad ? '▲ ' : ''}
                {seenText(seen)}
              </Txt>
            </View>
            {cut && (
              <Button
                compact
                accessibilityLabel={`Keep “${operation.name}” with the recipes`}
                onPress={() => keep(cut, line)}
              >
                To the recipes
              </Button>
            )}
          </Row>
        );
      })}
      {done && (
        <Row>
          <Txt live testID="kept-recipe" style={{ flex: 1 }}>
            ✓ Written to “{done.name}”
          </Txt>
          <Button compact testID="recipe-undo" onPress={undo}>
            Take it back
          </Button>
        </Row>
      )}
      {failed !== '' && <Txt tone="danger">▲ {failed}</Txt>}
    </Card>
  );
}
