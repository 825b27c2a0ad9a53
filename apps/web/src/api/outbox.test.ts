import { Job, newJob } from '@tidypath/core';
import { ApiError } from './client';
import { holdJob, makeJob, sendUnsent, unsent } from './outbox';

interface Kept {
  version: number;
  job: Job;
  at: number;
}
const mockDrafts = new Map<string, Kept>();
const mockServer = new Map<string, { version: number; job: Job }>();
const mockWorld = { isDown: false, saves: [] as string[], room: true, saved: (): unknown => undefined };
const mockError = (status: number) => Object.assign(new Error('It cannot be read'), { status });
jest.mock('./drafts', () => ({
  draftIds: () => Promise.resolve([...mockDrafts.keys()]),
  draftOf: (id: string) => Promise.resolve(mockDrafts.get(id)),
  dropDraft: (id: string) => Promise.resolve(mockDrafts.delete(id)),
  keepDraft: (id: string, draft: Kept) => {
    if (mockWorld.room) mockDrafts.set(id, { ...draft, at: 0 });
    return Promise.resolve(mockWorld.room);
  },
}));
jest.mock('./files', () => ({ sendFiles: () => Promise.resolve() }));
jest.mock('./client', () => ({
  api: {
    job: async (id: string) => {
      if (mockWorld.isDown) throw mockError(0);
      if (!mockServer.has(id)) throw mockError(404);
      return mockServer.get(id);
    },
    save: async (id: string, version: number, job: Job) => {
      if (mockWorld.isDown) throw mockError(0);
      if (job.name === 'Bad') throw mockError(422);
      mockWorld.saves.push(`${job.name} over ${version}`);
      const saved = (mockServer.get(id)?.version ?? 0) === version;
      if (saved) mockServer.set(id, { version: version + 1, job });
      mockWorld.saved();
      return { saved };
    },
  },
}));
const job = (name: string): Job => ({ ...newJob('x', 'mm'), name });
const draft = (id: string, version: number, name: string, at = 0) =>
  mockDrafts.set(id, { version, job: job(name), at });

beforeEach(() => {
  mockDrafts.clear();
  mockServer.clear();
  Object.assign(mockWorld, { isDown: false, saves: [], room: true, saved: () => undefined });
});

test('a job made where the server does not answer is kept, and sent once it does', async () => {
  mockWorld.isDown = true;
  const id = await makeJob(job('Made'));
  expect(id).toMatch(/^[0-9a-f]{32}$/);
  expect(await unsent()).toEqual([{ id, name: 'Made', isNew: true }]);
  mockWorld.isDown = false;
  await sendUnsent();
  expect(mockServer.get(id)).toMatchObject({ version: 1, job: { name: 'Made' } });
  expect(await unsent()).toEqual([]);
});

test('one that can neither be sent nor kept is not made, nor one the server refuses', async () => {
  Object.assign(mockWorld, { isDown: true, room: false });
  await expect(makeJob(job('Lost'))).rejects.toMatchObject({ status: 0 } satisfies Partial<ApiError>);
  Object.assign(mockWorld, { isDown: false, room: true });
  await expect(makeJob(job('Bad'))).rejects.toMatchObject({ status: 422 });
  expect(mockDrafts.size).toBe(0);
});

test('changes are sent in order; one that is refused holds nobody up', async () => {
  for (const id of ['a', 'b', 'c']) mockServer.set(id, { version: 3, job: job('old') });
  draft('a', 3, 'A');
  draft('b', 3, 'Bad');
  draft('c', 3, 'C');
  await sendUnsent();
  expect(mockWorld.saves).toEqual(['A over 3', 'C over 3']);
  expect(await unsent()).toEqual([{ id: 'b', name: 'Bad', isNew: false, told: 'It cannot be read' }]);
});

test('what was changed elsewhere meanwhile is not sent over it; what arrived after all is no draft any more', async () => {
  mockServer.set('a', { version: 5, job: job('theirs') });
  mockServer.set('b', { version: 4, job: job('mine') });
  mockServer.set('c', { version: 2, job: job('made, then changed') });
  draft('a', 3, 'mine');
  draft('b', 3, 'mine');
  draft('c', 0, 'made');
  await sendUnsent();
  expect(mockWorld.saves).toEqual([]);
  expect([...mockDrafts.keys()]).toEqual(['a', 'c']);
});

test('what another page changed while it was sent stays', async () => {
  mockServer.set('a', { version: 1, job: job('old') });
  draft('a', 1, 'A', 1);
  mockWorld.saved = () => draft('a', 1, 'A, then more', 2);
  await sendUnsent();
  expect(mockDrafts.get('a')?.job.name).toBe('A, then more');
});

test('what is open here, or was changed a moment ago, is left to its page', async () => {
  for (const id of ['open', 'young']) mockServer.set(id, { version: 1, job: job('old') });
  const leave = holdJob('open');
  draft('open', 1, 'Open');
  draft('young', 1, 'Young', Date.now() - 4000);
  await sendUnsent();
  expect(mockWorld.saves).toEqual([]);
  leave();
  draft('young', 1, 'Young', Date.now() - 6000);
  await sendUnsent();
  expect(mockWorld.saves).toEqual(['Open over 1', 'Young over 1']);
});
