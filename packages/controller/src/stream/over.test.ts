import { prove, zeroOf } from '@tidypath/core/testing/jobs';
import { loaded, machineWith, pass, pocketAndWall } from '../../testing/work';
import type { StreamRow } from '../control/events';
import { runThrough } from '../control/run';
import { layOver } from './over';

const proof = prove(pocketAndWall, 0.5);
const of = loaded(pocketAndWall, {}, proof.text);
const zero = zeroOf(pocketAndWall);
const whole = runThrough(of).stream;

test('a run lies on its own program: all of it is found, and its load is what the spindle really felt', () => {
  const { measured, predicted, elsewhere, seconds, computed } = layOver(whole, proof.samples, zero);
  expect(elsewhere).toBeLessThan(0.5);
  const both = measured.flatMap((m, i) => (m > 0.05 && predicted[i] > 0.05 ? [m / predicted[i]] : []));
  expect(both.length).toBeGreaterThan(60);
  const middle = both.sort((a, b) => a - b)[both.length >> 1];
  // What is hidden of material and edge.
  expect(middle).toBeGreaterThan(0.85);
  expect(middle).toBeLessThan(1.6);
  expect(Math.abs(seconds / computed - 1)).toBeLessThan(0.3);
});

test('what was turned down meanwhile lies there all the same, and its stretch is marked', () => {
  const machine = machineWith(of);
  machine.start();
  const rows = pass(machine, 60);
  machine.override('feed', 30);
  rows.push(...pass(machine, 60));
  const full = layOver(whole, proof.samples, zero);
  const slow = layOver(rows, proof.samples, zero);
  const at = slow.measured.findLastIndex((m) => m > 0);
  expect(slow.seconds).toBeGreaterThan(slow.computed);
  const most = ({ measured }: typeof slow) => Math.max(...measured.slice(at - 8, at).filter((m) => m > 0));
  expect(most(slow)).toBeLessThan(0.8 * most(full));
  expect(slow.measured.slice(at + 2).every(Number.isNaN)).toBe(true);
});

test('a load that is not said is marked where it is, the largest first', () => {
  const worse = whole.map((r, i): StreamRow => (i > 200 && i < 230 ? { ...r, load: r.load + 60 } : r));
  const { differences } = layOver(worse, proof.samples, zero);
  const [first] = differences;
  expect(first.measured - first.predicted).toBeGreaterThan(0.4);
  const { x, y } = whole[215];
  const { samples } = proof;
  expect(Math.hypot(samples.x[first.sample] - x - zero.x, samples.y[first.sample] - y - zero.y)).toBeLessThan(60);
  for (let i = 1; i < differences.length; i++) {
    const by = (k: number) => Math.abs(differences[k].measured - differences[k].predicted);
    expect(by(i)).toBeLessThanOrEqual(by(i - 1));
  }
});

test('what another program did lies beside it', () => {
  const moved = whole.map((r) => ({ ...r, x: r.x + 200 }));
  const { elsewhere, seconds, measured } = layOver(moved, proof.samples, zero);
  expect(elsewhere).toBeGreaterThan(20);
  expect(seconds).toBe(0);
  expect(measured.every(Number.isNaN)).toBe(true);
  expect(layOver([], proof.samples, zero).differences).toEqual([]);
});
