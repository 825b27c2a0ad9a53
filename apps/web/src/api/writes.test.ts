import { Tool, TOOLS } from '@tidypath/core';
import { api } from './client';
import { asItWillBe } from './useShelf';
import { Write, bring, bringAll, bringWaiting, dropWrite, holdItem, keepWrite, onWaiting, waiting } from './writes';

jest.mock('./client', () => ({
  api: Object.fromEntries(
    ['keep', 'keepAll', 'discard', 'bringBack', 'remove', 'restore', 'archive', 'tick'].map((k) => [k, jest.fn()]),
  ),
}));
const server = jest.mocked(api);
const error = (status: number, message = '') => Object.assign(new Error(message), { status });
const device = { room: true };

beforeEach(() => {
  jest.resetAllMocks();
  device.room = true;
  const held: Record<string, string> = {};
  const methods = {
    getItem: (k: string) => held[k] ?? null,
    setItem: (k: string, v: string) => {
      if (!device.room) throw new Error('full');
      held[k] = v;
    },
    removeItem: (k: string) => void delete held[k],
  };
  for (const [name, value] of Object.entries(methods)) Object.defineProperty(held, name, { value });
  Object.assign(globalThis, { localStorage: held });
  // What was read of another test's device is forgotten.
  dropWrite(deleted);
});

const tool = (name: string): Tool => ({ ...TOOLS[0], id: 't1', name });
const item = (name: string, version: number): Write => ({ what: 'item', shelf: 'tools', version, item: tool(name) });
const deleted: Write = { what: 'shelf', shelf: 'tools', id: 't2', name: 'Two', there: false };
const inBin = (there: boolean): Write => ({ what: 'bin', id: 'j', name: 'Job', there });
const isDown = () => Object.values(server).forEach((f) => (f as jest.Mock).mockRejectedValue(error(0)));
const names = () => waiting().map(({ write }) => `${write.what} ${write.what === 'item' ? write.item.name : write.id}`);

test('what the server hears does not wait; what it does not answer does, until it does', async () => {
  server.keep.mockResolvedValue({ saved: true, version: 4 });
  expect(await bring(item('Sharp', 3))).toEqual({ saved: true, version: 4, id: 't1' });
  expect(waiting()).toEqual([]);
  isDown();
  expect(await bring(item('Sharper', 4))).toBe('waits');
  expect(await bring(deleted)).toBe('waits');
  expect(await bringWaiting()).toBe(false);
  expect(names()).toEqual(['item Sharper', 'shelf t2']);
  server.keep.mockResolvedValue({ saved: true, version: 5 });
  server.discard.mockResolvedValue();
  expect(await bringWaiting()).toBe(true);
  expect(server.keep.mock.lastCall).toEqual(['tools', 4, tool('Sharper')]);
  expect(waiting()).toEqual([]);
});

test('the later write takes the place of the earlier, sent or not', async () => {
  isDown();
  await bring(item('A', 1));
  await bring(item('B', 1));
  await bring(inBin(false));
  await bring(inBin(true));
  expect(names()).toEqual(['item B', 'bin j']);
  server.restore.mockResolvedValue();
  await bring(inBin(true));
  expect(names()).toEqual(['item B']);
});

test('what can be neither sent nor kept is told, as is what the server refuses', async () => {
  isDown();
  device.room = false;
  await expect(bring(item('Lost', 1))).rejects.toMatchObject({ status: 0 });
  device.room = true;
  server.keep.mockRejectedValue(error(422));
  await expect(bring(item('Bad', 1))).rejects.toMatchObject({ status: 422 });
  expect(waiting()).toEqual([]);
});

test('what the server says no to waits in its place with the reason and holds nobody up', async () => {
  keepWrite(item('Late', 2), { at: 1 });
  keepWrite({ what: 'tick', id: 'r', name: 'Job', item: 'guard', isSo: true }, { at: 2 });
  keepWrite(deleted, { at: 3 });
  keepWrite(inBin(false), { at: 4 });
  server.keep.mockResolvedValue({ saved: false, current: null });
  server.tick.mockRejectedValue(error(409, 'There is no such release'));
  server.discard.mockRejectedValue(error(404));
  expect(await bringWaiting()).toBe(true);
  expect(waiting().map(({ at, told }) => [at, told])).toEqual([
    [1, 'changed elsewhere too'],
    [2, 'There is no such release'],
  ]);
});

test('something new whose id was given away meanwhile stands beside the other', async () => {
  server.keep.mockResolvedValueOnce({ saved: false, current: null }).mockResolvedValueOnce({ saved: true, version: 1 });
  const said = await bring(item('Mine', 0));
  expect(said).toMatchObject({ saved: true, id: expect.stringMatching(/^t1-[0-9a-f]{6}$/) as string });
  expect(server.keep.mock.lastCall![2]).toMatchObject({ name: 'Mine', id: (said as { id: string }).id });
  server.keep.mockResolvedValue({ saved: false, current: null });
  expect(await bring(item('Changed', 3))).toMatchObject({ saved: false, id: 't1' });
});

test('what is open here is left to its page; what was changed while it was sent waits on', async () => {
  keepWrite(item('Open', 1));
  const leave = holdItem('tools', 't1');
  await bringWaiting();
  expect(server.keep).not.toHaveBeenCalled();
  leave();
  server.keep.mockImplementation(() => {
    keepWrite(item('Open, then more', 1), { at: 9e15 });
    return Promise.resolve({ saved: true, version: 2 });
  });
  await bringWaiting();
  expect(names()).toEqual(['item Open, then more']);
});

test('many at once wait each for itself', async () => {
  isDown();
  const entries = ['a', 'b'].map((id) => ({ version: 0, item: { ...TOOLS[0], id } }));
  expect(await bringAll('tools', entries)).toEqual({ saved: true, late: [] });
  expect(waiting()).toHaveLength(2);
});

test('who listens hears of each change, and lists show what will be', () => {
  const told = jest.fn();
  const stop = onWaiting(told);
  keepWrite(item('As it will be', 3), { at: 0 });
  keepWrite(deleted);
  keepWrite({ ...item('New', 0), item: { ...TOOLS[0], id: 't9' } } as Write);
  keepWrite({ ...item('Refused', 0), item: { ...TOOLS[0], id: 't8' } } as Write, { told: 'no' });
  expect(told).toHaveBeenCalledTimes(4);
  stop();
  const shelf = ['t1', 't2', 't3'].map((id) => ({ version: 3, updatedAt: '', item: { ...TOOLS[0], id } }));
  const found = asItWillBe('tools', shelf, waiting());
  expect(found.map((k) => k.item.id)).toEqual(['t1', 't3', 't9']);
  expect(found[0].item.name).toBe('As it will be');
  expect(asItWillBe('holders', [], waiting())).toEqual([]);
});
