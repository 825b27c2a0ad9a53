import { act, fireEvent, screen } from '@testing-library/react-native';
import { useState } from 'react';
import { Text } from 'react-native';
import { Machine, ParameterInfo, Tool, parametersOf, finding } from '@tidypath/core';
import { show } from '../../testing/show';
import { Choices } from './Choices';
import { FieldFinding } from './FieldFinding';
import { Fold } from './Fold';
import { LineFigure } from './LineFigure';
import { ParameterField } from './ParameterField';
import { Slide } from './Slide';
import { Tick } from './Tick';
import { useSettled } from './useSettled';

const field = (info: ParameterInfo, value: unknown, unit: 'mm' | 'inch' = 'mm') => {
  const onChange = jest.fn();
  show(<ParameterField info={info} value={value} unit={unit} testID="field" onChange={onChange} />);
  return onChange;
};
const type = (text: string) => {
  fireEvent(screen.getByTestId('field'), 'focus');
  fireEvent.changeText(screen.getByTestId('field'), text);
};

describe('the field a described value gets', () => {
  const tool = parametersOf(Tool);
  const machine = parametersOf(Machine);

  test('a length takes fractions, and refuses what is out of range', () => {
    const onChange = field(tool.diameter, 10);
    type('3/8');
    expect(onChange).toHaveBeenLastCalledWith(expect.closeTo(9.525, 6));
    type('900');
    expect(screen.getByText('at most 200 mm')).toBeTruthy();
    expect(onChange).toHaveBeenCalledTimes(1);
  });

  test('what was said below a field stays until the tap that leaves it is over', () => {
    jest.useFakeTimers();
    field(tool.diameter, 10);
    type('900');
    fireEvent(screen.getByTestId('field'), 'blur');
    expect(screen.getByTestId('field').props.value).toBe('10');
    expect(screen.getByText('at most 200 mm')).toBeTruthy();
    act(() => void jest.runAllTimers());
    expect(screen.queryByText('at most 200 mm')).toBeNull();
    jest.useRealTimers();
  });

  test('a feed in an inch job is typed in inches a minute', () => {
    const onChange = field(machine.maxFeed, 2540, 'inch');
    expect(screen.getByTestId('field').props.value).toBe('100');
    type('50');
    expect(onChange).toHaveBeenLastCalledWith(1270);
  });

  test('a value that need not be given shows what it is taken for', () => {
    field(machine.extraTime, undefined);
    expect(screen.getByTestId('field').props.value).toBe('0');
    expect(screen.queryByText('a number is needed here')).toBeNull();
    const onRapids = field(machine.rapids, undefined);
    fireEvent.press(screen.getByText('bent, each axis for itself'));
    expect(onRapids).toHaveBeenCalledWith('bent');
  });

  test('a count is whole', () => {
    const onChange = field(tool.flutes, 3);
    type('2.5');
    expect(screen.getByText('a whole number is needed here')).toBeTruthy();
    expect(onChange).not.toHaveBeenCalled();
  });

  test('a choice reads as the trade says it; a switch is a switch; words are words', () => {
    const onKind = field(tool.material, 'carbide');
    fireEvent.press(screen.getByText('HSS'));
    expect(onKind).toHaveBeenCalledWith('hss');
    const onSwitch = field(tool.centreCutting, true);
    fireEvent(screen.getByLabelText('Cuts to the centre'), 'valueChange', false);
    expect(onSwitch).toHaveBeenCalledWith(false);
    const onName = field(tool.name, 'A');
    fireEvent.changeText(screen.getByLabelText('Name'), 'x'.repeat(200));
    expect(onName).toHaveBeenCalledWith('x'.repeat(80));
  });

  test('a finding stands under its field with its level', () => {
    show(<FieldFinding finding={finding('bad-cell', { column: 'width', why: 'too long' })} />);
    expect(screen.getByText('▲ width: too long. Correct this cell.')).toBeTruthy();
    show(<FieldFinding finding={finding('bad-row', { row: 2, why: 'odd' })} />);
    expect(screen.getByText('◆ Row 2: odd. Check its commas and quotes.')).toBeTruthy();
  });
});

describe('many choices', () => {
  const options = 'abcdefghijk'.split('').map((value) => ({ value, label: `option ${value}` }));
  test('fold up to the chosen one; choosing another folds them again', () => {
    const onChange = jest.fn();
    show(<Choices label="Which" value="c" options={options} onChange={onChange} />);
    expect(screen.queryByText('option d')).toBeNull();
    fireEvent.press(screen.getByLabelText('Other … Which'));
    fireEvent.press(screen.getByText('option d'));
    expect(onChange).toHaveBeenCalledWith('d');
    expect(screen.queryByText('option e')).toBeNull();
  });

  test('a tap on the folded one opens them and changes nothing', () => {
    const onChange = jest.fn();
    show(<Choices label="Which" fold value="a" options={options.slice(0, 3)} onChange={onChange} />);
    fireEvent.press(screen.getByText(/option a/));
    expect(screen.getByText('option b')).toBeTruthy();
    expect(onChange).not.toHaveBeenCalled();
  });

  test('few stand in sight at once', () => {
    show(<Choices label="Which" value="a" options={options.slice(0, 3)} onChange={jest.fn()} />);
    expect(screen.getByText('option c')).toBeTruthy();
  });
});

test('what is folded is not worked out until it is asked for', () => {
  const work = jest.fn(() => <Text>worked out</Text>);
  show(<Fold label="More of it">{work}</Fold>);
  expect(work).not.toHaveBeenCalled();
  fireEvent.press(screen.getByText('More of it'));
  expect(screen.getByText('worked out')).toBeTruthy();
  fireEvent.press(screen.getByText('More of it'));
  expect(screen.queryByText('worked out')).toBeNull();
});

test('a tick says whether it is on', () => {
  const onPress = jest.fn();
  show(<Tick label="flood" on onPress={onPress} />);
  expect(
    screen.getByLabelText('flood').props.accessibilityState?.checked ??
      screen.getByLabelText('flood').props['aria-checked'],
  ).toBe(true);
  fireEvent.press(screen.getByLabelText('flood'));
  expect(onPress).toHaveBeenCalled();
});

test('the slider has its word and goes in twentieths', () => {
  const onChange = jest.fn();
  const { UNSAFE_getByProps } = show(<Slide label="Boldness" value={0.5} word="settled" onChange={onChange} />);
  const input = UNSAFE_getByProps({ 'data-testid': 'slide' });
  expect([input.props.value, input.props['aria-valuetext']]).toEqual([10, 'settled']);
  act(() => input.props.onChange({ target: { value: '15' } }));
  expect(onChange).toHaveBeenCalledWith(0.75);
});

test('a curve tells a screen reader what it shows', () => {
  show(
    <LineFigure
      title="Power"
      summary="Power over speed, 1 kW at 5 000 rpm"
      x={{ label: 'speed', from: 0, to: 10, text: String }}
      y={{ label: 'power', text: String }}
      curves={[{ name: 'power', values: [0, 1, 2] }]}
      here={{ at: 0.5, value: 1 }}
      limit={{ value: 1.5, text: 'no more than 1.5' }}
    />,
  );
  expect(screen.getByLabelText('Power over speed, 1 kW at 5 000 rpm')).toBeTruthy();
  expect(screen.getByText(/speed → power; no more than 1.5/)).toBeTruthy();
});

test('a value settles once it has stood still', () => {
  jest.useFakeTimers();
  let set = (_: number) => {};
  function Probe() {
    const [value, change] = useState(1);
    set = change;
    return <Text>{`${value} ${useSettled(value, 100)}`}</Text>;
  }
  show(<Probe />);
  act(() => set(2));
  act(() => jest.advanceTimersByTime(60));
  act(() => set(3));
  act(() => jest.advanceTimersByTime(60));
  expect(screen.getByText('3 1')).toBeTruthy();
  act(() => jest.advanceTimersByTime(60));
  expect(screen.getByText('3 3')).toBeTruthy();
  jest.useRealTimers();
});
