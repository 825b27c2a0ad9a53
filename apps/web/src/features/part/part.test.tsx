import { act, fireEvent, screen } from '@testing-library/react-native';
import { useState } from 'react';
import { Feature, Job, SHAPES, SINGLE, newFeature, revised } from '@tidypath/core';
import * as draw from '../../../../../demo/dxf';
import { sampleJob, show } from '../../../testing/show';
import { FeatureAdvice } from './FeatureAdvice';
import { FeatureSheet } from './FeatureSheet';
import { ModelReader } from '../../compute/model';
import type { ModelAnswer } from '../../compute/model-messages';
import { ImportSheet } from './ImportSheet';
import { ModelSheet } from './ModelSheet';
import { RevisionCard } from './RevisionCard';
import { featureWords, firstShape } from './words';

const pocket = newFeature(
  [],
  'pocket',
  'Float pocket',
  { type: 'rectangle', width: 40, height: 20, radius: 3 },
  { depth: 7 },
);

function Sheet({ start, watch }: { start: Feature; watch: (f: Feature) => void }) {
  const [feature, setFeature] = useState(start);
  return (
    <FeatureSheet
      feature={feature}
      unit="mm"
      thickness={10}
      middle={{ x: 60, y: 40 }}
      onDelete={jest.fn()}
      onSide={jest.fn()}
      onOpposite={jest.fn()}
      onClose={jest.fn()}
      onChange={(next) => {
        setFeature(next);
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

describe('a size', () => {
  test('carries limits or a fit as it is typed; what it may measure is said, nonsense refused', () => {
    const watch = jest.fn();
    show(<Sheet start={pocket} watch={watch} />);
    type('Width (X)', '40 H9');
    expect(watch.mock.lastCall![0].limits).toEqual([{ size: 'width', upper: 0.062, lower: 0, fit: 'H9' }]);
    expect(screen.getByText('40 to 40.062 mm')).toBeTruthy();
    expect(featureWords(watch.mock.lastCall![0], 'mm')).toMatch(/^40 mm H9 × 20 mm/);
    const calls = watch.mock.calls.length;
    type('Width (X)', '40 H99');
    expect(screen.getByText(/“H99” is no fit the table has/)).toBeTruthy();
    type('Width (X)', '40 0/+0.1');
    expect(screen.getByText(/lies below the lower/)).toBeTruthy();
    expect(watch.mock.calls).toHaveLength(calls);
    type('Depth', '7 ±0.1');
    expect(watch.mock.lastCall![0].limits).toHaveLength(2);
    type('Width (X)', '41');
    expect(watch.mock.lastCall![0].limits).toEqual([{ size: 'depth', upper: 0.1, lower: -0.1 }]);
    expect(watch.mock.lastCall![0].shape.width).toBe(41);
  });
});

describe('a grid', () => {
  test('by its step or the whole, by its first or its middle: it stands where it was said', () => {
    const grid = { ...SINGLE, type: 'grid' as const, count: 3, rows: 2, dx: 10, dy: 8 };
    const watch = jest.fn();
    show(<Sheet start={{ ...pocket, x: 20, y: 30, pattern: grid }} watch={watch} />);
    fireEvent.press(screen.getByText('its middle'));
    type('Middle X', '50');
    expect(watch.mock.lastCall![0]).toMatchObject({ x: 40, y: 30 });
    fireEvent.press(screen.getByText('the whole'));
    type('Over all X', '30');
    expect(watch.mock.lastCall![0]).toMatchObject({ x: 35, y: 30, pattern: { dx: 15, dy: 8 } });
    type('Over all Y', '4');
    expect(watch.mock.lastCall![0]).toMatchObject({ x: 35, y: 32, pattern: { dx: 15, dy: 4 } });
  });
});

describe('a thread', () => {
  const hole: Feature = newFeature([], 'hole', 'Hole', { type: 'round', diameter: 5 }, { depth: 7, through: true });
  const thread = (text: string) => fireEvent.changeText(screen.getByTestId('feature-thread'), text);

  test('by its name: what hole it wants, and the hole made to fit', () => {
    const watch = jest.fn();
    show(<Sheet start={hole} watch={watch} />);
    thread('m6');
    expect(watch.mock.lastCall![0].thread).toBe('M6');
    expect(screen.getByText(/Hole 4.917 mm to 5.153 mm; drill 5 mm for a cutting tap/)).toBeTruthy();
    thread('1/4-20');
    fireEvent.press(screen.getByText('Make the hole 5.1 mm'));
    expect(watch.mock.lastCall![0].shape.diameter).toBe(5.1);
    thread('');
    expect(watch.mock.lastCall![0].thread).toBeUndefined();
  });

  test('what a hole is as wide as is offered, and taken by a tap alone', () => {
    const watch = jest.fn();
    show(<Sheet start={hole} watch={watch} />);
    expect(watch).not.toHaveBeenCalled();
    fireEvent.press(screen.getByTestId('thread-M6'));
    expect(watch.mock.lastCall![0].thread).toBe('M6');
    expect(screen.queryByText(/As wide as the hole of/)).toBeNull();
  });

  test('one that is none says why, and changes nothing', () => {
    const watch = jest.fn();
    show(<Sheet start={{ ...hole, thread: 'M6' }} watch={watch} />);
    thread('M7');
    expect(screen.getByText(/give one, as in M7x1/)).toBeTruthy();
    expect(watch).not.toHaveBeenCalled();
  });
});

test('tools for a feature: best first with speeds, bite and reasons; one tap adds the operation', async () => {
  const job = sampleJob();
  const edit = jest.fn();
  show(<FeatureAdvice job={job} setupId="s1" feature={job.part.features[1]} edit={edit} />);
  expect((await screen.findAllByText(/^✓ does it: .* rpm, .* biting .* in layers of /)).length).toBe(3);
  fireEvent.press(screen.getAllByText(/^Add an operation with T/)[0]);
  const after = edit.mock.lastCall![0](job) as Job;
  expect(after.setups[0].operations).toHaveLength(5);
  expect(after.setups[0].operations[4]).toMatchObject({ kind: 'pocket', targets: ['f2'] });
  fireEvent.press(screen.getByText(/that cannot$/));
  expect(screen.getAllByText(/is made for level faces/).length).toBeGreaterThan(0);
});

describe('a feature', () => {
  test('its sizes are fields; a bad one is told and changes nothing', () => {
    const watch = jest.fn();
    show(<Sheet start={pocket} watch={watch} />);
    type('Width (X)', '1-1/2');
    expect(watch.mock.lastCall![0].shape.width).toBeCloseTo(38.1, 9);
    type('Width (X)', '-5');
    expect(screen.getByText(/at least 0.01 mm/)).toBeTruthy();
    expect(watch).toHaveBeenCalledTimes(1);
  });

  test('a through pocket has no depth to type', () => {
    const watch = jest.fn();
    show(<Sheet start={pocket} watch={watch} />);
    expect(screen.getByTestId('feature-depth')).toBeTruthy();
    fireEvent(screen.getByLabelText('Goes through'), 'valueChange', true);
    expect(watch.mock.lastCall![0].through).toBe(true);
    expect(screen.queryByTestId('feature-depth')).toBeNull();
  });

  test('a meaning brings along only what matters for it', () => {
    const watch = jest.fn();
    show(<Sheet start={pocket} watch={watch} />);
    fireEvent.press(screen.getByText('boss'));
    expect(watch.mock.lastCall![0]).toMatchObject({ meaning: 'boss', depth: 0 });
    expect(screen.queryByLabelText('Goes through')).toBeNull();
  });

  test('a pattern asks for its own numbers', () => {
    const watch = jest.fn();
    show(<Sheet start={pocket} watch={watch} />);
    fireEvent.press(screen.getByText('around a centre'));
    expect(watch.mock.lastCall![0].pattern).toMatchObject({ type: 'circle', count: 2, centreX: 60, centreY: 40 });
    type('In all', '6');
    expect(watch.mock.lastCall![0].pattern.count).toBe(6);
    expect(screen.queryByLabelText('Rows')).toBeNull();
    fireEvent.press(screen.getByText('as in a mirror'));
    type('Mirror at X', '50');
    expect(watch.mock.lastCall![0].pattern).toMatchObject({ type: 'mirror', count: 2, rows: 1, centreX: 50 });
    expect(screen.queryByLabelText('Mirror at Y')).toBeNull();
    fireEvent.press(screen.getByText('both'));
    expect(featureWords(watch.mock.lastCall![0], 'mm')).toMatch(/, 4 as in a mirror$/);
    expect(screen.getByLabelText('Mirror at Y')).toBeTruthy();
  });

  test('its line says meaning, size, depth and count', () => {
    expect(featureWords(pocket, 'mm')).toBe('40 mm × 20 mm, corners 3 mm, 7 mm deep');
    expect(
      featureWords(
        {
          ...pocket,
          meaning: 'hole',
          through: true,
          shape: { type: 'round', diameter: 6.35 },
          pattern: { ...SINGLE, type: 'grid', count: 3, rows: 2 },
        },
        'inch',
      ),
    ).toBe('⌀ 0.25 in, through, 6 in a grid');
  });

  test('there is a first shape of every sort', () => {
    for (const { name } of SHAPES) if (name !== 'chain') expect(firstShape(name as 'round', 40).type).toBe(name);
  });
});

describe('taking in a drawing', () => {
  const open = draw.dxf([
    draw.line('0', 0, 0, 50, 0),
    draw.line('0', 50, 0, 50, 30),
    draw.line('0', 50, 30, 0, 30),
    draw.line('0', 0, 30, 0, 0.4),
  ]);
  const sheet = (text: string, onTake = jest.fn()) => {
    show(<ImportSheet file={{ name: 'x.dxf', text }} unit="mm" thickness={10} onTake={onTake} onClose={jest.fn()} />);
    return onTake;
  };

  test('gaps are listed and closed only when told', async () => {
    const onTake = sheet(open);
    expect(await screen.findByTestId('import-summary')).toHaveTextContent(/0 closed outlines, 1 open curve, 1 gap\./);
    expect(screen.getByTestId('finding-gap')).toBeTruthy();
    type('Close gaps up to', '0.5');
    await screen.findByText(/1 closed outline, 0 open curves, 0 gaps/);
    fireEvent.press(screen.getByText('Take it in'));
    expect(onTake.mock.lastCall![0][0].meaning).toBe('outline');
  });

  test('the drawing is shown before it is taken, what is to be looked at with it', async () => {
    sheet(open);
    expect(await screen.findByTestId('drawing-picture')).toBeTruthy();
  });

  test('the unit is asked for only when the drawing names none', async () => {
    const onTake = sheet(open);
    fireEvent.press(await screen.findByText('inch'));
    type('Close gaps up to', '15');
    await screen.findByText(/0 gaps/);
    fireEvent.press(screen.getByText('Take it in'));
    expect(onTake.mock.lastCall![0][0].shape.vertices[1].x).toBeCloseTo(50 * 25.4, 6);
  });

  test('a file that is no drawing is told, and cannot be taken in', async () => {
    const onTake = sheet('this is no drawing');
    expect(await screen.findByTestId('finding-dxf-empty')).toBeTruthy();
    fireEvent.press(screen.getByText('Take it in'));
    expect(onTake).not.toHaveBeenCalled();
  });
});

test('a newer file says what changed and which operations that touches', () => {
  const job = sampleJob();
  const [outside, pocket] = job.part.features.map((f) => ({ ...f, layer: 'read' }));
  const before = { ...job.part, features: [outside, pocket] };
  const hole = newFeature([], 'hole', 'Hole 3', { type: 'round', diameter: 3 }, { x: 9, y: 9, layer: 'read' });
  const { changes } = revised(before, {
    ...before,
    features: [outside, { ...pocket, depth: pocket.depth + 1 }, hole],
  });
  const onClose = jest.fn();
  show(<RevisionCard changes={{ job, list: changes! }} onClose={onClose} />);
  const [operation] = job.setups[0].operations.filter((o) => o.targets.includes(pocket.id));
  expect(screen.getByText(/2 changes/)).toBeTruthy();
  expect(screen.getByText(new RegExp(`${pocket.name}: .* deep, now .* deep – look at ${operation.name}`))).toBeTruthy();
  expect(screen.getByText('Hole 3: new – nothing cuts it yet.')).toBeTruthy();
  fireEvent.press(screen.getByText('Seen'));
  expect(onClose).toHaveBeenCalled();
});

test('a STEP file is seen before it is read finely, and then told as it is', async () => {
  let hear: (answer: ModelAnswer) => void = () => undefined;
  jest.spyOn(ModelReader.prototype, 'read').mockImplementation(function (this: ModelReader) {
    hear = (answer) => act(() => (this as unknown as { hear: typeof hear }).hear(answer));
  });
  await show(
    <ModelSheet
      file={{ name: 'tray.step', bytes: new Uint8Array(8) }}
      unit="mm"
      onTake={jest.fn()}
      onClose={jest.fn()}
    />,
  );
  const said = () => screen.getByTestId('model-summary').props.children as string;
  expect(said()).toBe('Reading the solid …');
  const picture = { path: 'M0 0L1 1', viewBox: '0 0 1 1' };
  hear({ type: 'glimpsed', glimpse: { picture, size: [90, 60, 30], bodies: 2 } });
  expect(said()).toBe('Reading the solid … About 90 × 60 × 30 mm, the first of 2 bodies.');
  hear({ type: 'read', model: { form: 'STEP', unit: 'mm', bodies: [], findings: [] } });
  expect(said()).toBe('Nothing could be taken from this file.');
});
