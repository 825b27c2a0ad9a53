import { act, renderHook } from '@testing-library/react-native';
import { Job, JobRow, ShopEvent, newJob } from '@tidypath/core';
import { ApiError, api } from '../api/client';
import { useSaving } from './useSaving';

jest.mock('../api/client', () => {
  const actual = jest.requireActual('../api/client');
  return { ...actual, api: { save: jest.fn(), job: jest.fn() } };
});
const save = api.save as jest.Mock;
const ask = api.job as jest.Mock;

const mockNews = { tell: (_: ShopEvent) => {}, before: 0 };
jest.mock('../api/events', () => ({
  versionTold: () => mockNews.before,
  onEvent: (listener: (event: ShopEvent) => void) => {
    mockNews.tell = listener;
    return () => undefined;
  },
}));

const job = newJob('A', 'mm');
const row: JobRow = { id: 'x', version: 3, updatedAt: '', job };
const later = async (ms: number) => act(async () => void (await jest.advanceTimersByTimeAsync(ms)));

beforeEach(() => {
  jest.useFakeTimers();
  save.mockReset();
  ask.mockReset();
});
afterEach(() => jest.useRealTimers());

/** The hook over a job that is edited by rendering it anew; what it takes in from elsewhere is `taken`. */
function start(isBase = true) {
  const taken: Job[] = [];
  const edit = (next: Job) => void taken.push(next);
  const at = { job, version: 3, isBase };
  const hook = renderHook(({ now }: { now: Job }) => useSaving('x', at, now, false, edit), {
    initialProps: { now: job },
  });
  return { ...hook, taken };
}

test('a change is saved by itself a moment later, with the version it started from', async () => {
  save.mockResolvedValue({ saved: true, version: 4 });
  const { result, rerender } = start();
  expect(result.current.state).toBe('saved');
  const next = { ...job, name: 'B' };
  rerender({ now: next });
  expect(result.current.state).toBe('waiting');
  await later(1000);
  expect(save).toHaveBeenCalledWith('x', 3, next);
  expect(result.current.state).toBe('saved');
  rerender({ now: { ...job, name: 'C' } });
  await later(1000);
  expect(save.mock.lastCall![1]).toBe(4);
});

test('while the server cannot be reached it says so and tries again', async () => {
  save.mockRejectedValueOnce(new ApiError('gone', 0)).mockResolvedValue({ saved: true, version: 4 });
  const { result, rerender } = start();
  rerender({ now: { ...job, name: 'B' } });
  await later(1000);
  expect(result.current.state).toBe('offline');
  await later(6000);
  expect(save).toHaveBeenCalledTimes(2);
  expect(result.current.state).toBe('saved');
});

const theirs = (changed: Partial<Job>): JobRow => ({ ...row, version: 9, job: { ...job, ...changed } });

test('a save that came too late is put together with the other where they touched different settings', async () => {
  save
    .mockResolvedValueOnce({ saved: false, current: theirs({ boldness: 0.9 }), keptId: 'k' })
    .mockResolvedValue({ saved: true, version: 10 });
  const { result, rerender, taken } = start();
  rerender({ now: { ...job, name: 'Mine' } });
  await later(1000);
  expect(result.current.conflict).toBeUndefined();
  expect(taken).toEqual([{ ...job, name: 'Mine', boldness: 0.9 }]);
  rerender({ now: taken[0] });
  await later(2000);
  expect(save.mock.lastCall).toEqual(['x', 9, taken[0]]);
  expect(result.current.state).toBe('saved');
});

test('where both touched the same one is asked; what is typed meanwhile stays, and going on with mine saves over it', async () => {
  const current = theirs({ name: 'Theirs', boldness: 0.9 });
  save.mockResolvedValueOnce({ saved: false, current, keptId: 'k' }).mockResolvedValue({ saved: true, version: 10 });
  const { result, rerender, taken } = start();
  rerender({ now: { ...job, name: 'Mine' } });
  await later(1000);
  expect(result.current.state).toBe('refused');
  expect(result.current.conflict).toEqual({ current, about: ['name Mine instead of Theirs'] });
  rerender({ now: { ...job, name: 'Mine still' } });
  await later(5000);
  expect(save).toHaveBeenCalledTimes(1);
  act(() => result.current.settle(current, 'mine'));
  expect(taken).toEqual([{ ...job, name: 'Mine still', boldness: 0.9 }]);
  rerender({ now: taken[0] });
  await later(2000);
  expect(save.mock.lastCall).toEqual(['x', 9, taken[0]]);
});

test('a draft of an older version is never put over what was saved since without asking', async () => {
  const current = theirs({ boldness: 0.9 });
  save.mockResolvedValueOnce({ saved: false, current, keptId: 'k' });
  const { result, rerender } = start(false);
  rerender({ now: { ...job, name: 'Mine' } });
  await later(1000);
  expect(result.current.conflict?.about).toHaveLength(2);
});

test('what was saved elsewhere appears; its own saves, and those it knows, are not asked for', async () => {
  const { result, rerender, taken } = start();
  const tell = async (event: ShopEvent) => {
    act(() => mockNews.tell(event));
    await later(100);
  };
  await tell({ kind: 'job', id: 'x', version: 3 });
  await tell({ kind: 'job', id: 'another', version: 9 });
  expect(ask).not.toHaveBeenCalled();
  const current = theirs({ boldness: 0.9 });
  ask.mockResolvedValue(current);
  await tell({ kind: 'job', id: 'x', version: 9 });
  expect(taken).toEqual([current.job]);
  rerender({ now: taken[0] });
  await later(2000);
  expect([result.current.state, save.mock.calls.length, ask.mock.calls.length]).toEqual(['saved', 0, 1]);

  save.mockImplementation(() => new Promise((done) => setTimeout(() => done({ saved: true, version: 10 }), 500)));
  rerender({ now: { ...current.job, note: 'mine' } });
  await later(700);
  await tell({ kind: 'job', id: 'x', version: 10 });
  await later(2000);
  expect([result.current.state, ask.mock.calls.length]).toEqual(['saved', 1]);
  await tell({ kind: 'missed' });
  expect(ask).toHaveBeenCalledTimes(2);
  expect(taken).toHaveLength(1);
});

test('a job the server cannot take is told, and not sent over and over', async () => {
  save.mockRejectedValue(new ApiError('bad', 422));
  const { result, rerender } = start();
  rerender({ now: { ...job, name: 'B' } });
  await later(20_000);
  expect(result.current.state).toBe('invalid');
  expect(save).toHaveBeenCalledTimes(1);
});

test('what was told of and could not be had is looked at once the server answers again', async () => {
  const current = theirs({ boldness: 0.9 });
  ask.mockRejectedValueOnce(new ApiError('gone', 0)).mockResolvedValue(current);
  const online: (() => void)[] = [];
  const hear = jest.spyOn(window, 'addEventListener').mockImplementation(((type: string, told: () => void) => {
    if (type === 'online') online.push(told);
  }) as never);
  const { taken } = start();
  act(() => mockNews.tell({ kind: 'job', id: 'x', version: 9 }));
  await later(5000);
  expect([ask.mock.calls.length, taken.length]).toEqual([1, 0]);
  act(() => online.forEach((told) => told()));
  await later(100);
  expect(taken).toEqual([current.job]);
  hear.mockRestore();
});

test('what was told while the job was still opening is looked at', async () => {
  const current = theirs({ boldness: 0.9 });
  ask.mockResolvedValue(current);
  mockNews.before = 9;
  const { taken } = start();
  await later(100);
  expect(taken).toEqual([current.job]);
  mockNews.before = 0;
});
