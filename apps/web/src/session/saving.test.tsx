import { act, renderHook } from '@testing-library/react-native';
import { Job, JobRow, newJob } from '@tidypath/core';
import { ApiError, api } from '../api/client';
import { useSaving } from './useSaving';

jest.mock('../api/client', () => {
  const actual = jest.requireActual('../api/client');
  return { ...actual, api: { save: jest.fn() } };
});
const save = api.save as jest.Mock;

const job = newJob('A', 'mm');
const row: JobRow = { id: 'x', version: 3, updatedAt: '', job };
const later = async (ms: number) => act(async () => void (await jest.advanceTimersByTimeAsync(ms)));

beforeEach(() => {
  jest.useFakeTimers();
  save.mockReset();
});
afterEach(() => jest.useRealTimers());

const start = () => renderHook(({ now }: { now: Job }) => useSaving('x', row, now), { initialProps: { now: job } });

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

test('a save that came too late is told with the other version; going on with mine saves over it', async () => {
  const theirs: JobRow = { ...row, version: 9, job: { ...job, name: 'Theirs' } };
  save
    .mockResolvedValueOnce({ saved: false, current: theirs, keptId: 'k' })
    .mockResolvedValue({ saved: true, version: 10 });
  const { result, rerender } = start();
  const mine = { ...job, name: 'Mine' };
  rerender({ now: mine });
  await later(1000);
  expect(result.current.state).toBe('refused');
  expect(result.current.conflict).toBe(theirs);
  act(() => result.current.settle(theirs));
  await later(2000);
  expect(save.mock.lastCall).toEqual(['x', 9, mine]);
});

test('a job the server cannot take is told, and not sent over and over', async () => {
  save.mockRejectedValue(new ApiError('bad', 422));
  const { result, rerender } = start();
  rerender({ now: { ...job, name: 'B' } });
  await later(20_000);
  expect(result.current.state).toBe('invalid');
  expect(save).toHaveBeenCalledTimes(1);
});
