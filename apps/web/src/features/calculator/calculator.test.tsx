import { fireEvent, screen, waitFor } from '@testing-library/react-native';
import { MACHINES, MATERIALS, Recipe, TOOLS, formatFeed, formatNumber, suggest, suggestBite } from '@tidypath/core';
import { show } from '../../../testing/show';
import { api } from '../../api/client';
import { CalculatorPage } from './CalculatorPage';
import { START, answer } from './useCalculator';
import { ThreadsPage } from './ThreadsPage';

jest.mock('../../api/client', () => ({
  ...jest.requireActual('../../api/client'),
  api: { keep: jest.fn(), shelf: jest.fn() },
}));
const fake = jest.mocked(api);
const store = new Map<string, string>();
beforeEach(() => {
  jest.clearAllMocks();
  store.clear();
  fake.keep.mockResolvedValue({ saved: true, version: 1 });
  globalThis.localStorage = {
    getItem: (k: string) => store.get(k) ?? null,
    setItem: (k: string, v: string) => void store.set(k, v),
  } as unknown as Storage;
});

const [alu, t4, bench] = [MATERIALS[0], TOOLS[3], MACHINES[0]];
const said = (more: object = {}) => {
  const { rpm, feed } = suggest({ tool: t4, material: alu, machine: bench, ...suggestBite(t4, alu, bench), ...more });
  return `${formatNumber(rpm, 0)} rpm · ${formatFeed(feed, 'mm')}`;
};
const type = (label: string, text: string) => {
  fireEvent(screen.getByLabelText(label), 'focus');
  fireEvent.changeText(screen.getByLabelText(label), text);
};

test('a coolant that is told counts; one the machine has not got does not', () => {
  show(<CalculatorPage />);
  fireEvent.press(screen.getByText('off'));
  expect(said({ coolant: 'off' })).not.toBe(said());
  expect(screen.getByTestId('headline')).toHaveTextContent(said({ coolant: 'off' }));
  fireEvent.press(screen.getByText('as the material wants'));
  expect(screen.getByTestId('headline')).toHaveTextContent(said());
  expect(
    answer({ ...START, coolant: 'through' }, t4, alu, { ...bench, coolants: ['air'] }).situation.coolant,
  ).toBeUndefined();
});

test('says what the engine says, in both unit systems, with gauges, pictures and curves in words', () => {
  show(<CalculatorPage />);
  expect(screen.getByTestId('headline')).toHaveTextContent(said());
  expect(screen.getAllByText(/in\/min/).length).toBeGreaterThan(1);
  for (const id of ['chip', 'engagement', 'load', 'deflection', 'grip'])
    expect(screen.getByTestId(`gauge-${id}`)).toBeTruthy();
  expect(screen.getByLabelText(/^End view: 70 degrees engaged/)).toBeTruthy();
  expect(screen.getByLabelText(/^Power over speed of Whimbrel.*the cut takes/)).toBeTruthy();
  expect(screen.getByLabelText(/below 0.005 mm it rubs/)).toBeTruthy();
});

test('a bite typed in, a feed one is limited to, a speed one was told', () => {
  show(<CalculatorPage />);
  type('Bite', '1');
  expect(screen.getByTestId('headline')).toHaveTextContent(said({ ae: 1 }));
  type('Feed at most', '500');
  expect(screen.getByTestId('headline')).toHaveTextContent(said({ ae: 1, asked: { feed: 500 } }));
  expect(screen.getByText(/Against the suggestion without it: feed .* below the suggested/)).toBeTruthy();
  type('Feed at most', '0');
  type('Speed I was told', '120 m/min');
  expect(screen.getByTestId('headline')).toHaveTextContent(said({ ae: 1, asked: { rpm: 3820 } }));
});

test('a harder bar and how it is held move the answer', () => {
  show(<CalculatorPage />);
  type('Hardness of the bar, HB', '140');
  expect(screen.getByTestId('headline')).toHaveTextContent(said({ material: { ...alu, atHand: 140 } }));
  fireEvent.press(screen.getByText('poorly'));
  expect(screen.getByTestId('headline')).toHaveTextContent(said({ material: { ...alu, atHand: 140 }, grip: 'poor' }));
});

test('the second time starts where the first one stopped', async () => {
  const { unmount } = show(<CalculatorPage />);
  type('Bite', '2');
  await waitFor(() => expect(store.get('tidypath-calculator')).toContain('"ae":2'));
  unmount();
  show(<CalculatorPage />);
  expect(screen.getByLabelText('Bite').props.value).toBe('2');
});

test('a drill has pecks instead of a bite; a tap is locked to its pitch', () => {
  store.set('tidypath-calculator', JSON.stringify({ toolId: 't15' }));
  const { unmount } = show(<CalculatorPage />);
  expect(screen.queryByLabelText('Bite')).toBeNull();
  type('Hole depth', '40');
  expect(screen.getByText(/^Pecks of .* diameters deep/)).toBeTruthy();
  unmount();
  store.set('tidypath-calculator', JSON.stringify({ toolId: 't39' }));
  show(<CalculatorPage />);
  expect(screen.getByTestId('limit')).toHaveTextContent(/pitch|limited/i);
});

test('a ball says what ridges its stepover leaves', () => {
  store.set('tidypath-calculator', JSON.stringify({ toolId: 't12' }));
  show(<CalculatorPage />);
  expect(screen.getByText(/0.005 mm want a stepover of 0.346/)).toBeTruthy();
  expect(screen.getByLabelText(/leaves ridges of/)).toBeTruthy();
});

test('what cannot be is said, and cannot be kept', () => {
  store.set('tidypath-calculator', JSON.stringify({ toolId: 't16', materialId: 'titanium', machineId: 'sanderling' }));
  show(<CalculatorPage />);
  expect(screen.getByTestId('limit')).toHaveTextContent(/no slower than 8 000 rpm/);
});

test('kept as a recipe', async () => {
  show(<CalculatorPage />);
  fireEvent.changeText(screen.getByLabelText('Name of the recipe'), 'Pocket on the bench mill');
  fireEvent.press(screen.getByText('Keep as a recipe'));
  await waitFor(() => expect(fake.keep).toHaveBeenCalled());
  const recipe = fake.keep.mock.lastCall![2] as Recipe;
  expect(recipe).toMatchObject({ name: 'Pocket on the bench mill', tool: { id: 't4' }, boldness: 0.5 });
  expect(recipe.feed).toBeGreaterThan(0);
});

test('threads: diameters, drills for cutting and forming, the nearest in the drawer', () => {
  show(<ThreadsPage />);
  expect(screen.getByText('M6 · ISO coarse')).toBeTruthy();
  expect(screen.getByText('5.026 mm')).toBeTruthy();
  expect(screen.getByText(/leaves 77 % of the thread/)).toBeTruthy();
  fireEvent.changeText(screen.getByTestId('thread-name'), '1/4-20');
  fireEvent.press(screen.getByText('number, letter, fraction'));
  expect(screen.getByText('#7')).toBeTruthy();
  fireEvent.changeText(screen.getByTestId('thread-name'), 'M7');
  expect(screen.getByText(/give one, as in M7x1/)).toBeTruthy();
});
