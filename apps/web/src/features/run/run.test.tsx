import { fireEvent, screen } from '@testing-library/react-native';
import type { MachineView, Press } from '@tidypath/controller';
import { ReleaseView, TOOLS } from '@tidypath/core';
import { sampleJob, show } from '../../../testing/show';
import { api } from '../../api/client';
import { ControlCard } from './ControlCard';
import { CutCard } from './CutCard';
import { EntriesCard } from './EntriesCard';
import { EventsCard } from './EventsCard';
import { HoldBar } from './HoldBar';
import { Piece, heightAt, isOf } from './PieceCard';
import { SeenCard } from './SeenCard';
import { TurnsCard } from './TurnsCard';
import { heardOf } from './useSound';

const VIEW: MachineView = {
  ...{ state: 'ready', now: 0, ran: 12, whole: 600, line: 2, lift: 0, load: 0, vibration: 0, force: 0, steps: [] },
  overrides: { feed: 100, rapid: 100, speed: 100 },
  switches: { singleBlock: false, optionalStop: false, blockSkip: false, door: false },
  lines: [
    { line: 1, text: 'O1001' },
    { line: 2, text: 'N10 G21' },
  ],
  zero: { x: -200 },
  registers: [
    { tool: 4, name: '10 mm end mill', entered: 72, sheet: 72.05, worn: 0.004, broke: false },
    { tool: 7, name: '6 mm end mill', entered: 52, sheet: 62, worn: 0.31, broke: false },
    { tool: 9, name: '4 mm end mill', sheet: 60, worn: 0, broke: true },
  ],
};
const pressed: Press[] = [];
const press = (one: Press) => void pressed.push(one);
beforeEach(() => void pressed.splice(0));

test('the large button is what is needed: start, hold while it runs, reset after an alarm', async () => {
  for (const [state, does] of [
    ['ready', 'start'],
    ['running', 'hold'],
    ['held', 'start'],
    ['alarm', 'reset'],
  ] as const) {
    const { unmount } = await show(<HoldBar view={{ ...VIEW, state }} isPreparing={false} press={press} />);
    await fireEvent.press(screen.getByTestId('hold-or-start'));
    expect(pressed.pop()).toEqual({ press: does });
    expect(screen.queryAllByTestId('reset')).toHaveLength(state === 'held' ? 1 : 0);
    await unmount();
  }
});

test('a tool that is asked for is put in with one tap, and why something is refused is said', async () => {
  await show(
    <HoldBar
      view={{ ...VIEW, state: 'tool', asks: 7 }}
      isPreparing={false}
      refused="T7 is asked for: put it in first"
      press={press}
    />,
  );
  await fireEvent.press(screen.getByTestId('put-in'));
  expect(pressed).toEqual([{ press: 'put in', n: 7 }]);
  expect(screen.getByText('▲ T7 is asked for: put it in first')).toBeTruthy();
});

test('registers are held against the sheet', async () => {
  await show(<EntriesCard view={VIEW} unit="mm" offset="G54" press={press} />);
  expect(screen.getByText('▲ G54 is not set along Y, Z')).toBeTruthy();
  expect(screen.getByText(/H4 72 mm, ✓ as the sheet/)).toBeTruthy();
  expect(screen.getByText(/H7 52 mm, ▲ 10 mm shorter than the sheet/)).toBeTruthy();
  expect(screen.getByText(/H9 empty, ▲ not set/)).toBeTruthy();
});

test('what is worn or broken is told, and a new one put in', async () => {
  await show(<EntriesCard view={VIEW} unit="mm" offset="G54" press={press} />);
  expect(screen.getByText('31 % of an edge used')).toBeTruthy();
  expect(screen.getByText('▲ It is broken')).toBeTruthy();
  expect(screen.queryByLabelText('Put in a new T4')).toBeNull();
  await fireEvent.press(screen.getByLabelText('Put in a new T9'));
  expect(pressed).toEqual([{ press: 'put in', n: 9 }]);
});

test('a program is begun at a line', async () => {
  await show(<TurnsCard view={VIEW} pace={1} press={press} onPace={() => undefined} onOnward={() => undefined} />);
  await fireEvent.press(screen.getByText('Begin at a line'));
  await fireEvent.changeText(screen.getByLabelText('Line'), '120');
  await fireEvent(screen.getByLabelText('Line'), 'blur');
  await fireEvent.press(screen.getByText('Begin there'));
  expect(pressed).toEqual([{ press: 'start at', n: 120 }]);
});

test('touched off with the block it is told of; a told block that is not there can be told', async () => {
  await show(<EntriesCard view={VIEW} unit="mm" offset="G54" press={press} />);
  await fireEvent.press(screen.getByLabelText('Touch off T7'));
  await fireEvent.press(screen.getByTestId('take-touch'));
  expect(pressed.pop()).toEqual({ press: 'touch length', n: 7, under: 50, told: 50 });
  await fireEvent.press(screen.getByText('Touch off X'));
  await fireEvent.press(screen.getByTestId('take-touch'));
  expect(pressed.pop()).toMatchObject({ press: 'touch zero', axis: 'x', under: 5, told: 5 });
});

test('overrides go by their steps and end where they end', async () => {
  const view = { ...VIEW, overrides: { feed: 150, rapid: 25, speed: 50 } };
  await show(<TurnsCard view={view} pace={1} press={press} onPace={() => undefined} onOnward={() => undefined} />);
  await fireEvent.press(screen.getByLabelText('Rapid more'));
  await fireEvent.press(screen.getByLabelText('Feed less'));
  expect(pressed).toEqual([
    { press: 'override', which: 'rapid', n: 50 },
    { press: 'override', which: 'feed', n: 140 },
  ]);
  await fireEvent.press(screen.getByLabelText('Feed more'));
  await fireEvent.press(screen.getByLabelText('Spindle less'));
  expect(pressed).toHaveLength(2);
});

test('an alarm says its number, where, more, and what to do', async () => {
  const alarm = {
    number: 11,
    what: 'A rapid ran into metal',
    remedy: 'Touch off again',
    line: 2,
    more: '9 mm deep',
  } as const;
  await show(<ControlCard view={{ ...VIEW, state: 'alarm', alarm }} unit="mm" isPreparing={false} />);
  expect(screen.getByText('11 A rapid ran into metal, line 2')).toBeTruthy();
  expect(screen.getByText('9 mm deep')).toBeTruthy();
  expect(screen.getByText('Touch off again.')).toBeTruthy();
  expect(screen.getByText('0:12 / 10:00')).toBeTruthy();
});

test('chatter is told in words, with its frequency; a load beyond the spindle has a shape', async () => {
  await show(
    <CutCard
      tools={TOOLS}
      view={{ ...VIEW, state: 'running', load: 1.1, vibration: 0.02, chatter: 803, quiet: [12045], colour: 'blue' }}
    />,
  );
  expect(screen.getByText(/▲ screams at 803 Hz, 20 µm; out of step at 12.045 rpm/)).toBeTruthy();
  expect(screen.getByText('▲ 110 %')).toBeTruthy();
});

test('a cut is heard once it is asked for: its teeth, and a chatter over them', async () => {
  const tones: { hz: number; loud: number; ended: boolean }[] = [];
  const context = () => ({
    currentTime: 0,
    destination: {},
    close: () => Promise.resolve(void tones.forEach((t) => (t.ended = true))),
    createOscillator() {
      const tone = { hz: 0, loud: 0, ended: false };
      tones.push(tone);
      const oscillator = {
        frequency: { setTargetAtTime: (hz: number) => void (tone.hz = hz) },
        connect: (gain: object) => gain,
        start: () => undefined,
      };
      return oscillator;
    },
    createGain() {
      const tone = tones[tones.length - 1];
      return {
        gain: { value: 0, setTargetAtTime: (loud: number) => void (tone.loud = loud) },
        connect: () => undefined,
      };
    },
  });
  (globalThis as { AudioContext?: unknown }).AudioContext = jest.fn(context);
  const cut = { ...VIEW, state: 'running', tool: 4, rpm: 6000, load: 0.5, vibration: 0.02, chatter: 803 } as const;
  await show(<CutCard tools={TOOLS} view={cut} />);
  expect(tones).toEqual([]);
  await fireEvent.press(screen.getByLabelText('Let it be heard'));
  expect(tones.map((t) => t.hz)).toEqual([(6000 * TOOLS[3].flutes) / 60, 803]);
  expect(tones.every((t) => t.loud > 0)).toBe(true);
  await fireEvent.press(screen.getByLabelText('Let it be heard'));
  expect(tones.every((t) => t.ended)).toBe(true);
  expect(heardOf({ ...cut, state: 'held' }, 3)).toMatchObject({ cut: 0, scream: 0 });
});

test('a piece that was measured is tapped for its height; what was cut since is another piece', () => {
  const surface = {
    ...{ x0: -1, y0: -1, cell: 2, nx: 2, ny: 3, bottom: -10, top: 0 },
    height: Float32Array.from([0, -1, -2, -3, -4, -5]),
  };
  expect([heightAt(surface, 0, 0), heightAt(surface, 1.5, 4.5)]).toEqual([0, -5]);
  expect(heightAt(surface, 3.1, 0)).toBeUndefined();
  expect(heightAt(surface, -1.1, 0)).toBeUndefined();
  const piece: Piece = { run: 'r', at: 12, sizes: [], findings: [], surface };
  expect([isOf(piece, 'r', 12), isOf(piece, 'r', 13), isOf(piece, 's', 12), isOf(undefined, 'r', 12)]).toEqual([
    ...[true, false, false, false],
  ]);
});

test('what happened is told the newest first', async () => {
  const event = (seconds: number, words: string) => ({ seconds, line: 5, what: 'hold', words, at: '' });
  await show(<EventsCard events={[1, 2, 3, 4].map((n) => event(n, `event ${n}`))} />);
  expect(screen.getByText(/event 4/)).toBeTruthy();
  expect(screen.queryByText(/event 1/)).toBeNull();
  await fireEvent.press(screen.getByText('1 before'));
  expect(screen.getByText(/event 1/)).toBeTruthy();
});

test('a cut that was run goes to the recipes with its evidence, and back again', async () => {
  const job = sampleJob();
  const keep = jest.spyOn(api, 'keep').mockResolvedValue({ saved: true, version: 1 });
  const view = { setupId: job.setups[0].id, root: '09dcc099', body: { job } } as unknown as ReleaseView;
  jest.spyOn(api, 'releaseOf').mockResolvedValue(view);
  const discard = jest.spyOn(api, 'discard').mockResolvedValue();
  const [setup] = job.setups;
  const pocket = setup.operations.find((o) => o.kind === 'pocket')!;
  const drill = setup.operations.find((o) => o.kind === 'drill')!;
  const step = {
    ...{ tool: 4, seconds: 90, load: 0.47, vibration: 0, heat: 0.5, chattered: 0 },
    shapes: {},
    inCut: 60,
    lateForce: 50,
  };
  await show(
    <SeenCard
      release="r"
      steps={[
        { ...step, operationId: pocket.id },
        { ...step, operationId: drill.id },
      ]}
    />,
  );
  expect(await screen.findAllByText(/1:30, 47 % of the spindle, quiet/)).toHaveLength(2);
  // A drill has no bite to keep.
  expect(screen.queryAllByText('To the recipes')).toHaveLength(1);
  await fireEvent.press(screen.getByText('To the recipes'));
  expect(await screen.findByTestId('kept-recipe')).toBeTruthy();
  expect(keep.mock.calls[0][2]).toMatchObject({
    note: expect.stringMatching(/^✓ .*release 09DCC099: 47 % of the spindle, quiet/),
  });
  await fireEvent.press(screen.getByTestId('recipe-undo'));
  expect(discard).toHaveBeenCalledTimes(1);
});
