/** A simulated machine and its control: the stand-in for a real one. */
export { Machine } from './control/machine';
export { freshMemory, type Entered } from './control/memory';
export { load, type Loaded, prepare, workOf } from './control/work';
export { measured, type Ran, runThrough, shapeOf, trulyEntered } from './control/run';
export { readStream, StreamFault, streamCsv } from './stream/csv';
