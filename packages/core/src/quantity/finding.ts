import { DOCUMENT } from './findings/document';
import { DRAWING } from './findings/drawing';
import { HOLDING } from './findings/holding';
import { LOAD } from './findings/load';
import { LOG } from './findings/log';
import { MILLING } from './findings/milling';
import { MODEL } from './findings/model';
import { OPERATION } from './findings/operation';
import { PART } from './findings/part';
import { PLAN } from './findings/plan';
import { PROGRAM } from './findings/program';
import { PROOF } from './findings/proof';
import { RELEASE } from './findings/release';
import { sayIn } from './findings/say';
import { SHOP } from './findings/shop';
import { Level, Words } from './findings/words';
import { LengthUnit } from './units';

export type { Level, Spot } from './findings/words';

/** The one table of findings: their codes, how serious they are and how they are told; `docs/findings.md` is made from it. */
export const FINDINGS = {
  ...DOCUMENT,
  ...DRAWING,
  ...MODEL,
  ...PART,
  ...SHOP,
  ...HOLDING,
  ...OPERATION,
  ...MILLING,
  ...PLAN,
  ...PROGRAM,
  ...PROOF,
  ...LOAD,
  ...RELEASE,
  ...LOG,
};

export type Code = keyof typeof FINDINGS;

/** What must be known to tell of a code: names, numbers and places, lengths in mm. */
export type DataOf<C extends Code> = Parameters<(typeof FINDINGS)[C]['message']>[0];

/** Where a finding belongs; every field that is known is filled in. */
export interface Place {
  /** Line of a file or program, counted from 1. */
  line?: number;
  operation?: string;
  feature?: string;
  tool?: string;
  /** Dotted path of a field in the job document. */
  field?: string;
  /** Point in part coordinates, mm. */
  at?: { x: number; y: number; z?: number };
  /** Index of the motion in a read program. */
  motion?: number;
}

/** What is wrong, where, and what to do, in metric words. The core reports user input in findings and never throws for it. */
export interface Finding {
  code: Code;
  level: Level;
  message: string;
  remedy: string;
  /** What it is told from, plain data. */
  data: object;
  /** By how many moves, where more than one did the same. */
  times?: number;
  place: Place;
}

/** The words of a code; every entry takes the data of its own code. */
const wordsOf = (code: Code) => FINDINGS[code] as Words<object>;

const METRIC = sayIn('mm');

/**
 * Tells of something.
 * @param data what its words are made from, lengths in mm
 */
export function finding<C extends Code>(code: C, data: DataOf<C>, place: Place = {}): Finding {
  const words = wordsOf(code);
  return {
    code,
    level: words.level,
    message: words.message(data, METRIC),
    remedy: words.remedy(data, METRIC),
    data,
    place,
  };
}

/** A finding of what several moves did. */
export const timesOver = (told: Finding, times: number): Finding => ({
  ...told,
  times,
  message: `${told.message} (${times} moves)`,
});

/** A finding in the words of a unit. */
export function worded(told: Finding, unit: LengthUnit): Finding {
  if (unit === 'mm') return told;
  const [words, say] = [wordsOf(told.code), sayIn(unit)];
  const again = { ...told, message: words.message(told.data, say), remedy: words.remedy(told.data, say) };
  return told.times ? timesOver(again, told.times) : again;
}

export const hasStop = (findings: Finding[]): boolean => findings.some((f) => f.level === 'stop');
