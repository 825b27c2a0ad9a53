/** A run of a program, as it is kept: rows are only added. */

export const RUN_KINDS = ['simulated', 'prove-out', 'production', 'trial'] as const;
export type RunKind = (typeof RUN_KINDS)[number];

/** A run in a list. */
export interface RunRow {
  id: string;
  releaseId: string;
  jobId: string;
  setupId: string;
  root: string;
  machine: string;
  kind: RunKind;
  /** Of the hidden character of a simulated machine. */
  seed: number;
  /** ISO 8601. */
  at: string;
  who: string;
  /** How the control stood when it was last heard of. */
  state: string;
}

/** Something that happened in a run. */
export interface RunEvent {
  /** s since the machine was switched on. */
  seconds: number;
  line: number;
  what: string;
  words: string;
  /** ISO 8601. */
  at: string;
}
