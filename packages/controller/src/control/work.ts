/** What lies on the machine and is to run: worked out once for what is entered, whatever the overrides. */
import {
  Finding,
  GENERAL_TOLERANCE,
  Job,
  MARK,
  Machine,
  Motions,
  Piece,
  ProofRun,
  Samples,
  Section,
  Setup,
  SurfaceView,
  clock,
  clockSettings,
  joinPrograms,
  leftBefore,
  pieceView,
  planSetup,
  postSetup,
} from '@tidypath/core';
import { Character, characterOf } from '../behaviour/character';
import { Alarm, struck } from './alarms';
import { Block, blocksOf, withoutSkipped } from './program';
import { Leg, Tape, tapeOf } from './tape';

/** A program on a machine, with the piece in it. */
export interface Work {
  job: Job;
  setup: Setup;
  text: string;
  /** Which lines belong to which operation. */
  sections: Section[];
  /** What an earlier setup left. */
  left?: Piece;
  /** Size of the grid it is cut on, mm; chosen from the stock where left out. */
  cell?: number;
  seed: number;
  /** Whether lines marked with / are left out. */
  skips: boolean;
}

/** The program as it is read, before anything is entered. */
export interface Loaded {
  work: Work;
  text: string;
  motions: Motions;
  blocks: Block[];
  character: Character;
}

/** A program whatever its root is. */
const unmarked = (text: string) => text.replace(/(release )[0-9a-f]{8}/gi, '$1').trimEnd();

/** A program on the machine of its job; where it is the job's own, which lines belong to which operation. */
export function workOf(job: Job, setup: Setup, text: string, more: Pick<Work, 'seed' | 'skips' | 'cell'>): Work {
  const plan = planSetup(job, setup);
  const own = [undefined, MARK]
    .map((mark) => joinPrograms(postSetup(job, setup, plan, job.controllerId, mark).programs))
    .find((one) => unmarked(one.text) === unmarked(text));
  return { job, setup, text, sections: own?.sections ?? [], left: leftBefore(job, setup, more.cell).left, ...more };
}

const runOf = (
  { job, setup, cell, left, sections }: Work,
  text: string,
  moved?: (m: Motions, homeZ: number) => Motions,
) => new ProofRun(job, setup, text, cell, { left, sections, glance: true, moved });

/** The machine as it really takes its time. */
const really = (machine: Machine, { time }: Character): Machine => ({
  ...machine,
  extraTime: time.extra,
  toolChangeSeconds: machine.toolChangeSeconds * time.change,
});

/** Reads a program onto a machine. */
export function load(work: Work): Loaded {
  const text = work.skips ? withoutSkipped(work.text) : work.text;
  const { motions, ran } = runOf(work, text).read;
  const { machine, tools } = work.job;
  const character = characterOf(machine, tools, work.seed);
  const own = { ...work, job: { ...work.job, machine: really(machine, character) } };
  return { work: own, text, motions, blocks: blocksOf(text, motions, ran), character };
}

/** Everything that happens on a tape, at the programmed feeds; keyed by nothing but what is entered. */
export interface Prepared {
  tape: Tape;
  /** At the programmed feeds: seconds of each motion, and from the start up to each. */
  seconds: Float64Array;
  starts: Float64Array;
  samples: Samples;
  /** The first sample of each motion; one more at the end. */
  firstSample: Uint32Array;
  /** What is felt at once, by the motion of the tape at which it is. */
  strikes: Map<number, Alarm>;
  /** Seconds of each motion at other feeds and rapids. */
  paced(feed: number, rapid: number): Float64Array;
  /** What it looks like in the end, judged: what is wrong with the piece. */
  judged(): Finding[];
  /** What it looks like. */
  piece(): SurfaceView;
}

/** The machine with its rapids turned down. */
const slower = (machine: Machine, share: number): Machine => {
  const { x, y, z } = machine.axes;
  const axis = (a: typeof x) => ({ ...a, rapid: a.rapid * share });
  return { ...machine, axes: { x: axis(x), y: axis(y), z: axis(z) } };
};

/** Shares in percent of feeds and rapids, as overrides give them. */
function pacer(machine: Machine, motions: Motions, seconds: Float64Array): Prepared['paced'] {
  const known = new Map([['1 1', seconds]]);
  return (feed, rapid) => {
    const key = `${feed} ${rapid}`;
    const found = known.get(key);
    if (found) return found;
    const feeds = motions.feed.map((f) => f * feed);
    const made = clock({ ...motions, feed: feeds }, clockSettings(slower(machine, rapid))).seconds;
    // A move that never ends, not one that takes no time.
    const still = made.map((s, i) =>
      motions.type[i] < 4 && (motions.type[i] === 0 ? rapid : feed) === 0 ? Infinity : s,
    );
    known.set(key, still);
    return still;
  };
}

/** What is wrong with a piece by more than its sizes may vary, mm. */
function isWrong({ code, data }: Finding, tolerance: number): boolean {
  const { by } = data as { by?: number };
  return ['gouge', 'metal-left', 'stock-short'].includes(code) && (by === undefined || by > tolerance);
}

/** Motions of a tape before its last leg, and before the way back to it. */
function startOf({ source }: Tape, legs: readonly Leg[]): number {
  let at = Math.max(0, source.lastIndexOf(legs[legs.length - 1]?.from ?? 0));
  while (at > 0 && source[at - 1] === -1) at--;
  return at;
}

/** Cuts the piece as the machine will, with what is entered: one proof. */
export function prepare(loaded: Loaded, legs: readonly Leg[]): Prepared {
  const { work, text, motions } = loaded;
  let tape: Tape = { motions, source: new Int32Array() };
  const run = runOf(work, text, (_, homeZ) => (tape = tapeOf(motions, legs, homeZ)).motions);
  // What was struck before is past: striking the same again is an alarm again.
  run.prover.advance(startOf(tape, legs));
  run.prover.contacts.told.forget();
  run.prover.advance();
  const { samples, findings } = run.prover.result();
  const { seconds } = run.prover.clock;
  const starts = new Float64Array(seconds.length);
  for (let i = 1; i < starts.length; i++) starts[i] = starts[i - 1] + seconds[i - 1];
  const firstSample = new Uint32Array(tape.motions.count + 1);
  for (let i = 0; i < samples.count; i++) firstSample[samples.motion[i] + 1] = i + 1;
  for (let i = 1; i < firstSample.length; i++) firstSample[i] = Math.max(firstSample[i], firstSample[i - 1]);
  const strikes = new Map<number, Alarm>();
  for (const f of findings) {
    const alarm = struck(f);
    const at = f.place.motion ?? 0;
    if (alarm && !strikes.has(at)) strikes.set(at, alarm);
  }
  return {
    ...{ tape, seconds, starts, samples, firstSample, strikes },
    paced: pacer(work.job.machine, tape.motions, seconds),
    piece: () => pieceView(run),
    judged: () => run.finish().findings.filter((f) => isWrong(f, work.job.tolerance ?? GENERAL_TOLERANCE)),
  };
}
