import { newJob } from '@tidypath/core';
import { draftOf, dropDraft, keepDraft } from './drafts';

const mockKept = new Map<string, unknown>();
jest.mock('idb-keyval', () => ({
  createStore: () => ({}),
  get: async (key: string) => mockKept.get(key),
  set: async (key: string, value: unknown) => void mockKept.set(key, value),
  del: async (key: string) => void mockKept.delete(key),
}));
const page = new Map<string, string>();
let room = Infinity;
beforeEach(() => {
  room = Infinity;
  page.clear();
  mockKept.clear();
  globalThis.localStorage = {
    getItem: (k: string) => page.get(k) ?? null,
    removeItem: (k: string) => void page.delete(k),
    setItem: (k: string, v: string) => {
      if (v.length > room) throw new Error('full');
      page.set(k, v);
    },
  } as unknown as Storage;
});
const draft = (name: string) => ({ version: 3, job: { ...newJob('A', 'mm'), name } });

test('a draft too large to be written at once is not hidden by an older one that was not', async () => {
  await keepDraft('x', draft('older'));
  room = 10;
  expect(await keepDraft('x', draft('newer'))).toBe(true);
  expect((await draftOf('x'))?.job.name).toBe('newer');
  await dropDraft('x');
  expect(await draftOf('x')).toBeUndefined();
});

test('what a draft started from is kept beside it, and belongs to that version alone', async () => {
  const base = newJob('Base', 'mm');
  await keepDraft('y', { ...draft('first'), base });
  await keepDraft('y', { ...draft('second'), base });
  expect(await draftOf('y')).toMatchObject({ ...draft('second'), base });
  await keepDraft('y', { ...draft('third'), version: 4 });
  expect(await draftOf('y')).toMatchObject({ ...draft('third'), version: 4, base: undefined });
  await dropDraft('y');
  expect(mockKept.size).toBe(0);
});
