/** A program run from its start to its end without anybody at the machine, and the piece it leaves. */
import {
  CHIP_SHAPES,
  ChipColour,
  Job,
  Seen,
  Setup,
  SizeToMeasure,
  hashOf,
  holderLength,
  makersOf,
  normalFrom,
  randomFrom,
  sizesToMeasure,
} from '@tidypath/core';
import { Entered, Memory, StepSeen, freshMemory } from './memory';
import type { MachineEvent, StreamRow } from './events';
import { Machine } from './machine';
import type { Place } from './place';
import type { Leg } from './tape';
import { Loaded, prepare } from './work';

/** Everything entered as it truly is: what a careful setter enters. */
export function trulyEntered({ character }: Loaded): Entered & { zero: Place } {
  const lengths = Object.fromEntries([...character.tools].map(([number, { length }]) => [number, length]));
  return { lengths, zero: character.zero, lift: 0 };
}

/** Length registers as the sheet says: what a careful setter compares with, not what is. */
export const sheetLengths = ({ work }: Loaded): Entered['lengths'] =>
  Object.fromEntries(work.job.tools.map((t) => [t.number, t.stickOut + holderLength(t.holder)]));

/** What was run. */
export interface Ran {
  memory: Memory;
  events: MachineEvent[];
  stream: StreamRow[];
  /** What was done to the piece. */
  cut: Leg[];
}

/** Tools that somebody puts in when they are asked for, presses of start at stops: more than any program has. */
const MOST_PRESSES = 100_000;

/**
 * Runs a program through, putting in each tool that is asked for and going on at each stop, until its end or an alarm.
 * @param entered as it truly is where left out
 */
export function runThrough(loaded: Loaded, entered: Entered = trulyEntered(loaded)): Ran {
  const machine = new Machine(loaded, freshMemory(entered), true);
  const { memory } = machine;
  for (let i = 0; i < MOST_PRESSES; i++) {
    if (memory.asks !== undefined) machine.putIn(memory.asks);
    if (machine.start()) break;
    while (memory.state === 'running') {
      const needs = machine.needs;
      if (needs) machine.supply(prepare(loaded, needs));
      machine.advance(Infinity);
    }
    if (memory.state === 'done' || memory.state === 'alarm') break;
  }
  return { memory, events: machine.events(), stream: machine.stream(), cut: machine.cut };
}

/** The shape most of a step's chips had; undefined where it made none. */
export const shapeOf = ({ shapes }: StepSeen) =>
  CHIP_SHAPES.filter((s) => shapes[s]).sort((a, b) => shapes[b]! - shapes[a]!)[0];

/** Chatter that lasts less is not heard, s. */
const HEARD = 0.5;

/** Chips that stick to the edge tear the wall. */
const TEARS: readonly (ChipColour | undefined)[] = ['smears', 'welds'];

/** A step as somebody who stood there would log it. */
export function seenOf(step: StepSeen): Seen {
  const { operationId: operation, seconds, load, colour, chatter, chattered } = step;
  const [shape, screams] = [shapeOf(step), chattered > HEARD];
  return {
    ...{
      operation,
      seconds: Math.round(10 * seconds) / 10,
      load: Math.round(1000 * load) / 1000,
      sound: screams ? 'screams' : 'quiet',
    },
    finish: screams ? 'chatter marks' : TEARS.includes(colour) ? 'torn' : 'clean',
    ...(colour && { colour }),
    ...(shape && { shape }),
    ...(screams && chatter !== undefined && { chatter: Math.round(chatter) }),
  };
}

/** A size as the piece has it. */
export interface Measured {
  size: SizeToMeasure;
  /** mm. */
  mm: number;
}

/** A worn edge cuts so much less on each side, mm, for a whole life (estimate). */
const WORN = 0.015;
/** What a hand with a good gauge repeats, mm. */
const REPEATS = 0.002;

/** The leg that ran a tool last, for what was entered then. */
const lastOf = (past: readonly Leg[], tool: number): Leg | undefined =>
  past.filter((s) => s.lengths[tool] !== undefined).at(-1);

/** How far off its height a tool cut, mm; positive is too high. */
function heightOff(past: readonly Leg[], tool: number): number {
  const s = lastOf(past, tool);
  return s ? s.zero.z + s.lost.z + s.lift + s.lengths[tool] : 0;
}

/** The last step that made a size; undefined where none ran. */
function lastStepOn(setup: Setup, steps: readonly StepSeen[], size: SizeToMeasure): StepSeen | undefined {
  const makers = new Set(makersOf(setup, size).map((o) => o.id));
  return steps.filter((s) => makers.has(s.operationId)).at(-1);
}

/** How much narrower an opening is cut, mm on both sides: twice what machine and tool give under the force, and what the edge has worn. */
function narrower({ character }: Loaded, step: StepSeen, worn: number): number {
  const tool = character.tools.get(step.tool);
  if (!tool) return 0;
  return 2 * (step.lateForce * (character.machine.gives + tool.gives) + WORN * worn);
}

/** Whether a size is of something that stands, which too much force leaves too large. */
const stands = (job: Job, { feature }: { feature: string }): boolean => {
  const found = job.part.features.find((f) => f.name === feature);
  return found?.meaning === 'outline' || found?.meaning === 'boss';
};

/** Sizes of the piece as somebody measures them; only of what was cut. @param past what was done to it */
export function measured(loaded: Loaded, past: readonly Leg[], { state, steps: begun, fates }: Memory): Measured[] {
  const { job, setup, seed } = loaded.work;
  // Short of the end the last one is not finished.
  const steps = state === 'done' ? begun : begun.slice(0, -1);
  const faced = steps.find((s) => setup.operations.some((o) => o.id === s.operationId && o.kind === 'face'));
  return sizesToMeasure(job, setup).flatMap((size): Measured[] => {
    const step = lastStepOn(setup, steps, size);
    if (!step) return [];
    const hand = REPEATS * normalFrom(randomFrom(parseInt(hashOf([seed, size.id]).slice(0, 6), 36)))();
    if (size.size === 'depth')
      return [{ size, mm: size.mm - heightOff(past, step.tool) + (faced ? heightOff(past, faced.tool) : 0) + hand }];
    const less = narrower(loaded, step, fates[step.tool]?.worn ?? 0);
    return [{ size, mm: size.mm + (stands(job, size) ? less : -less) + hand }];
  });
}
