import { act, fireEvent, screen, waitFor } from '@testing-library/react-native';
import { HOLDERS, TOOLS, Tool, previewTools, toolsToCsv } from '@tidypath/core';
import { show } from '../../../testing/show';
import { api } from '../../api/client';
import { AddToolSheet } from './AddToolSheet';
import { ImportSheet } from './ImportSheet';
import { ToolPage } from './ToolPage';
import { ToolsPage } from './ToolsPage';

jest.mock('../../api/client', () => ({
  ...jest.requireActual('../../api/client'),
  api: {
    keep: jest.fn(),
    keepAll: jest.fn(),
    shelf: jest.fn(),
    discard: jest.fn(),
    bringBack: jest.fn(),
    jobsUsing: jest.fn(),
  },
}));
const fake = jest.mocked(api);
beforeEach(() => {
  jest.clearAllMocks();
  fake.jobsUsing.mockResolvedValue([{ id: 'j', name: 'Vane hub plate' }]);
  fake.keep.mockResolvedValue({ saved: true, version: 2 });
  fake.shelf.mockResolvedValue([]);
});

const names = () => screen.getAllByText(/^T\d+ · /).map((n) => String(n.props.children.join('')));

test('the rack is found by several words, filtered by what tools do, sorted', () => {
  show(<ToolsPage />);
  expect(names()).toHaveLength(TOOLS.length);
  fireEvent.changeText(screen.getByLabelText('Search tools'), '10 mm 4 flutes');
  expect(names()).toEqual(['T5 · 10 mm end mill, 4 flutes']);
  fireEvent.changeText(screen.getByLabelText('Search tools'), '');
  fireEvent.press(screen.getByText('Threads'));
  expect(names()).toEqual(
    TOOLS.filter((t) => [37, 38, 39, 40, 41].includes(t.number)).map((t) => `T${t.number} · ${t.name}`),
  );
  fireEvent.press(screen.getByText('diameter'));
  expect(names()[names().length - 1]).toMatch(/12 mm thread mill/);
});

test('a new tool is its kind and size', () => {
  const onAdd = jest.fn();
  show(<AddToolSheet open onClose={jest.fn()} onAdd={onAdd} />);
  fireEvent.press(screen.getByLabelText('Other … Kind'));
  fireEvent.press(screen.getByText('reamer'));
  fireEvent(screen.getByTestId('new-tool-diameter'), 'focus');
  fireEvent.changeText(screen.getByTestId('new-tool-diameter'), '3/8');
  fireEvent.press(screen.getByText('Add it'));
  expect(onAdd).toHaveBeenCalledWith('reamer', expect.closeTo(9.525, 6), 'mm');
});

describe('one tool', () => {
  const type = (field: string, text: string) => {
    fireEvent(screen.getByTestId(`field-${field}`), 'focus');
    fireEvent.changeText(screen.getByTestId(`field-${field}`), text);
    fireEvent(screen.getByTestId(`field-${field}`), 'blur');
  };

  test('shows what it can do and who uses it; only numbers that matter for its form', async () => {
    show(<ToolPage id="t13" />);
    expect(screen.getByText('✓ breaks edges at 45° to its axis')).toBeTruthy();
    expect(await screen.findByText('Vane hub plate')).toBeTruthy();
    expect(screen.getByTestId('field-pointAngle')).toBeTruthy();
    expect(screen.queryByTestId('field-pitch')).toBeNull();
    expect(screen.queryByTestId('field-cornerRadius')).toBeNull();
  });

  test('a sound change is saved by itself, with the version it started from', async () => {
    show(<ToolPage id="t4" />);
    type('stickOut', '35');
    expect(screen.getByTestId('item-state')).toHaveTextContent('saving …');
    await waitFor(() => expect(fake.keep).toHaveBeenCalled());
    const [shelf, version, item] = fake.keep.mock.lastCall!;
    expect([shelf, version, (item as Tool).stickOut]).toEqual(['tools', 1, 35]);
    await waitFor(() => expect(screen.getByTestId('item-state')).toHaveTextContent('saved'));
  });

  test('impossible geometry is told at its field, held back, and nothing is lost', async () => {
    const { unmount } = show(<ToolPage id="t5" />);
    type('fluteLength', '90');
    expect(screen.getByTestId('finding-flute-too-long')).toBeTruthy();
    expect(screen.getByTestId('item-state')).toHaveTextContent('▲ not saved: correct the marked field');
    await act(() => new Promise((r) => setTimeout(r, 700)));
    expect(fake.keep).not.toHaveBeenCalled();
    unmount();
    show(<ToolPage id="t5" />);
    expect(screen.getByTestId('field-fluteLength').props.value).toBe('90');
    type('fluteLength', '22');
  });

  test('inches typed as mm, and a pocket that is taken, are said', () => {
    show(<ToolPage id="t20" />);
    type('diameter', '.25mm');
    expect(screen.getByTestId('finding-looks-like-inch')).toBeTruthy();
    type('number', '4');
    expect(screen.getByTestId('finding-same-pocket')).toHaveTextContent(
      /Pocket 4 already holds 10 mm end mill, 3 flutes/,
    );
    type('diameter', '6.35');
    type('number', '20');
  });

  test('a tool may be kept in inches: its numbers are written so, and stay what they are', async () => {
    show(<ToolPage id="t4" />);
    fireEvent.press(screen.getByText('inch'));
    expect(screen.getByTestId('field-diameter').props.value).toBe('0.3937');
    await waitFor(() => expect((fake.keep.mock.lastCall![2] as Tool).unit).toBe('inch'));
    expect((fake.keep.mock.lastCall![2] as Tool).diameter).toBe(10);
    fireEvent.press(screen.getByText('mm'));
  });

  test('a save that came too late offers both versions', async () => {
    fake.keep.mockResolvedValueOnce({
      saved: false,
      current: { version: 7, updatedAt: '', item: { ...TOOLS[5], stickOut: 50 } },
    });
    show(<ToolPage id="t6" />);
    type('stickOut', '30');
    fireEvent.press(await screen.findByText('Take theirs'));
    await waitFor(() => expect(screen.getByTestId('field-stickOut').props.value).toBe('50'));
  });

  test('its holder and its own data', async () => {
    show(<ToolPage id="t7" />);
    fireEvent.press(screen.getByText('Hydraulic chuck'));
    fireEvent.press(screen.getByLabelText('Choose … Add a material'));
    fireEvent.press(screen.getByText(/brass/i));
    await waitFor(() => expect(fake.keep).toHaveBeenCalled());
    const item = fake.keep.mock.lastCall![2] as Tool;
    expect(item.holder).toEqual(HOLDERS.find((h) => h.id === 'hydraulic'));
    expect(item.ownData).toMatchObject([{ materialId: 'brass' }]);
  });

  test('one that is not there', async () => {
    show(<ToolPage id="nobody" />);
    expect(screen.getByText('There is no such tool')).toBeTruthy();
  });
});

describe('a list taken in', () => {
  const preview = previewTools(toolsToCsv([{ ...TOOLS[3], fluteLength: 25 }]) + 'x\n', TOOLS, HOLDERS);
  const sheet = (onDone = jest.fn()) => {
    show(
      <ImportSheet
        name="tools.csv"
        preview={preview}
        versions={new Map([['t4', 3]])}
        onClose={jest.fn()}
        onDone={onDone}
      />,
    );
    return onDone;
  };

  test('says what will change, then does it in one go', async () => {
    fake.keepAll.mockResolvedValue({ saved: true, late: [] });
    const onDone = sheet();
    expect(screen.getByTestId('import-summary')).toHaveTextContent('0 new tools, 1 changed, 0 as they are');
    expect(screen.getByText(/T4 10 mm end mill, 3 flutes: flute length/)).toBeTruthy();
    fireEvent.press(screen.getByText('Take in 1 tool'));
    await waitFor(() => expect(onDone).toHaveBeenCalled());
    expect(fake.keepAll.mock.lastCall![1]).toMatchObject([{ version: 3, item: { id: 't4', fluteLength: 25 } }]);
  });

  test('somebody else was faster: nothing is taken in', async () => {
    fake.keepAll.mockResolvedValue({ saved: false, late: ['t4'] });
    const onDone = sheet();
    fireEvent.press(screen.getByText('Take in 1 tool'));
    expect(await screen.findByText(/Somebody changed t4 meanwhile/)).toBeTruthy();
    expect(onDone).not.toHaveBeenCalled();
  });
});
