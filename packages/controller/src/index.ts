/** A simulated machine and its control: the stand-in for a real one. */
export { coloursOf } from './behaviour/heat';
export type { MachineEvent, StreamRow } from './control/events';
export { Machine } from './control/machine';
export { type Entered, freshMemory, type MachineState, type Memory, OVERRIDES, type StepSeen } from './control/memory';
export { press, Press } from './control/press';
export { load, type Loaded, prepare, type Work, workOf } from './control/work';
export { measured, type Measured, type Ran, runThrough, seenOf, sheetLengths, trulyEntered } from './control/run';
export { type MachineView, type Register, viewOf } from './control/view';
export { layOver, type Overlay } from './stream/over';
export { readStream, StreamFault, streamCsv } from './stream/csv';
