import { fireEvent, screen } from '@testing-library/react-native';
import { ReactElement, useState } from 'react';
import { Job, Setup, barWays, groundOf, partModel, withSetup, BARS } from '@tidypath/core';
import { sampleJob, show } from '../../../testing/show';
import { BarCard } from './BarCard';
import { BatchCard } from './BatchCard';
import { StationsCard } from './StationsCard';

const mockAsked: { job: Job; edit: (next: (job: Job) => Job) => void } = { job: sampleJob(), edit: () => undefined };
jest.mock('../../session/JobContext', () => ({
  useJob: () => ({
    ...mockAsked,
    setup: mockAsked.job.setups[0],
    computed: { proof: { clock: { total: 5, hand: 0 }, wear: [], energy: 0.2 }, proofFresh: true },
  }),
}));

const remember = (asked: typeof mockAsked) => void Object.assign(mockAsked, asked);

type Set = (more: Partial<Setup>) => void;

/** A card on a job it can change. */
function Changing({ job, children }: { job: Job; children: (set: Set, setup: Setup) => ReactElement }) {
  const [now, setNow] = useState(job);
  remember({ job: now, edit: (next) => setNow(next) });
  const [setup] = now.setups;
  return children((more) => setNow((j) => withSetup(j, { ...j.setups[0], ...more })), setup);
}

const type = (label: string, text: string) => {
  const field = screen.getAllByLabelText(label).find((e) => typeof e.props.value === 'string')!;
  fireEvent(field, 'focus');
  fireEvent.changeText(field, text);
};

test('a batch says how long it takes: set up once, reloaded for each run', () => {
  show(<Changing job={sampleJob()}>{(set) => <BatchCard set={set} />}</Changing>);
  type('Parts wanted', '20');
  type('To reload', '2');
  type('To set up', '30');
  expect(screen.getByTestId('batch-said')).toHaveTextContent(
    '20 runs of 5:00 and 2 min to reload, 30 min to set up: 2:50:00 in all.',
  );
});

test('what one costs is told in batches of several sizes; prices that are typed are counted', () => {
  show(<Changing job={sampleJob()}>{(set) => <BatchCard set={set} />}</Changing>);
  const said = () => screen.getByTestId('batch-cost');
  expect(said()).toHaveTextContent(/A single one costs at least .*the price of energy/);
  type('To set up', '60');
  expect(said()).toHaveTextContent(/One of 10 at least .* and of 100 at least /);
  type('Energy, a kWh', '0.5');
  expect(said()).toHaveTextContent(/energy 0\.10/);
  expect(said()).not.toHaveTextContent(/the price of energy/);
});

test('several vises begin with room between them, say their zeros, and go again', () => {
  show(<Changing job={sampleJob()}>{(set) => <StationsCard set={set} />}</Changing>);
  fireEvent.press(screen.getByTestId('add-stations'));
  expect(screen.getByText('In 2 vises at once')).toBeTruthy();
  type('Vises', '3');
  expect(screen.getByText(/G54, G55, G56/)).toBeTruthy();
  fireEvent.press(screen.getByText('In one vise alone'));
  expect(mockAsked.job.setups[0].stations).toBeUndefined();
});

test('a blank from a bar says how many bars the batch takes, and when it is not the bar’s any more', () => {
  const job = { ...sampleJob(), batch: 100 };
  const { model } = groundOf(job, job.setups[0], partModel);
  const [way] = barWays(job.setups[0].stock, model, BARS, job.material);
  const sawn = withSetup(job, { ...job.setups[0], stock: way.stock });
  show(<Changing job={sawn}>{(set, setup) => <BarCard setup={setup} set={set} />}</Changing>);
  expect(screen.getByTestId('blanks')).toHaveTextContent(
    `100 blanks of ${way.lengths[0]} mm from ${Math.ceil(100 / way.perBar)} pieces of “${way.bar.name}”;`,
    { exact: false },
  );
  fireEvent.press(screen.getByText('Not from a bar'));
  expect(mockAsked.job.setups[0].stock.bar).toBeUndefined();
  expect(screen.queryByTestId('blanks')).toBeNull();
  const thick = { ...sawn, part: { ...sawn.part, thickness: 11 } };
  show(<Changing job={thick}>{(set, setup) => <BarCard setup={setup} set={set} />}</Changing>);
  expect(screen.getByTestId('finding-bar-differs')).toBeTruthy();
});
