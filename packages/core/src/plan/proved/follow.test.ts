import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseJob } from '../documents';
import { planSetup, postSetup } from '../pipeline';
import { joinPrograms } from '../joined';
import { ProofRun } from '../prove';
import { Job } from '../../document/job';

const CELL = 0.3;
const job = parseJob(readFileSync(join(__dirname, '../../../../../demo/jobs/float-pulley-bracket.json'), 'utf8')).job!;
const [setup] = job.setups;
const { text } = joinPrograms(postSetup(job, setup, planSetup(job, setup)).programs);
const lines = text.split('\n');

const run = (changed: string, of: Job = job) => new ProofRun(of, setup, changed, CELL);
function proved(r: ProofRun) {
  r.prover.advance();
  return r.finish();
}

/** The program with a line near a share of its length changed: it is fed a little slower. */
function changedAt(share: number): string {
  const from = Math.floor(lines.length * share);
  const at = lines.findIndex((l, i) => i >= from && /F\d/.test(l));
  return lines.map((l, i) => (i === at ? l.replace(/F[\d.]+/, 'F123.') : l)).join('\n');
}

const before = run(text);
proved(before);

test.each([0.35, 0.6, 0.97])('changed at %p of its length, it is cut on from there, with the same outcome', (share) => {
  const again = run(changedAt(share));
  const kept = again.prover.follow(before.prover);
  expect(kept).toBeGreaterThan(again.read.motions.count * (share - 0.25));
  const fresh = run(changedAt(share));
  const [a, b] = [proved(again), proved(fresh)];
  expect(a.findings).toEqual(b.findings);
  expect(a.removed).toBe(b.removed);
  expect(a.samples).toEqual(b.samples);
  expect(Buffer.from(a.field.height.slice().buffer).equals(Buffer.from(b.field.height.slice().buffer))).toBe(true);
  expect(Buffer.from(a.owner.slice().buffer).equals(Buffer.from(b.owner.slice().buffer))).toBe(true);
});

test('faults told before the change are still told', () => {
  const rapid = lines.findIndex((l, i) => i > lines.length * 0.2 && /G1 .*F/.test(l));
  const wrong = (l: string[]) => [...l.slice(0, rapid), 'G0 Z-9.', ...l.slice(rapid)].join('\n');
  const first = run(wrong(lines));
  const told = proved(first).findings.filter((f) => f.code === 'rapid-through-stock');
  expect(told).toHaveLength(1);
  const again = run(wrong(changedAt(0.9).split('\n')));
  expect(again.prover.follow(first.prover)).toBeGreaterThan(0);
  expect(proved(again).findings.filter((f) => f.code === 'rapid-through-stock')).toEqual(told);
});

test('another piece, another tool or an early change starts from the beginning', () => {
  const thicker = { ...job, tools: job.tools.map((t) => ({ ...t, diameter: t.diameter + 0.5 })) };
  expect(run(text, thicker).prover.follow(before.prover)).toBe(0);
  const softer = { ...job, material: { ...job.material, kc11: job.material.kc11 * 0.9 } };
  expect(run(text, softer).prover.follow(before.prover)).toBe(0);
  expect(run(changedAt(0)).prover.follow(before.prover)).toBe(0);
});

test('a piece of piles is cut on with the same outcome, its undersides too', () => {
  const stock = { ...setup.stock, shape: 'round' as const, diameter: 120, lies: 'along X' as const };
  const lying = { ...job, setups: [{ ...setup, stock }] };
  const start = (changed: string) => new ProofRun(lying, lying.setups[0], changed, CELL);
  const first = start(text);
  proved(first);
  const [again, fresh] = [start(changedAt(0.6)), start(changedAt(0.6))];
  expect(again.prover.follow(first.prover)).toBeGreaterThan(0);
  const [a, b] = [proved(again), proved(fresh)];
  expect(a.field.below).toEqual(b.field.below);
  expect(a.findings).toEqual(b.findings);
  expect(again.prover.memory).toBe(fresh.prover.memory);
});
