import type { Machine } from './machine';

/** What takes the metal away: a milling cutter, a tool that makes or finishes a hole, a beam, or somebody by hand. */
export type Process = 'milling' | 'hole' | 'beam' | 'hand';

/** What a machine can do, asked instead of what kind it is. */
export interface Abilities {
  /** Processes it can run. */
  processes: Process[];
  /** Whether the work turns, and what cuts stands still. */
  turnsWork: boolean;
}

const WITH_SPINDLE: Abilities = { processes: ['milling', 'hole', 'hand'], turnsWork: false };

const BY_KIND: Record<Machine['kind'], Abilities> = {
  mill: WITH_SPINDLE,
  router: WITH_SPINDLE,
  lathe: { processes: [], turnsWork: true },
  'sheet cutter': { processes: ['beam', 'hand'], turnsWork: false },
};

/** What a machine can do. */
export const abilities = ({ kind }: Pick<Machine, 'kind'>): Abilities => BY_KIND[kind];
