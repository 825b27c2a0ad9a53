/** What the apps, the command line and the tests may use of this floor. */
export { addSetup, editOperation, withController, withoutSetup, withSetup } from './edit';
export { Fixture, FORMAT_VERSION, Job, LIES, Setup, ZERO_POINTS } from './job';
export { UNNAMED, newJob } from './new';
export { Operation } from './operation';
export { readStored } from './read';
export { STOCK_AXES, stockSize, withStockSize } from './stock';
export type { JobRow, JobSummary, SaveResult } from './stored';
