import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import type { Edit, Job, Returned, Setup } from '@tidypath/core';
import { engine } from '../../compute/engine';
import { SPACE } from '../../theme/theme';
import { Card } from '../../ui/Card';
import { counted } from '../../ui/counted';
import { Txt } from '../../ui/Txt';
import { useJob } from '../../session/JobContext';

/** What of an edited program belongs to one operation, in the order of its lines. */
function Changed({ name, edits }: { name: string; edits: Edit[] }) {
  return (
    <View style={{ gap: SPACE.xs }}>
      <Txt bold>{name}</Txt>
      {edits.map((e, i) => (
        <Txt key={i} kind="small" tone={e.isTaken ? 'ink' : 'quiet'}>
          {`${e.isTaken ? '✓' : '◆'} line ${e.line}: ${e.words}`}
        </Txt>
      ))}
    </View>
  );
}

const nameOf = (setup: Setup, id: string | undefined) =>
  setup.operations.find((o) => o.id === id)?.name ?? 'Head and end';

/** A program that was edited elsewhere and comes back: what was changed in it, and what the operations take of it. */
export function EditedCard({ text }: { text: string }) {
  const { job, setup, computed, edit } = useJob();
  const { plan, planFresh } = computed;
  const [found, setFound] = useState<Returned & { of: Job }>();
  useEffect(() => {
    if (!plan || !planFresh) return;
    let isWanted = true;
    void engine.edits(job, setup.id, plan.programs, plan.zero.z, text).then(
      (next) => isWanted && setFound(next ? { ...next, of: job } : undefined),
      () => undefined,
    );
    return () => void (isWanted = false);
  }, [job, setup.id, plan, planFresh, text]);
  if (!found) return null;
  const { edits } = found;
  const taken = edits.filter((e) => e.isTaken).length;
  const ids = [...new Set(edits.map((e) => e.operation))];
  const take = () => edit((j) => (j === found.of ? found.job : j));
  return (
    <Card testID="edited">
      <Txt heading>What was changed in it</Txt>
      {edits.length === 0 && <Txt>Nothing: it is what this job posts.</Txt>}
      {ids.map((id) => (
        <Changed key={id ?? ''} name={nameOf(setup, id)} edits={edits.filter((e) => e.operation === id)} />
      ))}
      {taken > 0 && (
        <Button mode="contained" onPress={take} testID="take-edits">
          {`Take over ${counted(taken, 'change', 'changes')} ✓`}
        </Button>
      )}
      {taken < edits.length && (
        <Txt kind="small" tone="quiet">
          ◆ No value of an operation says this: it stands in the program alone, and is gone when the job is posted
          again.
        </Txt>
      )}
    </Card>
  );
}
