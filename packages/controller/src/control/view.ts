/** What a control shows. */
import { ChipColour, Lines, holderLength } from '@tidypath/core';
import { quietSpeeds } from '../behaviour/chatter';
import type { Chip } from '../behaviour/chip';
import type { Machine } from './machine';
import type { Memory } from './memory';
import type { Place } from './place';

/** A tool the program calls, with its register. */
export interface Register {
  tool: number;
  name: string;
  /** As entered, mm; undefined where nothing is. */
  entered?: number;
  /** From the gauge line to its tip as its sheet says, mm. */
  sheet: number;
  /** Share of an edge used. */
  worn: number;
  /** Whether somebody who looks sees that it broke; nobody sees it while it turns. */
  broke: boolean;
}

export interface MachineView extends Pick<
  Memory,
  'state' | 'now' | 'ran' | 'overrides' | 'switches' | 'asks' | 'alarm' | 'steps'
> {
  line: number;
  /** The line under way and some round it. */
  lines: { line: number; text: string }[];
  /** s of the whole program at full feed; undefined until it was prepared once. */
  whole?: number;
  /** Axes whose zero was set. */
  zero: Partial<Place>;
  lift: number;
  registers: Register[];
  place?: Place;
  toGo?: Place;
  tool?: number;
  rpm?: number;
  feed?: number;
  isRapid?: boolean;
  /** Share of its power. */
  load: number;
  /** mm. */
  vibration: number;
  chatter?: number;
  /** Speeds of the machine at which that is out of step, rpm. */
  quiet?: number[];
  /** N. */
  force: number;
  colour?: ChipColour;
  chip?: Chip;
}

/** Speeds the machine has that are out of step with a chatter. */
function quietAt({ loaded, running }: Machine, chatter: number): number[] {
  const { tools, machine } = loaded.work.job;
  const flutes = tools.find((t) => t.number === running?.tool)?.flutes ?? 1;
  return quietSpeeds(chatter, flutes, QUIET.looked)
    .filter((rpm) => rpm >= machine.minRpm && rpm <= machine.maxRpm)
    .slice(0, QUIET.shown);
}
const QUIET = { looked: 40, shown: 2 };

/** Lines shown before the one under way, and in all. */
const SHOWN = { before: 1, all: 5 };

function linesRound(text: Lines, line: number): MachineView['lines'] {
  const first = Math.max(1, line - SHOWN.before);
  return Array.from({ length: SHOWN.all }, (_, i) => first + i)
    .filter((n) => n <= text.count)
    .map((n) => ({ line: n, text: text.at(n - 1).trim() }));
}

function registersOf({ loaded, memory }: Machine): Register[] {
  const called = [...new Set(loaded.motions.tool)];
  return called.flatMap((number): Register[] => {
    const tool = loaded.work.job.tools.find((t) => t.number === number);
    if (!tool) return [];
    const entered = memory.entered.lengths[number];
    return [
      {
        ...{ tool: number, name: tool.name, sheet: tool.stickOut + holderLength(tool.holder) },
        worn: memory.fates[number]?.worn ?? 0,
        broke: memory.state !== 'running' && memory.fates[number]?.brokeAt !== undefined,
        ...(entered !== undefined && { entered }),
      },
    ];
  });
}

/** What the control of a machine shows now. */
export function viewOf(machine: Machine): MachineView {
  const { memory, loaded, line } = machine;
  const { state, now, ran, overrides, switches, asks, alarm, steps, entered } = memory;
  const { load = 0, vibration = 0, force = 0, chatter, colour, chip } = machine.now ?? {};
  return {
    ...{ state, now, ran: ran - memory.began, overrides, switches, asks, alarm, steps, line },
    lines: linesRound(new Lines(loaded.text), line),
    whole: machine.whole,
    zero: entered.zero,
    lift: entered.lift,
    registers: registersOf(machine),
    ...machine.at,
    ...machine.running,
    ...{ load, vibration, force, chatter, colour, chip },
    ...(chatter !== undefined && { quiet: quietAt(machine, chatter) }),
  };
}
