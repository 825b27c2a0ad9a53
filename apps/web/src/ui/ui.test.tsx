import { finding } from '@tidypath/core';
import { fireEvent, render, screen } from '@testing-library/react-native';
import { ReactElement, useState } from 'react';
import { PaperProvider } from 'react-native-paper';
import { lightTheme } from '../theme/paper';
import { temperStep } from '../theme/theme';
import { Choices } from './Choices';
import { FindingCard } from './FindingCard';
import { FindingList } from './FindingList';
import { GaugeBar } from './GaugeBar';
import { LengthField } from './LengthField';
import { NumberField } from './NumberField';

const show = (element: ReactElement) => render(<PaperProvider theme={lightTheme}>{element}</PaperProvider>);

function Length({ onMm, ...more }: { onMm: (mm: number) => void; min?: number; max?: number; shareOf?: number }) {
  const [mm, setMm] = useState(10);
  return (
    <LengthField
      label="Depth"
      value={mm}
      unit="mm"
      testID="depth"
      step={1}
      onChange={(v) => {
        setMm(v);
        onMm(v);
      }}
      {...more}
    />
  );
}

describe('a length field', () => {
  const type = (text: string) => {
    fireEvent(screen.getByTestId('depth'), 'focus');
    fireEvent.changeText(screen.getByTestId('depth'), text);
  };

  test.each([
    ['12', 12],
    ['1/2', 12.7],
    ['10+0.2', 10.2],
  ])('takes %s', (text, mm) => {
    const onMm = jest.fn();
    show(<Length onMm={onMm} />);
    type(text);
    expect(onMm).toHaveBeenLastCalledWith(expect.closeTo(mm, 6));
  });

  test('says how it read what was typed', () => {
    show(<Length onMm={jest.fn()} />);
    type('5/16');
    expect(screen.getByText('= 7.938 mm')).toBeTruthy();
  });

  test.each([
    ['nonsense', /not a length/],
    ['', /needed/],
    ['-4', /at least 0 mm/],
    ['400', /at most 50 mm/],
  ])('refuses “%s” with a reason and keeps the last good value', (text, why) => {
    const onMm = jest.fn();
    show(<Length onMm={onMm} min={0} max={50} />);
    type(text);
    expect(screen.getByText(why)).toBeTruthy();
    expect(onMm).not.toHaveBeenCalled();
  });

  test('steps with its buttons, within its range', () => {
    const onMm = jest.fn();
    show(<Length onMm={onMm} max={10.5} />);
    fireEvent.press(screen.getByLabelText('Depth less'));
    expect(onMm).toHaveBeenLastCalledWith(9);
    fireEvent.press(screen.getByLabelText('Depth more'));
    fireEvent.press(screen.getByLabelText('Depth more'));
    expect(onMm).toHaveBeenLastCalledWith(10);
  });
});

test('a number field refuses what is no whole number', () => {
  const onChange = jest.fn();
  show(<NumberField label="Sides" value={6} min={3} max={60} whole onChange={onChange} testID="sides" />);
  fireEvent(screen.getByTestId('sides'), 'focus');
  fireEvent.changeText(screen.getByTestId('sides'), '4.5');
  expect(screen.getByText('a whole number is needed here')).toBeTruthy();
  fireEvent.changeText(screen.getByTestId('sides'), '8');
  expect(onChange).toHaveBeenCalledTimes(1);
  expect(onChange).toHaveBeenCalledWith(8);
});

test('a finding says level, place, what and what to do, and leads there', () => {
  const go = jest.fn();
  show(<FindingCard finding={finding('removed-nothing', {}, { line: 12 })} onGo={go} goLabel="Show" />);
  expect(screen.getByText(/◆ care · line 12/)).toBeTruthy();
  expect(screen.getByText(/^Look whether an earlier step/)).toBeTruthy();
  fireEvent.press(screen.getByText('Show'));
  expect(go).toHaveBeenCalled();
});

test('of many findings of one kind the first three are shown; the others unfold', () => {
  const odd = (line: number) => finding('bad-row', { row: line, why: 'odd' }, { line });
  const wrong = (line: number) => finding('bad-cell', { column: `Cell ${line}`, why: 'odd' }, { line });
  const gone: (number | undefined)[] = [];
  const findings = [odd(1), ...[2, 3, 4, 5, 6].map(wrong), odd(7)];
  show(<FindingList findings={findings} goTo={(f) => () => gone.push(f.place.line)} goLabel="Show" />);
  const lines = () => screen.getAllByText(/: odd$/).map((t) => t.props.children);
  expect(lines()).toEqual(['Row 1: odd', 'Cell 2: odd', 'Cell 3: odd', 'Cell 4: odd', 'Row 7: odd']);
  fireEvent.press(screen.getByText('2 more like this'));
  expect(lines()).toEqual(findings.map((f) => f.message));
  expect(screen.queryByText(/more like this/)).toBeNull();
  fireEvent.press(screen.getAllByText('Show')[6]);
  expect(gone).toEqual([7]);
});

test('a gauge over its limit says so by shape and word', () => {
  show(
    <GaugeBar
      gauge={{ id: 'load', label: 'Spindle', value: 1.2, text: '120 %', low: 0, high: 0.8, scale: 1.2, state: 'over' }}
    />,
  );
  expect(screen.getByLabelText('Spindle 120 %, too much')).toBeTruthy();
  expect(screen.getByText(/▲/)).toBeTruthy();
});

test('choices tell which one is chosen', () => {
  const onChange = jest.fn();
  show(
    <Choices
      label="Unit"
      value="mm"
      options={[
        { value: 'mm', label: 'mm' },
        { value: 'inch', label: 'inch' },
      ]}
      onChange={onChange}
    />,
  );
  fireEvent.press(screen.getByText('inch'));
  expect(onChange).toHaveBeenCalledWith('inch');
  expect(screen.getByText(/✓/)).toBeTruthy();
});

test('the temper scale has six steps from light bite to slot', () => {
  expect([0, 29, 31, 90, 150, 180].map(temperStep)).toEqual([0, 0, 1, 3, 5, 5]);
});
