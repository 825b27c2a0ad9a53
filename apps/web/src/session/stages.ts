import { Finding, hasStop, Job, RunRow, Setup, Stage, partFindings } from '@tidypath/core';
import type { Computed } from './useComputed';

export const STAGE_NAMES: Record<Stage, string> = {
  part: 'Part',
  hold: 'Hold',
  cut: 'Cut',
  prove: 'Prove',
  release: 'Release',
  run: 'Run',
};

/** A stage's state in a word and a shape. */
export interface StageState {
  word: 'done' | 'needs you' | 'out of date' | 'running' | 'empty';
  mark: string;
}

const DONE: StageState = { word: 'done', mark: '✓' };
const OLD: StageState = { word: 'out of date', mark: '↻' };
const EMPTY: StageState = { word: 'empty', mark: '–' };
const needs = (findings: Finding[]): StageState => ({
  word: 'needs you',
  mark: `▲${findings.filter((f) => f.level === 'stop').length || ''}`,
});

/** Where the newest run of a setup stands. */
function runState([newest]: RunRow[]): StageState {
  const { state = 'ready' } = newest ?? {};
  if (state === 'ready') return EMPTY;
  if (state === 'done') return DONE;
  if (state === 'alarm' || state === 'tool') return needs([]);
  return { word: 'running', mark: state === 'running' ? '▶' : '■' };
}

/**
 * Where each stage stands; nothing blocks looking ahead.
 * @param runs of the setup, the newest first
 */
export function stageStates(
  job: Job,
  setup: Setup,
  computed: Computed,
  runs: RunRow[] = [],
): Record<Stage, StageState> {
  const { plan, proof, planFresh, proofFresh } = computed;
  const drawn = partFindings(job.part);
  const part = job.part.features.length === 0 ? EMPTY : hasStop(drawn) ? needs(drawn) : DONE;
  const planned = plan ? [...plan.findings, ...plan.planned.flatMap((p) => p.findings)] : [];
  const cut = setup.operations.length === 0 ? EMPTY : !planFresh ? OLD : hasStop(planned) ? needs(planned) : DONE;
  const prove =
    setup.operations.length === 0
      ? EMPTY
      : !proofFresh
        ? OLD
        : hasStop(proof?.findings ?? [])
          ? needs(proof!.findings)
          : proof
            ? DONE
            : EMPTY;
  const release = prove === DONE && cut === DONE ? DONE : prove === EMPTY ? EMPTY : prove === OLD ? OLD : needs([]);
  return {
    part,
    hold: setup.fixtures.length > 0 || setup.holding?.length || setup.operations.length > 0 ? DONE : EMPTY,
    cut,
    prove,
    release,
    run: runState(runs),
  };
}

/** What stands in the way of release: stops of part, plan and proof. */
export const stopsOf = (computed: Computed): Finding[] =>
  [
    ...(computed.plan?.findings ?? []),
    ...(computed.plan?.planned.flatMap((p) => p.findings) ?? []),
    ...(computed.proofFresh ? (computed.proof?.findings ?? []) : []),
  ].filter((f) => f.level === 'stop');
