import { Coolant } from './machine';

export const CYCLES = ['drill', 'spot', 'peck', 'chip-break'] as const;
export type CycleKind = (typeof CYCLES)[number];

/** A controller dialect as data: what it can do and the words it uses. */
export interface Controller {
  id: string;
  name: string;
  about: string;
  fileExtension: string;
  /** How a remark is set apart; text is upper-cased and stripped where the control needs it. */
  comment: { open: string; close: string; upperCase: boolean };
  /** First and last lines around a whole program; {number} and {name} are filled in. */
  frame: { open: string[]; close: string[] };
  decimals: { mm: number; inch: number; feed: number };
  lineNumbers: { step: number };
  /** How the next tool gets into the spindle. */
  toolChange: 'automatic' | 'one program a tool';
  lengthOffsets: boolean;
  workOffsets: string[];
  /** The word of each canned cycle it knows; a cycle that is missing is written out as moves. */
  cycles: Partial<Record<CycleKind, string>>;
  /** The word that turns each coolant on; a coolant that is missing cannot be asked for. */
  coolant: Partial<Record<Exclude<Coolant, 'off'>, string>>;
  /** Seconds to wait after starting the spindle where the control does not wait by itself; 0 for none. */
  spindleDwell: number;
  /** Move to a safe height in machine coordinates before tool changes and at the end. */
  retreat: string[];
  units: { mm: string; inch: string };
  /** Safe modal state at the start. */
  safeStart: string[];
}
