import { type Finding, finding, PlanView, ProofView, RunRow } from '@tidypath/core';
import { sampleJob } from '../../testing/show';
import { stageStates, stopsOf } from './stages';

const job = sampleJob();
const setup = job.setups[0];
const stop = finding('not-posted', {});
const plan = (findings: Finding[] = []): PlanView => ({
  planned: [],
  findings,
  programs: [],
  zero: { x: 0, y: 0, z: 0 },
  clearance: 10,
});
const proof = (findings: Finding[] = []) => ({ findings }) as unknown as ProofView;
const fresh = { planFresh: true, proofFresh: true, cancelled: false };

test('the newest run of a setup says how it stands', () => {
  const at = (...states: string[]) =>
    stageStates(
      job,
      setup,
      { ...fresh, plan: plan() },
      states.map((state) => ({ state }) as RunRow),
    ).run;
  expect(at().word).toBe('empty');
  expect(at('running', 'done')).toEqual({ word: 'running', mark: '▶' });
  expect(at('held')).toEqual({ word: 'running', mark: '■' });
  for (const state of ['alarm', 'tool']) expect(at(state).word).toBe('needs you');
  expect(at('done', 'alarm').word).toBe('done');
  expect(at('ready').word).toBe('empty');
});

test('a stage is done, needs you, is out of date or empty', () => {
  const done = stageStates(job, setup, { ...fresh, plan: plan(), proof: proof() });
  expect(Object.values(done).map((s) => s.word)).toEqual(['done', 'done', 'done', 'done', 'done', 'empty']);
  const old = stageStates(job, setup, { ...fresh, proofFresh: false, plan: plan(), proof: proof() });
  expect([old.cut.word, old.prove.word, old.release.word]).toEqual(['done', 'out of date', 'out of date']);
  const bad = stageStates(job, setup, { ...fresh, plan: plan(), proof: proof([stop, stop]) });
  expect([bad.prove.mark, bad.release.word]).toEqual(['▲2', 'needs you']);
  const empty = stageStates(
    { ...job, part: { kind: 'plate', thickness: 5, features: [] } },
    { ...setup, operations: [] },
    { ...fresh, plan: plan() },
  );
  expect(Object.values(empty).map((s) => s.word)).toEqual(['empty', 'empty', 'empty', 'empty', 'empty', 'empty']);
  expect(stopsOf({ ...fresh, plan: plan([stop]), proof: proof([stop]) })).toHaveLength(2);
  expect(stopsOf({ ...fresh, proofFresh: false, plan: plan([stop]), proof: proof([stop]) })).toHaveLength(1);
});
