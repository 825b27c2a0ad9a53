import { Job, atHand, newJob, sha256Of } from '@tidypath/core';
import { ApiError, api } from './client';
import { bringFiles, keepFile, keyOf, sendFiles } from './files';

jest.mock('./client', () => ({
  ...jest.requireActual('./client'),
  api: { hasFile: jest.fn(), sendFile: jest.fn(), file: jest.fn() },
}));
const fake = jest.mocked(api);
beforeEach(() => jest.resetAllMocks());

const bytesOf = (text: string) => new TextEncoder().encode(text);
const naming = (sha256: string): Job => {
  const job = newJob('Housing', 'mm');
  const [setup] = job.setups;
  return { ...job, setups: [{ ...setup, stock: { ...setup.stock, casting: { name: 'a.stl', sha256 } } }] };
};

test('where the device keeps nothing a file is at hand all the same, and is sent once', async () => {
  expect(globalThis.indexedDB).toBeUndefined();
  const bytes = bytesOf('a mesh');
  const { name, sha256 } = await keepFile('x'.repeat(200), bytes);
  expect([name.length, atHand(sha256)]).toEqual([120, bytes]);
  fake.hasFile.mockResolvedValue(false);
  await sendFiles(naming(sha256));
  await sendFiles(naming(sha256));
  expect(fake.sendFile.mock.calls).toEqual([[sha256, bytes]]);
});

test('one the server refuses is tried again, one it has is not sent', async () => {
  const { sha256 } = await keepFile('b.stl', bytesOf('another'));
  fake.hasFile.mockResolvedValue(false);
  fake.sendFile.mockRejectedValueOnce(new ApiError('the disk of the server is full; nothing was saved', 507));
  await expect(sendFiles(naming(sha256))).rejects.toThrow('full');
  await sendFiles(naming(sha256));
  expect(fake.sendFile).toHaveBeenCalledTimes(2);
  fake.hasFile.mockResolvedValue(true);
  await sendFiles(naming((await keepFile('c.stl', bytesOf('a third'))).sha256));
  expect(fake.sendFile).toHaveBeenCalledTimes(2);
});

test('what comes from the server is looked at: other bytes are not taken for it', async () => {
  const bytes = bytesOf('at the server');
  const job = naming(sha256Of(bytes));
  fake.file.mockResolvedValueOnce(bytesOf('damaged on the way'));
  expect(await bringFiles(job)).toEqual([job.setups[0].stock.casting]);
  fake.file.mockRejectedValueOnce(new ApiError('There is no such file', 404));
  expect(await bringFiles(job)).toHaveLength(1);
  fake.file.mockRejectedValueOnce(new ApiError('The server cannot be reached', 0));
  await expect(bringFiles(job)).rejects.toThrow('reached');
  fake.file.mockResolvedValueOnce(bytes);
  expect(await bringFiles(job)).toEqual([]);
});

test('a file has one key, whether the browser finds it or the page has to', async () => {
  const bytes = new Uint8Array(2_500_000).map((_, i) => i % 251);
  const trusted = globalThis.crypto;
  for (const crypto of [trusted, undefined]) {
    Object.defineProperty(globalThis, 'crypto', { value: crypto, configurable: true });
    expect(await keyOf(bytes)).toBe(sha256Of(bytes));
  }
  Object.defineProperty(globalThis, 'crypto', { value: trusted, configurable: true });
});
