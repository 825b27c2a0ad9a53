import { fireEvent, screen, waitFor } from '@testing-library/react-native';
import { Controller, Machine, Material } from '@tidypath/core';
import { show } from '../../../testing/show';
import { api } from '../../api/client';
import { ControllerPage } from './ControllerPage';
import { HolderPage } from './HolderPage';
import { MachinePage } from './MachinePage';
import { MaterialPage } from './MaterialPage';

jest.mock('../../api/client', () => ({
  ...jest.requireActual('../../api/client'),
  api: { keep: jest.fn(), shelf: jest.fn(), jobsUsing: jest.fn() },
}));
const fake = jest.mocked(api);
beforeEach(() => {
  jest.clearAllMocks();
  fake.jobsUsing.mockResolvedValue([]);
  fake.keep.mockResolvedValue({ saved: true, version: 2 });
});

const type = (label: string, text: string) => {
  fireEvent(screen.getByLabelText(label), 'focus');
  fireEvent.changeText(screen.getByLabelText(label), text);
  fireEvent(screen.getByLabelText(label), 'blur');
};
const kept = async <T,>() => {
  await waitFor(() => expect(fake.keep).toHaveBeenCalled());
  return fake.keep.mock.lastCall![2] as T;
};

test('a number of a material that was changed is the shop’s own, and can go back to its start', async () => {
  show(<MaterialPage id="alu-6082" />);
  expect(screen.getAllByText(/; handbook$/)).toHaveLength(7);
  type('Milling, carbide to', '420');
  expect((await kept<Material>()).millingSpeed.carbide).toEqual({ from: 150, to: 420 });
  fireEvent.press(screen.getAllByText('Back to 150 to 500')[0]);
  expect(screen.getByLabelText('Milling, carbide to').props.value).toBe('500');
});

test('a careful end above the bold end is told at its field', () => {
  show(<MaterialPage id="brass" />);
  type('Chip load from', '3');
  expect(screen.getByTestId('finding-range-crossed')).toBeTruthy();
  type('Chip load from', '0.6');
});

test('a machine: its curve has a picture in words, points in rising order, coolants, a carousel without double pockets', async () => {
  show(<MachinePage id="fulmar" />);
  type('Speed 2', '500');
  expect(screen.getByTestId('finding-curve-not-rising')).toBeTruthy();
  type('Speed 2', '12000');
  fireEvent.press(screen.getByLabelText('mist'));
  fireEvent.press(screen.getByLabelText('Choose … Put one in'));
  fireEvent.press(screen.getByText('T4 10 mm end mill, 3 flutes'));
  fireEvent.press(screen.getByLabelText('Choose … Put one in'));
  fireEvent.press(screen.getByText('T5 10 mm end mill, 4 flutes'));
  fireEvent(screen.getAllByLabelText('Pocket')[1], 'focus');
  fireEvent.changeText(screen.getAllByLabelText('Pocket')[1], '1');
  expect(screen.getByTestId('finding-pocket-taken-twice')).toHaveTextContent(/Two tools stand in pocket 1/);
  fireEvent.changeText(screen.getAllByLabelText('Pocket')[1], '7');
  const machine = await kept<Machine>();
  expect(machine.carousel).toEqual([
    { pocket: 1, toolId: 't4' },
    { pocket: 7, toolId: 't5' },
  ]);
  expect(machine.coolants).toContain('mist');
});

test('a holder is stacked from its nose upwards', () => {
  show(<HolderPage id="collet" />);
  fireEvent.press(screen.getByText('Add a segment'));
  expect(screen.getByLabelText('2 lower ⌀').props.value).toBe('28');
  type('2 lower ⌀', '5');
  expect(screen.getByTestId('finding-holder-undercut')).toBeTruthy();
  fireEvent.press(screen.getByLabelText('Take off segment 2'));
  expect(screen.queryByLabelText('2 lower ⌀')).toBeNull();
});

test('a controller: words that are none are told at their field, a cycle without a word is left out', async () => {
  show(<ControllerPage id="iso-mill" />);
  fireEvent.changeText(screen.getByLabelText('flood'), 'wet');
  expect(screen.getByTestId('finding-bad-field')).toBeTruthy();
  fireEvent.changeText(screen.getByLabelText('flood'), 'M108');
  fireEvent.changeText(screen.getByLabelText('peck'), '');
  fireEvent.changeText(screen.getByLabelText('Safe start'), 'G17 G40\nG90 G94');
  type('Line number step', '5');
  const controller = await kept<Controller>();
  expect(controller).toMatchObject({
    coolant: { flood: 'M108' },
    safeStart: ['G17 G40', 'G90 G94'],
    lineNumbers: { step: 5 },
  });
  expect(controller.cycles.peck).toBeUndefined();
});
