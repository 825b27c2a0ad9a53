import { fireEvent, screen } from '@testing-library/react-native';
import { Samples, TOOLS, modelOf, finding } from '@tidypath/core';
import { sampleJob, show } from '../../testing/show';
import { PlanDrawing } from './part/PlanDrawing';
import { LoadRibbon } from './prove/LoadRibbon';
import { TimeParts } from './prove/TimeParts';
import { ToolLine } from '../ui/ToolLine';
import { ToolsPage } from './tools/ToolsPage';
import { ShopPage } from './shop/ShopPage';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const samples = (load: number): Samples => {
  const f = (...values: number[]) => Float32Array.from(values);
  return {
    count: 3,
    motion: Uint32Array.from([1, 2, 3]),
    time: f(1, 5, 9),
    rate: f(100, 300, 50),
    depth: f(1, 2, 1),
    engagement: f(30, 120, 180),
    load: f(0.2, load, 0.1),
    chip: f(0.02, 0.05, 0.05),
    force: f(10, 40, 50),
    bend: f(0.01, 0.04, 0.05),
    stress: f(100, 400, 500),
    grip: f(0.1, 0.1, 0.1),
    seconds: f(1, 4, 4),
    length: f(1, 1, 1),
    x: f(0, 1, 2),
    y: f(0, 0, 0),
    z: f(0, 0, 0),
  };
};
const CUTS = finding('gouge', { by: 1, where: { x: 0, y: 0 }, volume: 2 }, { line: 4 });
const ribbon = (load = 0.5, more = {}) =>
  show(
    <LoadRibbon
      samples={samples(load)}
      unit="mm"
      measure="rate"
      total={10}
      time={5}
      flags={[]}
      onSeek={jest.fn()}
      onFlag={jest.fn()}
      {...more}
    />,
  );

/** Everything rendered, words inside drawings included. */
const drawn = () => JSON.stringify(screen.toJSON());

describe('the load ribbon', () => {
  test('is a slider that says where in the program it stands', () => {
    ribbon();
    expect(screen.getByTestId('load-ribbon').props).toMatchObject({
      role: 'slider',
      'aria-valuenow': 5,
      'aria-valuemax': 10,
    });
  });

  test('overload is said by word and hatching, not by colour alone', () => {
    ribbon(1.4);
    expect(drawn()).toContain('▲ overload hatched');
  });

  test('no overload, no word of it', () => {
    ribbon(0.9);
    expect(drawn()).not.toContain('overload hatched');
  });

  test('a flag opens its finding', () => {
    const onFlag = jest.fn();
    ribbon(0.5, { flags: [{ time: 3, finding: CUTS }], onFlag });
    fireEvent.press(screen.getByLabelText(`Flag: ${CUTS.message}`));
    expect(onFlag).toHaveBeenCalledWith(CUTS);
  });

  test('arrow keys move it, within the program', () => {
    const onSeek = jest.fn();
    ribbon(0.5, { onSeek });
    const press = (key: string) =>
      screen.getByTestId('load-ribbon').props.onKeyDown({ key, preventDefault: jest.fn() });
    press('ArrowRight');
    press('ArrowLeft');
    press('x');
    expect(onSeek.mock.calls).toEqual([[7], [3]]);
  });
});

test('the parts of the time are read out with their length; empty ones are left out', () => {
  show(
    <TimeParts
      parts={[
        { label: 'Cutting', minutes: 8.75 },
        { label: 'Rapids', minutes: 1.05 },
        { label: 'Dwells', minutes: 0 },
      ]}
    />,
  );
  expect(screen.getByLabelText('Cutting 8:45, Rapids 1:03')).toBeTruthy();
});

test('the drawing shows overall sizes, those of the chosen feature, and where something is wrong', () => {
  const job = sampleJob();
  const onSelect = jest.fn();
  show(
    <PlanDrawing
      part={job.part}
      unit="mm"
      selected="f2"
      onSelect={onSelect}
      findings={[{ ...CUTS, place: { at: { x: 1, y: 1 } } }]}
    />,
  );
  expect(drawn()).toContain('80 mm');
  expect(drawn()).toContain('50 mm');
  expect(drawn()).toContain('30 mm × 30 mm');
  expect(modelOf(job.part).findings).toEqual([]);
});

test('a tool line says number, sizes and reach in the unit of the job', () => {
  const onPress = jest.fn();
  show(<ToolLine tool={TOOLS[20]} unit="inch" onPress={onPress} />);
  expect(screen.getByText(/⌀ 0.5 in, flutes 1 in, sticks out 1.5748 in, carbide/)).toBeTruthy();
  fireEvent.press(screen.getByText('T21 · 1/2 in end mill, 4 flutes'));
  expect(onPress).toHaveBeenCalled();
});

test('the rack can be searched; nothing found says what to try', () => {
  show(<ToolsPage />);
  fireEvent.changeText(screen.getByLabelText('Search tools'), 'ball');
  expect(screen.getByText(/6 mm ball mill/)).toBeTruthy();
  expect(screen.queryByText(/face mill/)).toBeNull();
  fireEvent.changeText(screen.getByLabelText('Search tools'), 'unobtainium');
  expect(screen.getByText('No such tool')).toBeTruthy();
});

test('the shop shows machines, materials, holders and controllers', () => {
  show(<ShopPage />);
  for (const text of [
    /Whimbrel light bench mill/,
    /Titanium 6Al-4V/,
    /Hobby controller/,
    /Hydraulic chuck/,
    /your local safety codes/,
  ])
    expect(screen.getByText(text)).toBeTruthy();
});
