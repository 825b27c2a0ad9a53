/** All that a control remembers, as plain data: what is kept of it is all of it. */
import type { ChipColour, ChipShape } from '@tidypath/core';
import type { Alarm } from './alarms';
import { ORIGIN, Place } from './place';
import type { Leg } from './tape';

export const STATES = ['ready', 'running', 'held', 'block', 'waits', 'tool', 'alarm', 'done'] as const;
export type MachineState = (typeof STATES)[number];

/** Steps of each override, percent. */
export const OVERRIDES = {
  feed: Array.from({ length: 16 }, (_, i) => i * 10),
  rapid: [0, 5, 25, 50, 100],
  speed: Array.from({ length: 8 }, (_, i) => 50 + i * 10),
} as const;
export type Override = keyof typeof OVERRIDES;

export const SWITCHES = ['singleBlock', 'optionalStop', 'blockSkip', 'door'] as const;
/** Stops after each block; stops where the program asks to; leaves out blocks that begin with a stroke; is open. */
export type Switch = (typeof SWITCHES)[number];

/** What somebody entered. */
export interface Entered {
  /** Length registers by number, mm. */
  lengths: Record<number, number>;
  /** As the machine counts, mm; of each axis once it was touched off. */
  zero: Partial<Place>;
  /** How high above the part it is tried, mm; 0 for the real thing. */
  lift: number;
}

/** What was seen of an operation while it ran. */
export interface StepSeen {
  operationId: string;
  tool: number;
  seconds: number;
  /** Most of each. */
  load: number;
  vibration: number;
  heat: number;
  colour?: ChipColour;
  /** Hz of the loudest chatter, and seconds of any. */
  chatter?: number;
  chattered: number;
  /** Seconds of each shape of chip. */
  shapes: Partial<Record<ChipShape, number>>;
  /** Seconds in cut, and the force of the last of them, N: it is what gave way when the wall was made. */
  inCut: number;
  lateForce: number;
}

/** How a tool has fared. */
export interface ToolFate {
  /** Share of an edge used. */
  worn: number;
  /** What was asked of it so far, against what it breaks at. */
  asked: number;
  /** Where it broke, line; nobody may have noticed. */
  brokeAt?: number;
}

export interface Memory {
  state: MachineState;
  /** s since it was switched on. */
  now: number;
  /** s any program has run, and had run when this one began. */
  ran: number;
  began: number;
  /** Whether it was turned up or down meanwhile: its time says nothing. */
  turned: boolean;
  /** Block that runs, or is next. */
  block: number;
  entered: Entered;
  overrides: Record<Override, number>;
  switches: Record<Switch, boolean>;
  /** What was done to the piece so far, and what runs now, to its end. */
  past: Leg[];
  current?: Leg;
  /** What stands in the spindle where another was asked for. */
  spindle: Record<number, number>;
  lost: Place;
  /** Tool asked for. */
  asks?: number;
  alarm?: Alarm;
  steps: StepSeen[];
  fates: Record<number, ToolFate>;
  /** How often a new tool took the place of one that wore or broke. */
  renewed?: Record<number, number>;
}

/** A control that was just switched on. */
export const freshMemory = (entered: Entered): Memory => ({
  ...{ state: 'ready', now: 0, ran: 0, began: 0, turned: false, block: 0, entered },
  overrides: { feed: 100, rapid: 100, speed: 100 },
  switches: { singleBlock: false, optionalStop: false, blockSkip: false, door: false },
  ...{ past: [], spindle: {}, lost: ORIGIN, steps: [], fates: {} },
});
