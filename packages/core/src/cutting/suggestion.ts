import { LengthUnit } from '../quantity/units';
import { Machine } from '../machine/machine';
import { Material } from '../shop/material';
import { Tool } from '../shop/tool';
import { WorkGrip } from './boldness';
import type { Coolant } from '../machine/machine';
import type { Bend } from './cut';
import { LoadLimit } from './limits';
import { Working } from './working';

/** What may limit a speed or a feed. */
export type Limit =
  | 'range'
  | 'asked'
  | 'spindle speed'
  | 'slowest spindle'
  | 'holder balance'
  | 'machine feed'
  | 'finish'
  | LoadLimit
  | 'rubbing'
  | 'pitch';

/** What a wall is asked for. */
export interface Finish {
  ra: number;
  share: number;
}

/** What a suggestion is worked out for; lengths mm. */
export interface Situation {
  tool: Tool;
  material: Material;
  machine: Machine;
  /** Sideways bite, its worst place, and the layer's depth; ignored for tools fed along their axis. */
  ae: number;
  ap: number;
  peakAe?: number;
  /** Metal left on the wall for a finish. */
  leaves?: number;
  /** How far it may bend, where that is said. */
  bend?: Bend;
  /** Roughness its wall may have, µm Ra, and the share of the feed its last lap runs at; any where left out. */
  finish?: Finish;
  /** What is switched on; not counted where left out. */
  coolant?: Coolant;
  /** 0 first cut on an unknown machine, 0.5 settled (where left out), 1 pushing. */
  boldness?: number;
  /** How firmly the work is held; fair where left out. */
  grip?: WorkGrip;
  /** Side force the work may be pushed with, its safety counted, N; any where left out. */
  hold?: number;
  /** What someone was told: a speed to run at, the most the feed may be; rpm and mm/min. */
  asked?: { rpm?: number; feed?: number };
  /** Unit of the sentences; all numbers stay in mm. */
  unit?: LengthUnit;
}

/** One limit and what it alone would allow, rpm or mm/min. */
export interface LimitStep {
  id: Limit;
  on: 'rpm' | 'feed';
  label: string;
  allows: number;
  governs: boolean;
}

export interface Suggestion {
  rpm: number;
  /** mm/min. */
  feed: number;
  /** mm/min for plunges, ramps and helices. */
  entryFeed: number;
  limit: Limit;
  /** The limit in a sentence, with the way out. */
  limitText: string;
  /** False where no speed and feed of this machine make a chip thick enough within the limits. */
  possible: boolean;
  /** Every limit on speed and feed, tightest first. */
  chain: LimitStep[];
  working: Working[];
}
