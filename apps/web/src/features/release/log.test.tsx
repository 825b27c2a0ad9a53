import { fireEvent, screen, waitFor } from '@testing-library/react-native';
import { KeptEntry, LogEntry, ReleaseView, standing } from '@tidypath/core';
import { api } from '../../api/client';
import { sampleJob, show } from '../../../testing/show';
import { LogCard } from './LogCard';
import { SizesCard } from './SizesCard';

const logged: LogEntry[] = [];
jest.spyOn(api, 'log').mockImplementation((_, one) => Promise.resolve(void logged.push(one)));
const measured = jest.spyOn(api, 'measure').mockResolvedValue(undefined);
const corrected = jest.spyOn(api, 'correct').mockResolvedValue(undefined);

const entry = (more: Partial<KeptEntry>): KeptEntry => ({
  ...{ id: 'a'.repeat(32), kind: 'production', parts: 4, scrapped: 1, remark: '', releaseId: 'r', who: 'Lio' },
  ...{ at: '2026-03-02T08:00:00Z', ...more },
});

const job = sampleJob();
const limits = [{ size: 'depth' as const, upper: 0.02, lower: -0.02 }];
job.part.features = job.part.features.map((f) => (f.name === 'Float pocket' ? { ...f, limits } : f));
const pocket = job.part.features.find((f) => f.name === 'Float pocket')!;
const view = {
  ...{ id: 'r', jobName: 'Plate', number: 1, root: '09dcc099'.padEnd(64, '0'), sizes: [], corrections: [] },
  body: {
    job,
    setupId: job.setups[0].id,
    proof: { clock: { cut: 8, rapid: 1, dwell: 0, toolChange: 0.7, total: 9.7 } },
  },
} as unknown as ReleaseView;

const card = (kept: KeptEntry[] = []) =>
  show(<LogCard view={view} entries={standing(kept)} onLogged={() => undefined} />);
beforeEach(() => logged.splice(0));

test('one good part is one tap; a time only where somebody looked, from what was computed', async () => {
  await card();
  await fireEvent.press(screen.getByTestId('log-it'));
  expect(logged.pop()).toEqual({ id: expect.any(String), kind: 'production', parts: 1, scrapped: 0, remark: '' });
  await fireEvent.press(screen.getByLabelText('Its time was looked at'));
  await fireEvent.press(screen.getByTestId('log-it'));
  expect(logged.pop()!.seconds).toBeCloseTo(582, 6);
});

test('what is not so is put right by another entry', async () => {
  await card([entry({}), entry({ id: 'b'.repeat(32), parts: 5, scrapped: 0, replaces: 'a'.repeat(32) })]);
  expect(await screen.findByText(/production: 5 parts/)).toBeTruthy();
  expect(screen.queryByText(/production: 4 parts/)).toBeNull();
  await fireEvent.press(screen.getByText('Not so'));
  await fireEvent.press(screen.getByTestId('log-it'));
  expect(logged.pop()).toMatchObject({ parts: 5, replaces: 'b'.repeat(32) });
});

test('scrap has a shape and a cause; runs of the simulated machine fold away', async () => {
  await card([
    entry({ seconds: 600, cause: 'size' }),
    entry({ id: 'c'.repeat(32), kind: 'simulated', parts: 1, scrapped: 0 }),
  ]);
  expect(await screen.findByText(/4 parts, ▲ 1 scrapped: size, 10:00 a run/)).toBeTruthy();
  expect(screen.getByText('1 run on the simulated machine')).toBeTruthy();
});

test('what was seen is tapped: all well at once, then what was not', async () => {
  await card();
  await fireEvent.press(screen.getByText('What was seen, heard, changed'));
  await fireEvent.press(screen.getByTestId('all-well'));
  const [first] = job.setups[0].operations;
  await fireEvent.press(screen.getByText(`What was seen of “${first.name}”`));
  const one = (name: string) => screen.getAllByRole('radio', { name })[0];
  await fireEvent.press(one('torn'));
  await fireEvent.press(one('over 100 %'));
  await fireEvent.press(one('worn'));
  await fireEvent.press(screen.getByTestId('log-it'));
  const { seen } = logged.pop()!;
  expect(seen).toHaveLength(job.setups[0].operations.length);
  expect(seen!.find((s) => s.operation === first.id)).toEqual({
    ...{ operation: first.id, sound: 'quiet', finish: 'torn', load: 1.1, edge: 'worn' },
  });
});

test('a cut of an entry goes to the recipes with its evidence, good or bad, and is taken back', async () => {
  const keep = jest.spyOn(api, 'keep').mockResolvedValue({ saved: true, version: 1 });
  const discard = jest.spyOn(api, 'discard').mockResolvedValue(undefined);
  const pocketing = job.setups[0].operations.find((o) => o.kind === 'pocket')!;
  await card([entry({ seen: [{ operation: pocketing.id, sound: 'screams', chatter: 803 }] })]);
  await fireEvent.press(screen.getByText('Its cuts to the recipes'));
  await fireEvent.press(screen.getByLabelText(`Keep “${pocketing.name}” with the recipes`));
  await screen.findByTestId('kept-recipe');
  const [, , recipe] = keep.mock.lastCall! as [string, number, { note: string }];
  expect(recipe.note).toBe('▲ 2 Mar 2026, release 09DCC099: chatters at 803 Hz');
  await fireEvent.press(screen.getByTestId('recipe-undo'));
  await waitFor(() => expect(discard).toHaveBeenCalled());
});

describe('sizes', () => {
  const size = (n: number, mm: number, part = n) => ({
    ...{ id: `${n}`.padStart(32, '0'), size: `${pocket.id} depth`, measured: mm, part, who: 'Lio' },
    at: `2026-03-0${n}T08:00:00Z`,
  });
  const sizes = (...all: ReturnType<typeof size>[]) =>
    show(<SizesCard view={{ ...view, sizes: all }} entries={[]} onMeasured={() => undefined} />);

  test('are measured part after part; the next part is the one that has not been', async () => {
    await sizes(size(1, 7.001));
    expect(screen.getByText(/✓ Part 1: within/)).toBeTruthy();
    await fireEvent.press(screen.getByText('Measured'));
    expect(measured).toHaveBeenLastCalledWith('r', expect.objectContaining({ part: 2, measured: 7.001 }));
    await fireEvent.press(screen.getByText('Mistyped'));
    await fireEvent.press(screen.getByText('Put it right'));
    expect(measured).toHaveBeenLastCalledWith('r', expect.objectContaining({ replaces: '1'.padStart(32, '0') }));
  });

  test('chance is left alone; what is none is corrected at the register that does it, and that is kept', async () => {
    await sizes(size(1, 7.012), size(2, 7.013));
    expect(screen.getByTestId('offset-advice')).toHaveTextContent(/\+0\.009 mm to the wear of length register 4/);
    await fireEvent.press(screen.getByText('It is entered'));
    expect(corrected).toHaveBeenLastCalledWith('r', expect.objectContaining({ by: expect.closeTo(0.009, 9) }));
  });

  test('at its limit it is measured again first; after a correction it begins anew', async () => {
    await sizes(size(1, 7.019));
    expect(screen.getByTestId('offset-advice')).toHaveTextContent(/Measure the same part again: it is at its limit/);
  });

  test('are drawn part after part, limits told', async () => {
    await sizes(size(1, 7.001), size(2, 6.999), size(3, 7.002));
    await fireEvent.press(screen.getByText('Part after part'));
    expect(screen.getByLabelText(/3 parts from 6.999 mm to 7.002 mm, limits 6.98 mm and 7.02 mm/)).toBeTruthy();
  });
});
