import { fireEvent, screen, waitFor } from '@testing-library/react-native';
import { useState } from 'react';
import { Job, formatTime, insightOf, takeSuggested, finding, MATERIALS, PlannedView } from '@tidypath/core';
import { api } from '../../api/client';
import { sampleJob, show } from '../../../testing/show';
import { CommentsSheet } from './CommentsSheet';
import { OperationCard } from './OperationCard';
import { ProposalSheet } from './ProposalSheet';
import { ValueEditor } from './ValueEditor';
import type { Field } from './sentences/types';

jest.mock('../../api/client', () => ({
  ...jest.requireActual('../../api/client'),
  api: { keep: jest.fn(), shelf: jest.fn() },
}));
const fake = jest.mocked(api);
beforeEach(() => fake.keep.mockResolvedValue({ saved: true, version: 1 } as never));

const planned = (more: Partial<PlannedView> = {}): PlannedView => ({
  operationId: 'o2',
  key: 'k',
  path: {} as PlannedView['path'],
  findings: [],
  minutes: { cut: 0.7, entry: 0.2, rapid: 0.1, feed: 900, entryFeed: 450 },
  ...more,
});

function card(job: Job, more: Partial<Parameters<typeof OperationCard>[0]> = {}) {
  const props = { onOpen: jest.fn(), onEdit: jest.fn(), onAct: jest.fn() };
  show(
    <OperationCard
      job={job}
      operation={job.setups[0].operations[1]}
      index={1}
      open
      planned={planned()}
      proved={undefined}
      comments={0}
      editing={undefined}
      handle={null}
      {...props}
      {...more}
    />,
  );
  return props;
}

describe('an operation', () => {
  test('closed it shows its place, name and time; a tap opens it', () => {
    const { onOpen } = card(sampleJob(), { open: false });
    expect(screen.getByText(/^2 Clear float pocket/)).toBeTruthy();
    const { feed, entryFeed } = sampleJob().setups[0].operations[1].speeds;
    expect(screen.getByTestId('time-o2')).toHaveTextContent(
      formatTime((0.7 * 900) / feed + (0.2 * 450) / entryFeed + 0.1),
    );
    expect(screen.queryByTestId('gauge-chip')).toBeNull();
    fireEvent.press(screen.getByLabelText('2 Clear float pocket'));
    expect(onOpen).toHaveBeenCalled();
  });

  test('closed it shows what stops, what wants care, what waits, and a tool that changed in the rack', () => {
    const told = [finding('no-operations', {}), finding('wall-rough', { operation: 'a', ra: 1, asked: 0.4, feed: 9 })];
    card(sampleJob(), { open: false, planned: planned({ findings: told }), isToolStale: true });
    expect(screen.getByLabelText('1 stop')).toHaveTextContent('▲1');
    expect(screen.getByLabelText('1 care')).toHaveTextContent('◆1');
    expect(screen.getByText(/changed in the rack/)).toBeTruthy();
    screen.unmount();
    card(sampleJob(), { open: false, planned: undefined });
    expect(screen.getByLabelText('waits to be planned')).toBeTruthy();
  });

  test('comments at it are counted, and opened from its menu', async () => {
    const { onAct } = card(sampleJob(), { open: false, comments: 2 });
    expect(screen.getByLabelText('2 comments')).toHaveTextContent('“2”');
    await fireEvent.press(screen.getByLabelText('More for Clear float pocket'));
    await fireEvent.press(screen.getByText('Comments'));
    expect(onAct).toHaveBeenCalledWith('comment');
  });

  test('closed it says how far its speeds are from the suggested, and into what that runs', () => {
    card(sampleJob(), { open: false });
    expect(screen.queryByTestId('departs-o2')).toBeNull();
    screen.unmount();
    const steel = { ...sampleJob(), material: MATERIALS.find((m) => m.id === 'steel-alloy')! };
    card(steel, { open: false });
    expect(screen.getByTestId('departs-o2')).toHaveTextContent(
      /^◆ feed .* % over.* the suggested: more than the spindle/,
    );
  });

  test('open it is a sentence; every value can be tapped', () => {
    const { onEdit } = card(sampleJob());
    fireEvent.press(screen.getByTestId('value-speed.feed'));
    expect(onEdit).toHaveBeenCalledWith({ at: 'speed', key: 'feed' });
    fireEvent.press(screen.getByTestId('value-param.stepover'));
    expect(onEdit).toHaveBeenLastCalledWith({ at: 'param', key: 'stepover' });
    fireEvent.press(screen.getByTestId('value-depth.f2'));
    expect(onEdit).toHaveBeenLastCalledWith({ at: 'depth', featureId: 'f2' });
  });

  test('values that are not in the sentence stand under “more”, only those that matter', () => {
    card(sampleJob());
    expect(screen.queryByTestId('more-param.floorAllowance')).toBeNull();
    fireEvent.press(screen.getByText('More'));
    expect(screen.getByTestId('more-param.floorAllowance')).toBeTruthy();
    expect(screen.getByTestId('more-speed.entryFeed')).toBeTruthy();
    expect(screen.queryByTestId('more-param.stepover')).toBeNull();
  });

  test('its finish is split off from its menu, where it has one', async () => {
    const { onAct } = card(sampleJob());
    fireEvent.press(screen.getByLabelText(/^More for/));
    fireEvent.press(await screen.findByText('Split the finish off'));
    expect(onAct).toHaveBeenCalledWith('split');
  });

  test('its time comes from the proof where there is one', () => {
    card(sampleJob(), { proved: 4.2 });
    expect(screen.getByTestId('time-o2')).toHaveTextContent('4:12');
  });

  test('a finding leads to the value that causes it', () => {
    const { onEdit } = card(sampleJob(), {
      planned: planned({
        findings: [finding('stepover-too-wide', { stepover: 12, diameter: 10 }, { field: 'params.stepover' })],
      }),
    });
    expect(screen.getByText('▲1 ')).toBeTruthy();
    fireEvent.press(screen.getByText('Change it'));
    expect(onEdit).toHaveBeenCalledWith({ at: 'param', key: 'stepover' });
  });

  test('the four gauges and the limit that governs are in sight', () => {
    card(sampleJob());
    for (const id of ['chip', 'engagement', 'load', 'deflection'])
      expect(screen.getByTestId(`gauge-${id}`)).toBeTruthy();
    expect(screen.getByText(/limited by/i)).toBeTruthy();
  });
});

describe('the field of a value', () => {
  interface EditorProps {
    field: Field;
    watch: (job: Job) => void;
    start?: Job;
    onField?: jest.Mock;
  }
  function Editor({ field, watch, start = sampleJob(), onField = jest.fn() }: EditorProps) {
    const [job, setJob] = useState(start);
    const operation = job.setups[0].operations[1];
    const edit = (next: (j: Job) => Job) => {
      const changed = next(job);
      setJob(changed);
      watch(changed);
    };
    return (
      <ValueEditor
        job={job}
        operation={operation}
        field={field}
        insight={insightOf(job, operation)}
        onField={onField}
        edit={edit}
      />
    );
  }
  const operationOf = (watch: jest.Mock) => (watch.mock.lastCall![0] as Job).setups[0].operations[1];
  const type = (text: string) => {
    fireEvent(screen.getByTestId('value-field'), 'focus');
    fireEvent.changeText(screen.getByTestId('value-field'), text);
  };

  test('a length takes a share of the tool', () => {
    const watch = jest.fn();
    show(<Editor field={{ at: 'param', key: 'stepover' }} watch={watch} />);
    type('40%');
    expect(operationOf(watch).params.stepover).toBeCloseTo(4, 9);
  });

  test('a speed says how far it is from the suggestion, and takes it back with a tap', () => {
    const watch = jest.fn();
    show(<Editor field={{ at: 'speed', key: 'feed' }} watch={watch} />);
    expect(screen.getByText('As suggested.')).toBeTruthy();
    expect(screen.getByText('settled')).toBeTruthy();
    const suggested = sampleJob().setups[0].operations[1].speeds.feed;
    type(String(suggested * 2));
    expect(screen.getByTestId('departure')).toHaveTextContent(
      /^Feed 100 % over the suggested, time in cut × 0.5; chip .* mm/,
    );
    fireEvent.press(screen.getByText(/^Take /));
    expect(operationOf(watch).speeds.feed).toBe(suggested);
  });

  test('why? opens the working: formulas with the numbers put in, and their source', () => {
    show(<Editor field={{ at: 'speed', key: 'rpm' }} watch={jest.fn()} />);
    expect(screen.queryByText(/n = 1000·vc/)).toBeNull();
    fireEvent.press(screen.getByText('Why?'));
    expect(screen.getByText(/n = 1000·vc \/ \(π·D\)/)).toBeTruthy();
    expect(screen.getAllByText('Textbook relation').length).toBeGreaterThan(0);
    expect(screen.getByLabelText('Limits, tightest first')).toBeTruthy();
    expect(screen.getByText('Whimbrel light bench mill')).toBeTruthy();
  });

  test('an input of the working leads to where it can be changed', () => {
    const onField = jest.fn();
    show(<Editor field={{ at: 'speed', key: 'feed' }} watch={jest.fn()} onField={onField} />);
    fireEvent.press(screen.getByText('Why?'));
    fireEvent.press(screen.getAllByLabelText(/^Change z 3 flutes/)[0]);
    expect(onField).toHaveBeenCalledWith({ at: 'tool' });
    fireEvent.press(screen.getAllByLabelText(/^Change layer /)[0]);
    expect(onField).toHaveBeenLastCalledWith({ at: 'param', key: 'layer' });
  });

  test('what would lift the limit is worked out, and taken with a tap', () => {
    const watch = jest.fn();
    show(<Editor field={{ at: 'speed', key: 'feed' }} watch={watch} />);
    fireEvent.press(screen.getByText('What would lift it?'));
    fireEvent.press(screen.getAllByText('Take')[0]);
    const job = watch.mock.lastCall![0] as Job;
    expect(takeSuggested(job, 'o2').setups[0].operations[1].speeds).toEqual(job.setups[0].operations[1].speeds);
    expect(job.setups[0].operations[1]).not.toEqual(sampleJob().setups[0].operations[1]);
  });

  test('a feed in an inch job is typed in inches a minute and kept in mm', () => {
    const watch = jest.fn();
    show(<Editor field={{ at: 'speed', key: 'feed' }} watch={watch} start={sampleJob('inch')} />);
    type('20');
    expect(operationOf(watch).speeds.feed).toBeCloseTo(508, 6);
  });

  test('another tool brings its own bite and speeds', async () => {
    const watch = jest.fn();
    show(<Editor field={{ at: 'tool' }} watch={watch} />);
    expect((await screen.findAllByText(/does it: /)).length).toBeGreaterThan(0);
    fireEvent.press(screen.getByText(/T9 · 4 mm end mill/));
    expect(operationOf(watch).toolId).toBe('t9');
  });

  test('a size that no tool has is made on the spot, and kept', async () => {
    const watch = jest.fn();
    show(<Editor field={{ at: 'tool' }} watch={watch} />);
    fireEvent.changeText(screen.getByTestId('size-finder'), '4');
    fireEvent.press(screen.getByText(/^Take T9 4 mm end mill/));
    expect(operationOf(watch).toolId).toBe('t9');
    fireEvent.changeText(screen.getByTestId('size-finder'), '7');
    fireEvent.press(screen.getByLabelText('Make 7 mm end mill'));
    await waitFor(() => expect((watch.mock.lastCall![0] as Job).tools.at(-1)!.name).toBe('7 mm end mill'));
    expect(fake.keep).toHaveBeenCalledWith('tools', 0, expect.objectContaining({ diameter: 7 }));
    fireEvent.changeText(screen.getByTestId('size-finder'), 'wide');
    expect(screen.queryByLabelText(/^Make /)).toBeNull();
  });

  test('the depth belongs to the part', () => {
    const watch = jest.fn();
    show(<Editor field={{ at: 'depth', featureId: 'f2' }} watch={watch} />);
    type('1/4');
    expect((watch.mock.lastCall![0] as Job).part.features[1].depth).toBeCloseTo(6.35, 9);
  });

  test.each([
    ['entry', 'ramp'],
    ['direction', 'conventional'],
  ])('%s is one of a few', (key, choice) => {
    const watch = jest.fn();
    show(<Editor field={{ at: 'param', key }} watch={watch} />);
    fireEvent.press(screen.getByText(choice));
    expect(operationOf(watch).params[key]).toBe(choice);
  });

  test('only features of the right meaning can be chosen', () => {
    const watch = jest.fn();
    show(<Editor field={{ at: 'targets' }} watch={watch} />);
    expect(screen.queryByText('M5 hole')).toBeNull();
    fireEvent.press(screen.getByLabelText('Float pocket'));
    expect(operationOf(watch).targets).toEqual([]);
  });

  test('only coolants the machine has are offered', () => {
    show(<Editor field={{ at: 'coolant' }} watch={jest.fn()} />);
    expect(screen.getByText('mist')).toBeTruthy();
    expect(screen.queryByText('air')).toBeNull();
  });

  test('a stop before it is chosen, told what for, and taken away', () => {
    const watch = jest.fn();
    show(<Editor field={{ at: 'before' }} watch={watch} />);
    expect(screen.queryByTestId('value-field')).toBeNull();
    fireEvent.press(screen.getByText('optional'));
    fireEvent.changeText(screen.getByTestId('value-field'), 'Turn the clamp');
    expect(operationOf(watch).before).toEqual({ stop: 'optional', note: 'Turn the clamp' });
    expect(screen.getByText(/^M1, where the optional stop is switched on/)).toBeTruthy();
    fireEvent.press(screen.getByText('always'));
    expect(operationOf(watch).before).toEqual({ stop: 'planned', note: 'Turn the clamp' });
    fireEvent.press(screen.getByText('no stop'));
    expect(operationOf(watch).before).toBeUndefined();
  });

  test('start points are added, typed and taken away; places of a repeat are left alone', () => {
    const watch = jest.fn();
    show(<Editor field={{ at: 'begins' }} watch={watch} />);
    fireEvent.press(screen.getByTestId('begin-add'));
    expect(operationOf(watch).begins).toHaveLength(1);
    const field = screen.getByTestId('begin-x');
    fireEvent(field, 'focus');
    fireEvent.changeText(field, '33');
    expect(operationOf(watch).begins![0].x).toBe(33);
    fireEvent.press(screen.getByTestId('begin-remove'));
    expect(operationOf(watch).begins).toBeUndefined();
    screen.unmount();
    show(<Editor field={{ at: 'repeat' }} watch={watch} />);
    fireEvent.press(screen.getByText('in a line'));
    fireEvent.press(screen.getByText('place 2'));
    expect(operationOf(watch).repeat).toMatchObject({ without: [2] });
  });
});

test('comments at an operation are read in their order, and answered', async () => {
  const said: string[] = [];
  const comment = (id: string, who: string, text: string) => ({ id, who, text, operation: 'o2', at: '' });
  await show(
    <CommentsSheet
      operation={sampleJob().setups[0].operations[1]}
      comments={[comment('a', 'Lio', 'Why 0.3 here?'), comment('b', 'Ines', 'The finish pass takes it.')]}
      onSay={(text) => Promise.resolve(void said.push(text))}
      onClose={() => undefined}
    />,
  );
  expect(screen.getByText('Lio')).toBeTruthy();
  expect(screen.getByText('The finish pass takes it.')).toBeTruthy();
  await fireEvent.changeText(screen.getByLabelText('Comment'), ' Thank you. ');
  await fireEvent.press(screen.getByTestId('say'));
  expect(said).toEqual(['Thank you.']);
});

test('a proposed route is held against today’s, where there is one', async () => {
  const job = sampleJob();
  const [setup] = job.setups;
  const on = { onTake: jest.fn(), onCompare: jest.fn(), onClose: jest.fn() };
  const sheet = (replaces: number) => (
    <ProposalSheet proposal={{ job, missing: [] }} setupId={setup.id} replaces={replaces} {...on} />
  );
  await show(sheet(2));
  await fireEvent.press(screen.getByTestId('compare-routes'));
  expect(on.onCompare).toHaveBeenCalledTimes(1);
  await screen.unmount();
  await show(sheet(0));
  expect(screen.queryByTestId('compare-routes')).toBeNull();
});
