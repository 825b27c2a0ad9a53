/** What the apps, the command line and the tests may use of this floor. */
export {
  computedTime,
  type KeptEntry,
  LogEntry,
  LOGGED_KINDS,
  type LoggedKind,
  type MachineTime,
  standing,
} from './entry';
export { type CutEvidence, evidenceText, isSameCut, noted, recipeOf } from './recipe';
export type { RunEvent, RunKind, RunRow } from './run';
export { ENOUGH_RUNS, fitTime, type TimedRun } from './time';
