/** How serious a finding is: `stop` forbids release, `care` wants a look, `note` is for information. */
export type Level = 'stop' | 'care' | 'note';

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

/** What is wrong, where, and what to do. The core reports user input in findings and never throws for it. */
export interface Finding {
  code: string;
  level: Level;
  message: string;
  remedy: string;
  place: Place;
}

export function finding(level: Level, code: string, message: string, remedy: string, place: Place = {}): Finding {
  return { level, code, message, remedy, place };
}

export const stop = (code: string, message: string, remedy: string, place?: Place) =>
  finding('stop', code, message, remedy, place);
export const care = (code: string, message: string, remedy: string, place?: Place) =>
  finding('care', code, message, remedy, place);
export const note = (code: string, message: string, remedy: string, place?: Place) =>
  finding('note', code, message, remedy, place);

export const hasStop = (findings: Finding[]): boolean => findings.some((f) => f.level === 'stop');
