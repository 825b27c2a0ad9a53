import { KeptPlan, KeptProof, bytesOf, keepPlan, keepProof, keptPlan, keptProof } from './kept';

const mockHeld = new Map<string, unknown>();
const mockFaults: { set?: Error; get?: Error } = {};
jest.mock('idb-keyval', () => ({
  createStore: () => undefined,
  get: (key: string) => (mockFaults.get ? Promise.reject(mockFaults.get) : Promise.resolve(mockHeld.get(key))),
  set: (key: string, value: unknown) =>
    mockFaults.set ? Promise.reject(mockFaults.set) : Promise.resolve(void mockHeld.set(key, value)),
  update: (key: string, next: (old: unknown) => unknown) =>
    Promise.resolve(void mockHeld.set(key, next(mockHeld.get(key)))),
  delMany: (keys: string[]) => Promise.resolve(keys.forEach((k) => mockHeld.delete(k))),
  clear: () => Promise.resolve(mockHeld.clear()),
}));

let now = 0;
beforeEach(() => {
  mockHeld.clear();
  delete mockFaults.set;
  delete mockFaults.get;
  jest.spyOn(Date, 'now').mockImplementation(() => ++now);
});

const MEGABYTE = 1_000_000;
const proofOf = (megabytes: number) =>
  ({ view: { text: 'x'.repeat((megabytes * MEGABYTE) / 2) } }) as unknown as KeptProof;
const proofs = () => [...mockHeld.keys()].filter((k) => k.startsWith('proof '));

test('what is kept comes back as it was then, though it changes after', async () => {
  const view = { findings: [{ code: 'a' }], ends: Float32Array.from([1, 2, 3]) };
  const proof = { view } as unknown as KeptProof;
  const keeping = keepProof('k', proof);
  view.ends.fill(0);
  await keeping;
  expect([...(await keptProof('k'))!.view.ends]).toEqual([1, 2, 3]);
  expect(await keptPlan('k')).toBeUndefined();
  expect(await keptProof('other')).toBeUndefined();
});

test('it is bounded, and the least used goes first', async () => {
  for (const key of ['a', 'b', 'c', 'd']) await keepProof(key, proofOf(45));
  expect(await keptProof('a')).toBeDefined();
  await keepProof('e', proofOf(45));
  expect(proofs()).toEqual(['proof a', 'proof c', 'proof d', 'proof e']);
  await keepProof('too large', proofOf(60));
  expect(proofs()).toEqual(['proof a', 'proof c', 'proof d', 'proof e']);
});

test.each([
  ['of another key', (e: object) => ({ ...e, key: 'proof other' })],
  ['with a piece missing', (e: object) => ({ ...e, made: { findings: [] } })],
  ['with a column cut short', (e: object) => ({ ...e, made: { findings: [], ends: new Float32Array(2) } })],
  ['that is none', () => 'junk'],
  ['that is nothing', () => null],
])('an entry %s is no result', async (_, spoil) => {
  await keepProof('k', { findings: [], ends: new Float32Array(3) } as unknown as KeptProof);
  expect(await keptProof('k')).toBeDefined();
  mockHeld.set('proof k', spoil(mockHeld.get('proof k') as object));
  expect(await keptProof('k')).toBeUndefined();
});

test('one that cannot be read is no result, and where nothing can be kept nothing fails', async () => {
  await keepPlan('k', { plans: [['a', { path: { x: new Float64Array(4) } }]] } as unknown as KeptPlan);
  mockFaults.get = new Error('cannot be read');
  expect(await keptPlan('k')).toBeUndefined();
  delete mockFaults.get;
  expect(await keptPlan('k')).toBeDefined();
  mockFaults.set = new Error('full');
  await keepProof('l', proofOf(1));
  expect(mockHeld.size).toBe(0);
});

test('a result weighs what its columns and texts do', () => {
  expect(bytesOf(new Float32Array(1000))).toBe(4000);
  expect(bytesOf({ a: 'text', b: [1, 2] })).toBe(16 + 8 + 16 + 2 * (16 + 8));
});
