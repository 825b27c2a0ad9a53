/** What the apps, the command line and the tests may use of this floor. */
export type { RunEvent, RunKind, RunRow } from './run';
