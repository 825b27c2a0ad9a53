import { act } from '@testing-library/react-native';
import type { Made, TaskStep } from '@tidypath/core';
import type { Result } from '../api/client';
import { choose, chosen } from './choice';
import { Elsewhere } from './elsewhere';
import type { Answer, Request } from './messages';

type Compute = Extract<Request, { type: 'compute' }>;
type Make = (hear: (step: TaskStep) => void, signal: AbortSignal) => Promise<void>;

const mockServer = {
  results: new Map<string, Result>(),
  brought: [] as string[],
  computes: true,
  make: (() => Promise.resolve()) as Make,
};
jest.mock('../api/client', () => ({
  api: {
    result: (key: string) => Promise.resolve(mockServer.results.get(key)),
    bringResult: (key: string) => Promise.resolve(mockServer.brought.push(key)),
    computes: () => Promise.resolve(mockServer.computes),
    make: (...[, , , hear, signal]: [unknown, unknown, unknown, (step: TaskStep) => void, AbortSignal]) =>
      mockServer.make(hear, signal),
  },
}));
jest.mock('./choice', () => {
  const held: { choice?: unknown } = {};
  return { chosen: { now: () => held.choice }, choose: (next: unknown) => (held.choice = next) };
});

const made = { plan: { programs: [{}] }, proof: {} } as unknown as Made;
const result = (maker: 'server' | 'page', seconds = 0): Result => ({ made, maker, seconds });

let taken: [number, string, string][];
let told: Answer[];
let worker: Compute[];
let elsewhere: Elsewhere;
const settle = () => act(async () => void (await jest.advanceTimersByTimeAsync(0)));
const pass = (ms: number) => act(async () => void (await jest.advanceTimersByTimeAsync(ms)));

beforeEach(() => {
  jest.useFakeTimers();
  Object.assign(mockServer, { results: new Map(), brought: [], computes: true, make: () => Promise.resolve() });
  choose({ hand: 'device', isChosen: false });
  [taken, told, worker] = [[], [], []];
  elsewhere = new Elsewhere({
    take: (seq, key, _, maker) => taken.push([seq, key, maker]),
    tell: (answer) => told.push(answer),
    make: (request) => worker.push(request),
  });
});
afterEach(() => jest.useRealTimers());

/** A question under way whose answer is not kept here. */
async function ask(seq: number, more: Partial<Compute> = {}) {
  elsewhere.begin({ type: 'compute', seq, job: {} as never, setupId: 's1', by: 'device', ...more });
  void elsewhere.keyed(seq, `k${seq}`);
  await settle();
}
const proves = (seq: number) => {
  elsewhere.heard({ type: 'planned', seq, plan: made.plan });
  elsewhere.heard({ type: 'proved', seq, proof: made.proof! });
};

test('what others have made is taken, at once or when it is told of, and not once it is made here', async () => {
  mockServer.results.set('k1', result('page'));
  await ask(1);
  expect(taken).toEqual([[1, 'k1', 'page']]);
  await ask(2);
  mockServer.results.set('k2', result('server'));
  elsewhere.made('k1');
  elsewhere.made('k2');
  await settle();
  expect(taken.slice(1)).toEqual([[2, 'k2', 'server']]);
  await ask(3);
  proves(3);
  mockServer.results.set('k3', result('page'));
  elsewhere.made('k3');
  await settle();
  expect(taken).toHaveLength(2);
});

test('an answer to what is not asked any more is left', async () => {
  mockServer.results.set('k1', result('page'));
  elsewhere.begin({ type: 'compute', seq: 1, job: {} as never, setupId: 's1', by: 'device' });
  void elsewhere.keyed(1, 'k1');
  await ask(2);
  expect(taken).toEqual([]);
});

test('what stood for a while after it was made here is brought to the others, and nothing that came from them', async () => {
  await ask(1);
  proves(1);
  await pass(1000);
  await ask(2);
  proves(2);
  await pass(60_000);
  expect(mockServer.brought).toEqual(['k2']);
  // Its proof was kept here, and came from elsewhere then.
  await ask(3);
  elsewhere.heard({ type: 'planned', seq: 3, plan: made.plan });
  elsewhere.heard({ type: 'proved', seq: 3, proof: made.proof!, maker: 'page' });
  await pass(60_000);
  expect(mockServer.brought).toEqual(['k2']);
});

test('the server makes it and says how far it is; where it fails this device does', async () => {
  mockServer.make = async (hear) => {
    hear({ waiting: 2 });
    hear({ proving: 0.5 });
    mockServer.results.set('k1', result('server', 2));
  };
  await ask(1, { by: 'server' });
  expect(told).toEqual([
    { type: 'waiting', seq: 1, waiting: 2 },
    { type: 'progress', seq: 1, share: 0.5 },
  ]);
  expect(taken).toEqual([[1, 'k1', 'server']]);
  mockServer.make = () => Promise.reject(new Error('it went away'));
  await ask(2, { by: 'server' });
  expect(worker.map((r) => [r.seq, r.by])).toEqual([[2, 'device alone']]);
  // The worker asks again; nobody else is.
  void elsewhere.keyed(2, 'k2');
  await settle();
  expect([worker.length, taken.length]).toEqual([1, 1]);
});

describe('the first time both make it', () => {
  beforeEach(() => {
    choose(undefined as never);
    mockServer.make = async () => void mockServer.results.set('k1', result('server', 2));
  });

  test('a device that needs over three times as long leaves it to the server', async () => {
    await ask(1);
    await pass(5900);
    expect([taken, chosen.now()]).toEqual([[], undefined]);
    await pass(200);
    expect(taken).toEqual([[1, 'k1', 'server']]);
    expect(chosen.now()).toEqual({ hand: 'server', isChosen: false });
  });

  test('a faster one keeps it', async () => {
    await ask(1);
    await pass(5900);
    proves(1);
    await pass(200);
    expect(taken).toEqual([]);
    expect(chosen.now()).toEqual({ hand: 'device', isChosen: false });
  });

  test('what takes a moment, or a server that does not compute, tells nothing', async () => {
    mockServer.make = async () => void mockServer.results.set('k1', result('server', 0.5));
    await ask(1);
    await pass(60_000);
    mockServer.make = async () => void mockServer.results.set('k2', result('server', 2));
    mockServer.computes = false;
    await ask(2);
    await pass(60_000);
    expect([taken, chosen.now()]).toEqual([[], undefined]);
  });
});
