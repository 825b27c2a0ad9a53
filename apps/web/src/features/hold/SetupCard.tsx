import { Button, TextInput } from 'react-native-paper';
import { Setup, UPS, Up, addSetup, withoutSetup } from '@tidypath/core';
import { Card, Row } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { Txt } from '../../ui/Txt';
import { useJob } from '../job/JobContext';
import { SetupBar } from '../job/SetupBar';

const LIES: Record<Up, string> = {
  top: 'top up',
  'underside, turned sideways': 'turned over sideways',
  'underside, turned forwards': 'turned over forwards',
  'top, turned half round': 'top up, turned half round',
};

/** How often the work is gripped, and how it lies each time. */
export function SetupCard({ set }: { set: (more: Partial<Setup>, tag?: string) => void }) {
  const { job, setup, edit, chooseSetup } = useJob();
  const several = job.setups.length > 1;
  const add = () => {
    const next = addSetup(job);
    edit(() => next);
    chooseSetup(next.setups[next.setups.length - 1].id);
  };
  return (
    <Card testID="setups">
      <Txt heading kind="large">
        Setups
      </Txt>
      <SetupBar />
      {several && (
        <>
          <TextInput
            mode="outlined"
            dense
            label="Name"
            aria-label="Setup name"
            value={setup.name}
            onChangeText={(name) => name.trim() && set({ name: name.slice(0, 80) }, 'setup-name')}
          />
          <Choices
            label="The part lies"
            value={setup.up ?? 'top'}
            options={UPS.map((value) => ({ value, label: LIES[value] }))}
            onChange={(up) => set({ up, fixtures: [] })}
          />
        </>
      )}
      <Row>
        <Button mode="outlined" onPress={add} testID="add-setup">
          Add a setup
        </Button>
        {several && (
          <Button mode="outlined" onPress={() => edit((j) => withoutSetup(j, setup.id))}>
            Take this one out
          </Button>
        )}
      </Row>
      {!several && (
        <Txt kind="small" tone="quiet">
          One grip is best where it reaches everything. A further setup turns the part over and starts from what this
          one leaves.
        </Txt>
      )}
    </Card>
  );
}
