import { newJob } from '@tidypath/core';
import { ApiError, api } from './client';

const answer = (status: number, body?: unknown) =>
  Promise.resolve({
    ok: status >= 200 && status < 300,
    status,
    headers: new Headers({ 'x-total-count': '7' }),
    json: () => (body === undefined ? Promise.reject(new Error('no body')) : Promise.resolve(body)),
  } as Response);
const fetching = jest.fn();
beforeEach(() => {
  fetching.mockReset();
  globalThis.fetch = fetching;
});
const job = newJob('A', 'mm');

test('asks under /api, sends JSON only where there is something to send', async () => {
  fetching.mockReturnValue(answer(200, []));
  await expect(api.jobs({ words: 'a b', page: 2, tag: '' })).resolves.toEqual({ jobs: [], total: 7 });
  const headers = { 'x-device': expect.stringMatching(/^[0-9a-f]{32}$/) };
  expect(fetching).toHaveBeenCalledWith('/api/jobs?words=a+b&page=2', { method: 'GET', headers });
  fetching.mockReturnValue(answer(200, { saved: true, version: 2 }));
  await api.save('x', 1, job);
  const [path, init] = fetching.mock.lastCall!;
  expect([path, init.method, init.headers['content-type'], JSON.parse(init.body).version]).toEqual([
    '/api/jobs/x',
    'PUT',
    'application/json',
    1,
  ]);
});

test('an answer without content is taken as it is', async () => {
  fetching.mockReturnValue(answer(204));
  await expect(api.remove('x')).resolves.toBeUndefined();
  await expect(api.restore('x')).resolves.toBeUndefined();
});

test('a save that came too late is an answer, not an error', async () => {
  fetching.mockReturnValue(answer(409, { saved: false, keptId: 'k' }));
  await expect(api.save('x', 1, job)).resolves.toEqual({ saved: false, keptId: 'k' });
});

test.each([
  [404, { error: 'There is no such job' }, 'There is no such job', 0],
  [422, { error: 'bad', findings: [{ code: 'x' }] }, 'bad', 1],
  [500, undefined, 'The server refused', 0],
])('an answer of %d says why', async (status, body, message, findings) => {
  fetching.mockReturnValue(answer(status, body));
  const error = (await api.job('x').catch((e: unknown) => e)) as ApiError;
  expect(error).toBeInstanceOf(ApiError);
  expect([error.status, error.message, error.findings.length]).toEqual([status, message, findings]);
});

test('a server that cannot be reached is told as such', async () => {
  fetching.mockRejectedValue(new TypeError('network'));
  const error = (await api.save('x', 0, job).catch((e: unknown) => e)) as ApiError;
  expect([error.status, error.message]).toEqual([0, 'The server cannot be reached']);
  await expect(api.duplicate('x')).rejects.toThrow('The server cannot be reached');
});

test('an answer that broke off is none: no list is taken for empty, no save for made', async () => {
  fetching.mockReturnValue(answer(200));
  for (const asked of [api.jobs({}), api.jobsUsing('tools', 't1'), api.save('x', 1, job)]) {
    const error = (await asked.catch((e: unknown) => e)) as ApiError;
    expect([error.status, error.message]).toEqual([0, 'The server went away while it answered']);
  }
});
