import { Button, TextInput } from 'react-native-paper';
import { Setup, Up, addSetup, isTurnedOver, withoutSetup } from '@tidypath/core';
import { Card, Row } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { Txt } from '../../ui/Txt';
import { useJob } from '../../session/JobContext';
import { SetupBar } from '../../session/SetupBar';

/** Ways of lying: with either side up, turned round four ways. */
const LIES: Record<'top' | 'underside', { value: Up; label: string }[]> = {
  top: [
    { value: 'top', label: 'as drawn' },
    { value: 'top, turned left', label: 'a quarter left' },
    { value: 'top, turned right', label: 'a quarter right' },
    { value: 'top, turned half round', label: 'half round' },
  ],
  underside: [
    { value: 'underside, turned sideways', label: 'over sideways' },
    { value: 'underside, turned sideways and left', label: 'sideways, a quarter left' },
    { value: 'underside, turned sideways and right', label: 'sideways, a quarter right' },
    { value: 'underside, turned forwards', label: 'over forwards' },
  ],
};

/** How often the work is gripped, and how it lies each time. */
export function SetupCard({ set }: { set: (more: Partial<Setup>, tag?: string) => void }) {
  const { job, setup, edit, chooseSetup } = useJob();
  const { up = 'top' } = setup;
  const side = isTurnedOver(up) ? 'underside' : 'top';
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
            label="Up is the part’s"
            value={side}
            options={[
              { value: 'top', label: 'top' },
              { value: 'underside', label: 'underside' },
            ]}
            onChange={(next) => set({ up: LIES[next][0].value, fixtures: [] })}
          />
          <Choices
            label="It is turned"
            value={up}
            options={LIES[side]}
            onChange={(next) => set({ up: next, fixtures: [] })}
          />
          {setup.fixtures.length > 0 && (
            <Txt kind="small" tone="quiet">
              Turning it takes its fixtures off.
            </Txt>
          )}
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
