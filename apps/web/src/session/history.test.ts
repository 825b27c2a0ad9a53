import { Job, newJob } from '@tidypath/core';
import { begin, change, redo, undo } from './history';

const named = (name: string): Job => newJob(name, 'mm');

test('undo and redo walk the same steps', () => {
  const [a, b, c] = ['a', 'b', 'c'].map(named);
  let h = change(change(begin(a), b, '', 0), c, '', 1);
  h = undo(undo(h));
  expect(h.present).toBe(a);
  expect(undo(h)).toBe(h);
  h = redo(redo(h));
  expect(h.present).toBe(c);
  expect(redo(h)).toBe(h);
});

test('typing one value counts as one step; a pause or another value starts a new one', () => {
  const [a, b, c, d] = ['a', 'b', 'c', 'd'].map(named);
  let h = change(change(begin(a), b, 'feed', 0), c, 'feed', 300);
  expect(undo(h).present).toBe(a);
  h = change(h, d, 'feed', 5000);
  expect(undo(h).present).toBe(c);
  expect(undo(change(h, a, 'rpm', 5001)).present).toBe(d);
});

test('a new change forgets what was undone; the same job is no change', () => {
  const [a, b, c] = ['a', 'b', 'c'].map(named);
  const h = undo(change(begin(a), b, '', 0));
  expect(change(h, c, '', 1).future).toEqual([]);
  expect(change(h, a, '', 1)).toBe(h);
});
