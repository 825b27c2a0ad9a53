import { fireEvent, screen } from '@testing-library/react-native';
import type { KeptEntry, LogEntry } from '@tidypath/core';
import { api } from '../../api/client';
import { show } from '../../../testing/show';
import { LogCard } from './LogCard';

const logged: LogEntry[] = [];
let kept: KeptEntry[] = [];
jest.spyOn(api, 'logOf').mockImplementation(() => Promise.resolve(kept));
jest.spyOn(api, 'log').mockImplementation((_, one) => Promise.resolve(void logged.push(one)));

const entry = (more: Partial<KeptEntry>): KeptEntry => ({
  ...{ id: 'a'.repeat(32), kind: 'production', parts: 4, scrapped: 1, remark: '', releaseId: 'r', who: 'Lio' },
  ...{ at: '2026-03-02T08:00:00Z', ...more },
});
const card = () => show(<LogCard release="r" name="Plate" minutes={9.7} />);
beforeEach(() => {
  logged.splice(0);
  kept = [];
});

test('one good part is one tap; a time only where somebody looked, from what was computed', async () => {
  await card();
  await fireEvent.press(screen.getByTestId('log-it'));
  expect(logged.pop()).toMatchObject({ kind: 'production', parts: 1, scrapped: 0, remark: '' });
  await fireEvent.press(screen.getByLabelText('Its time was looked at'));
  await fireEvent.press(screen.getByTestId('log-it'));
  expect(logged.pop()!.seconds).toBeCloseTo(582, 6);
});

test('what is not so is put right by another entry, and only that is told then', async () => {
  kept = [entry({}), entry({ id: 'b'.repeat(32), parts: 5, scrapped: 0, replaces: 'a'.repeat(32) })];
  await card();
  expect(await screen.findByText(/production: 5 parts/)).toBeTruthy();
  expect(screen.queryByText(/production: 4 parts/)).toBeNull();
  await fireEvent.press(screen.getByText('Not so'));
  await fireEvent.press(screen.getByTestId('log-it'));
  expect(logged.pop()).toMatchObject({ parts: 5, replaces: 'b'.repeat(32) });
});

test('scrap has a shape; runs of the simulated machine fold away', async () => {
  kept = [entry({ seconds: 600 }), entry({ id: 'c'.repeat(32), kind: 'simulated', parts: 1, scrapped: 0 })];
  await card();
  expect(await screen.findByText(/4 parts, ▲ 1 scrapped, 10:00 each/)).toBeTruthy();
  expect(screen.getByText('1 run on the simulated machine')).toBeTruthy();
});
