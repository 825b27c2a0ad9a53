import { act, renderHook } from '@testing-library/react-native';
import type { Place, ShopEvent } from '@tidypath/core';
import { enter, follow, say, useFollowed, useOthers } from './here';

const mockLine = { tell: (_: ShopEvent) => {}, said: [] as (Place | 'gone')[] };
jest.mock('../api/events', () => ({
  onEvent: (listener: (e: ShopEvent) => void) => {
    mockLine.tell = listener;
    return () => undefined;
  },
}));
jest.mock('../api/client', () => ({
  api: {
    here: (_: string, place: Place) => Promise.resolve(mockLine.said.push(place)),
    gone: () => Promise.resolve(mockLine.said.push('gone')),
  },
}));
const other = (page: string, place?: Partial<Place>) =>
  act(() => mockLine.tell({ kind: 'here', page, who: 'Mara', place: place && { job: 'j', stage: 'cut', ...place } }));
const seen = () => renderHook(() => ({ ...useOthers(), followed: useFollowed() })).result;
let leave: () => void;
beforeEach(() => {
  jest.useFakeTimers();
  mockLine.said = [];
  leave = enter('j');
});
afterEach(() => {
  act(() => leave());
  jest.useRealTimers();
});

test('who comes is told where this page is; alone nobody is told of each step', () => {
  say({ stage: 'prove' });
  jest.advanceTimersByTime(500);
  expect(mockLine.said).toEqual([{ job: 'j', stage: 'prove' }]);
  say({ second: 10 });
  jest.advanceTimersByTime(500);
  expect(mockLine.said).toHaveLength(1);
  other('a', {});
  jest.advanceTimersByTime(500);
  expect(mockLine.said.at(-1)).toEqual({ job: 'j', stage: 'prove', second: 10 });
  // Not each moment of a playing proof is told.
  for (let second = 11; second < 20; second++) say({ second });
  jest.advanceTimersByTime(500);
  expect(mockLine.said).toHaveLength(3);
  expect(mockLine.said.at(-1)).toMatchObject({ second: 19 });
});

test('others are those in the same job, until they leave, go elsewhere or fall silent', () => {
  const result = seen();
  const pages = () => result.current.others.map((o) => o.page);
  for (const page of ['a', 'b', 'c', 'd']) other(page, { stage: 'cut' });
  other('e', { job: 'another' });
  expect(pages()).toEqual(['a', 'b', 'c', 'd']);
  other('a');
  other('b', { job: 'another' });
  for (let i = 0; i < 4; i++) {
    act(() => jest.advanceTimersByTime(10_000));
    other('c', { stage: 'prove' });
  }
  expect(pages()).toEqual(['c']);
});

test('the one who is followed is where they are, and nowhere once they have left', () => {
  const result = seen();
  other('a', { stage: 'prove', second: 12 });
  expect(result.current.followed).toBeUndefined();
  act(() => follow('a'));
  other('a', { stage: 'release', second: 30 });
  expect(result.current.followed).toMatchObject({ stage: 'release', second: 30 });
  other('a');
  expect(result.current).toMatchObject({ followed: undefined, following: undefined });
});
