/** What a machine tells while it runs. */

/** Something that happened. */
export interface MachineEvent {
  /** s since it was switched on. */
  at: number;
  line: number;
  what:
    | 'start'
    | 'hold'
    | 'block'
    | 'waits'
    | 'tool'
    | 'alarm'
    | 'reset'
    | 'override'
    | 'switch'
    | 'entered'
    | 'broke'
    | 'skipped'
    | 'done';
  text: string;
}

/** A row of what is measured while it runs. */
export interface StreamRow {
  t: number;
  x: number;
  y: number;
  z: number;
  /** Percent. */
  load: number;
  /** µm. */
  vibration: number;
}
