import { Button, TextInput } from 'react-native-paper';
import {
  FACES,
  FACE_UPS,
  Face,
  Setup,
  Up,
  addSetup,
  facesOf,
  faceOf,
  gripsText,
  neverSeen,
  upText,
  withoutSetup,
} from '@tidypath/core';
import { Card, Row } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { LeanField } from '../../ui/LeanField';
import { Txt } from '../../ui/Txt';
import { useJob } from '../../session/JobContext';
import { SetupBar } from '../../session/SetupBar';

/** Turned round with a side up, the top of the part to the back at first. */
const roundWith = (face: 'front' | 'back' | 'left' | 'right'): { value: Up; label: string }[] => [
  { value: face, label: 'its top to the back' },
  { value: `${face}, turned left`, label: 'a quarter left' },
  { value: `${face}, turned right`, label: 'a quarter right' },
  { value: `${face}, turned half round`, label: 'half round' },
];

/** Ways of lying: with any side up, turned round four ways. */
const LIES: Record<Face, { value: Up; label: string }[]> = {
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
  front: roundWith('front'),
  back: roundWith('back'),
  left: roundWith('left'),
  right: roundWith('right'),
};

/** How often the work is gripped, and how it lies each time. */
export function SetupCard({ set }: { set: (more: Partial<Setup>, tag?: string) => void }) {
  const { job, setup, edit, chooseSetup } = useJob();
  const { up = 'top' } = setup;
  const face = faceOf(up);
  const several = job.setups.length > 1;
  const lies = several || face !== 'top' || facesOf(job.part).length > 0;
  const waiting = neverSeen(job);
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
        <TextInput
          mode="outlined"
          dense
          label="Name"
          aria-label="Setup name"
          value={setup.name}
          onChangeText={(name) => name.trim() && set({ name: name.slice(0, 80) }, 'setup-name')}
        />
      )}
      {lies && (
        <>
          <Choices
            label="Up is the part’s"
            value={face}
            options={plainOptions(FACES)}
            onChange={(next) => set({ up: FACE_UPS[next], fixtures: [] })}
          />
          <Choices
            label="It is turned"
            value={up}
            options={LIES[face]}
            onChange={(next) => set({ up: next, fixtures: [] })}
          />
          {setup.fixtures.length > 0 && (
            <Txt kind="small" tone="quiet">
              Turning it takes the boxes in the way off; what holds it takes hold anew.
            </Txt>
          )}
        </>
      )}
      {(setup.lean || job.part.features.some((f) => f.lean)) && (
        <LeanField
          label="On a sine plate it rises"
          none="not at all"
          value={setup.lean}
          onChange={(lean, tag) => set({ lean, fixtures: [] }, tag)}
        />
      )}
      {waiting.map((unseen) => (
        <Txt key={upText(unseen)} kind="small">
          ● No setup has the {upText(unseen)}: {unseen.features.map((f) => f.name).join(', ')}
        </Txt>
      ))}
      <Row>
        <Button mode="outlined" onPress={add} testID="add-setup">
          {waiting.length ? `Add a setup with the ${upText(waiting[0])}` : 'Add a setup'}
        </Button>
        {several && (
          <Button mode="outlined" onPress={() => edit((j) => withoutSetup(j, setup.id))}>
            Take this one out
          </Button>
        )}
      </Row>
      <Txt kind="small" tone="quiet" testID="grips-needed">
        {gripsText(job.part, job.setups.length)}{' '}
        {!several &&
          waiting.length === 0 &&
          'A further setup turns the part over and starts from what this one leaves.'}
      </Txt>
    </Card>
  );
}
