import { fireEvent, screen } from '@testing-library/react-native';
import { useState } from 'react';
import { Holding, Job, addHolding, groundOf, newFeature, partModel, zeroPlaces } from '@tidypath/core';
import { sampleJob, show } from '../../../testing/show';
import { makeJob } from '../../api/outbox';
import { JawsJob } from './JawsJob';
import { ThingCard } from './ThingCard';
import { ZeroPicture } from './ZeroPicture';

jest.mock('../../api/outbox', () => ({ makeJob: jest.fn(() => Promise.resolve('j9')) }));
jest.mock('expo-router', () => ({ useRouter: () => ({ push: jest.fn() }) }));

function Thing({ job, watch }: { job: Job; watch: (h: Holding) => void }) {
  const [holding, setHolding] = useState(job.setups[0].holding![0]);
  const { held, work } = groundOf(
    { ...job, setups: [{ ...job.setups[0], holding: [holding] }] },
    { ...job.setups[0], holding: [holding] },
    partModel,
  );
  return (
    <ThingCard
      holding={holding}
      unit="mm"
      features={work.features}
      under={held[0].placed.under}
      findings={held[0].placed.findings}
      onDelete={jest.fn()}
      onChange={(next) => {
        setHolding(next);
        watch(next);
      }}
    />
  );
}

const type = (label: string, text: string) => {
  const field = screen.getAllByLabelText(label).find((e) => typeof e.props.value === 'string')!;
  fireEvent(field, 'focus');
  fireEvent.changeText(field, text);
};

test('a vise shows what changes from job to job, its sizes when asked for; what is wrong is said at once', () => {
  const watch = jest.fn();
  const job = sampleJob();
  show(<Thing job={addHolding(job, job.setups[0], 'vise', { grip: 4 })} watch={watch} />);
  expect(screen.getByText('Under the work: parallels, 36 mm high.')).toBeTruthy();
  expect(screen.queryByLabelText('Opens to')).toBeNull();
  fireEvent.press(screen.getByText('Its sizes'));
  type('Opens to', '30');
  expect(watch.mock.lastCall![0].params.opens).toBe(30);
  expect(screen.getByText(/opens to 30 mm/)).toBeTruthy();
  fireEvent.press(screen.getByText('left'));
  expect(watch.mock.lastCall![0].params.fixedJaw).toBe('left');
});

test('the jaws of soft jaws are made as a job of their own', async () => {
  const job = sampleJob();
  const held = addHolding(job, job.setups[0], 'soft jaws', { grip: 4 });
  show(<JawsJob job={held} setup={held.setups[0]} />);
  fireEvent.press(screen.getByTestId('jaws-job'));
  expect(await screen.findByText(/“Sample, soft jaws” stands in the list/)).toBeTruthy();
  const made = (makeJob as jest.Mock).mock.lastCall![0] as Job;
  expect(made.part.features.map((f) => f.meaning)).toEqual(['outline', 'pocket']);
  expect(made.part.features[1].depth).toBe(4);
  expect(screen.getByText('To the jobs')).toBeTruthy();
});

test('screws name the holes they go through', () => {
  const watch = jest.fn();
  const job = sampleJob();
  const more = newFeature(
    job.part.features,
    'hole',
    'Lug hole',
    { type: 'round', diameter: 6 },
    { x: 20, through: true },
  );
  const two = { ...job, part: { ...job.part, features: [...job.part.features, more] } };
  show(<Thing job={addHolding(two, two.setups[0], 'screws')} watch={watch} />);
  fireEvent.press(screen.getByText('Lug hole'));
  expect(watch.mock.lastCall![0].params.holes).toBe(more.id);
});

test('a tap in the picture takes the corner of the fixed jaw as zero', () => {
  const job = sampleJob();
  const held = addHolding(job, job.setups[0], 'vise');
  const ground = groundOf(held, held.setups[0], partModel);
  const pick = jest.fn();
  const places = zeroPlaces(ground, [{ id: 'f3', name: 'M5 hole' }]);
  show(<ZeroPicture ground={ground} places={places} onPick={pick} />);
  fireEvent.press(screen.getByLabelText('Zero on Fixed jaw of Vise, front left'));
  expect(pick.mock.lastCall![0].zero).toEqual({ on: 'holding', of: 'h1', point: 'front left' });
  fireEvent.press(screen.getByLabelText('Zero on middle of M5 hole'));
  expect(pick.mock.lastCall![0].zero).toEqual({ on: 'feature', of: 'f3', point: 'centre' });
});
