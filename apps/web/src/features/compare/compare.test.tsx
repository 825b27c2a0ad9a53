import { fireEvent, screen } from '@testing-library/react-native';
import { Job, Measured, Outcome } from '@tidypath/core';
import { sampleJob, show } from '../../../testing/show';
import { BatchCosts } from './BatchCosts';
import { Ribbons } from './Ribbons';
import { WayCard } from './WayCard';
import { WayTable } from './WayTable';
import { DECIDING, FIGURES, bestIn } from './figures';

const figures = (total: number, spikes: number): Measured => ({
  minutes: { cut: total - 0.5, back: 0.3, rapid: 0.2, change: 0, dwell: 0, total },
  ...{ length: 1000, entries: 3, retracts: 2, load: { peak: 0.8, mean: 0.4 }, spikes: { count: spikes, seconds: 1 } },
  ...{ power: 1.2, force: 300, bend: 0.02, chip: 0.05, angle: 40, fluteUse: 0.3, wallMark: 0.001, removed: 10 },
  ...{ heat: 20, wear: [{ tool: 4, share: 0.02, minutes: 1 }], kWh: 0.1, ribbon: [0.2, 0.8, 0.4] },
});
const outcome = (id: string, minutes: number, spikes: number): Outcome => ({
  ...{ id, figures: figures(minutes, spikes), whole: minutes + 2, findings: [], watched: [], coarse: false },
  priced: { id, minutes, edgePrice: 0.5, edgeMinutes: 0.1, energy: 0, cutting: 0, spikes, oneOff: 0 },
});
const job: Job = { ...sampleJob(), machine: { ...sampleJob().machine, hourlyRate: 60 } };
const [quick, kind] = [outcome('c1', 2, 40), outcome('c2', 3, 1)];
const barred: Outcome = {
  id: 'c3',
  watched: [],
  coarse: false,
  findings: [
    { code: 'x', level: 'care', message: 'It rings', remedy: '', place: {} },
    { code: 'y', level: 'stop', message: 'It does not fit', remedy: '', place: {} },
  ] as unknown as Outcome['findings'],
};

describe('figures of ways', () => {
  const named = (label: string) => FIGURES.find((f) => f.label === label)!;

  test('the best is marked where less is better, and nobody where all are', () => {
    expect([...bestIn(named('Time'), [quick, kind, barred], job)]).toEqual(['c1']);
    expect([...bestIn(named('Spikes of load'), [quick, kind, barred], job)]).toEqual(['c2']);
    expect(bestIn(named('Entries'), [quick, kind], job).size).toBe(0);
    expect(bestIn(named('Flutes in use'), [quick, kind], job).size).toBe(0);
  });

  test('cost is the machine’s time, edges and their change', () => {
    const [, cost] = DECIDING;
    expect(cost.text(cost.value(quick, job)!, 'mm')).toBe('2.60');
    expect(cost.value(barred, job)).toBeUndefined();
    expect(named('Way').text(6388.4, 'mm')).toBe('6.39 m');
    expect(named('Way').text(6388.4, 'inch')).toBe('21 ft');
  });
});

const nothing = () => undefined;

describe('on a phone', () => {
  test('a way says its two figures, and all when it is asked', async () => {
    const onTake = jest.fn();
    await show(
      <WayCard job={job} name="Plain passes" outcome={kind} isPresent={false} onTake={onTake} onRemove={nothing} />,
    );
    expect(screen.getByText('3:00')).toBeTruthy();
    expect(screen.getByText('3.60')).toBeTruthy();
    expect(screen.queryByText(/Side force/)).toBeNull();
    await fireEvent.press(screen.getByText('All figures'));
    expect(screen.getByText(/Side force at most 300 N/)).toBeTruthy();
    await fireEvent.press(screen.getByText('Take it over'));
    expect(onTake).toHaveBeenCalled();
  });

  test('one that cannot be cut says why first, and cannot be taken', async () => {
    const onTake = jest.fn();
    await show(<WayCard job={job} name="Wide" outcome={barred} isPresent={false} onTake={onTake} onRemove={nothing} />);
    expect(screen.getByText(/It cannot be cut/)).toBeTruthy();
    expect(screen.getByText('▲ It does not fit')).toBeTruthy();
    await fireEvent.press(screen.getByText('Take it over'));
    expect(onTake).not.toHaveBeenCalled();
  });
});

test('wide, ways stand side by side; how it is cannot be taken', async () => {
  const candidates = [
    { id: 'c1', name: 'As it is' },
    { id: 'c2', name: 'Plain', operations: job.setups[0].operations.slice(1, 2) },
  ];
  await show(
    <WayTable
      {...{ job, candidates, outcomes: [quick, kind], leftOut: new Map([['c2', 'watched only: it rings']]) }}
      onTake={nothing}
      onRemove={nothing}
    />,
  );
  expect(screen.getByText('◆ Not counted: watched only: it rings')).toBeTruthy();
  expect(screen.getByText('2:00 ✓')).toBeTruthy();
  expect(screen.getAllByText('Take it over')).toHaveLength(1);
});

test('what is spent once is shared by the batch; without any there is nothing to tell', async () => {
  const priced = [quick.priced!, { ...kind.priced!, oneOff: 100 }];
  await show(<BatchCosts job={{ ...job, batch: 20 }} priced={priced} name={(id) => id} />);
  expect(screen.getByText(/^10: .* ✓$/)).toBeTruthy();
  expect(screen.getByText(/^20: 8/)).toBeTruthy();
  // Drawn against the way whose cost the batch changes.
  expect(screen.getByLabelText('c1 costs 2.60 a part in a batch of 20')).toBeTruthy();
  screen.unmount();
  await show(<BatchCosts job={job} priced={[quick.priced!]} name={(id) => id} />);
  expect(screen.queryByTestId('batch-costs')).toBeNull();
});

test('their loads are drawn on one scale, and told', async () => {
  await show(<Ribbons outcomes={[quick, kind, barred]} name={(id) => id} />);
  expect(screen.getByLabelText('Load of c1: at most 80 %')).toBeTruthy();
  expect(screen.queryByText(/^c3/)).toBeNull();
  expect(screen.getByText(/up to 100 % of the spindle/)).toBeTruthy();
});
