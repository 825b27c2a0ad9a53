import { format } from 'date-fns/format';
import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import {
  Job,
  Recipe,
  Seen,
  Setup,
  evidenceText,
  isGoodCut,
  isSameCut,
  noted,
  recipeOf,
  seenText,
  shortRoot,
} from '@tidypath/core';
import type { ApiError } from '../../api/client';
import { useShelf } from '../../api/useShelf';
import { Row } from '../Card';
import { Txt } from '../Txt';

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

/** What was written to the recipes last, taken back with a tap. */
function Kept({ keeping: { done, failed, undo } }: { keeping: ReturnType<typeof useKeeping> }) {
  return (
    <>
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
    </>
  );
}

interface Props {
  job: Job;
  setup: Setup;
  /** Of the release that ran. */
  root: string;
  /** When it ran, ISO 8601. */
  at: string;
  seen: Seen[];
}

/** Operation by operation, what was seen; a cut is kept with the recipes, good or bad. */
export function SeenRows({ job, setup, root, at, seen: all }: Props) {
  const keeping = useKeeping();
  const day = format(new Date(at), 'd MMM yyyy');
  return (
    <>
      {all.map((seen, i) => {
        const operation = setup.operations.find((o) => o.id === seen.operation);
        const cut = operation && recipeOf(job, setup, operation);
        const isGood = isGoodCut(seen);
        return (
          <Row key={i}>
            <View style={{ flex: 1, minWidth: 180 }}>
              <Txt>{operation?.name ?? seen.operation}</Txt>
              <Txt kind="small" tone={isGood ? 'quiet' : 'danger'}>
                {isGood ? '' : '▲ '}
                {seenText(seen)}
              </Txt>
            </View>
            {cut && (
              <Button
                compact
                accessibilityLabel={`Keep “${operation.name}” with the recipes`}
                onPress={() => keeping.keep(cut, evidenceText({ day, release: shortRoot(root), seen }))}
              >
                To the recipes
              </Button>
            )}
          </Row>
        );
      })}
      <Kept keeping={keeping} />
    </>
  );
}
